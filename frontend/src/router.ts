import { createRouter, createWebHistory } from 'vue-router'

import BenchPage from './pages/BenchPage.vue'
import BuildingPage from './pages/BuildingPage.vue'
import CataloguePage from './pages/CataloguePage.vue'
import DoorPage from './pages/DoorPage.vue'
import HandoutPage from './pages/HandoutPage.vue'
import LadderPage from './pages/LadderPage.vue'
import NowherePage from './pages/NowherePage.vue'
import RevealsPage from './pages/RevealsPage.vue'
import ScenariosPage from './pages/ScenariosPage.vue'
import ShelfPage from './pages/ShelfPage.vue'
import StoriesPage from './pages/StoriesPage.vue'
import WallPage from './pages/WallPage.vue'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'shelf', component: ShelfPage },
    { path: '/reveals/:setId', name: 'reveals', component: RevealsPage, props: true },
    { path: '/bench/:setId/:exampleId?', name: 'bench', component: BenchPage, props: true },
    { path: '/handout/:setId', name: 'handout', component: HandoutPage, props: true },
    { path: '/wall/:setId/:exampleId?', name: 'wall', component: WallPage, props: true },
    { path: '/ladder/:setId', name: 'ladder', component: LadderPage, props: true },
    { path: '/stories/:setId', name: 'stories', component: StoriesPage, props: true },
    { path: '/scenarios', name: 'scenarios', component: ScenariosPage },
    { path: '/likely-wrong-answers', name: 'catalogue', component: CataloguePage },
    { path: '/number-building', name: 'building', component: BuildingPage },
    { path: '/classes', name: 'classes', component: () => import('./pages/ClassesPage.vue') },
    { path: '/classes/:classId', name: 'class', component: () => import('./pages/ClassPage.vue'), props: true },
    {
      path: '/classes/:classId/pupils/:pupilId',
      name: 'pupil',
      component: () => import('./pages/PupilPage.vue'),
      props: true,
    },
    {
      path: '/answers/:sittingId/:leaf(wrote|happened|next)?',
      name: 'answers',
      component: () => import('./pages/AnswersPage.vue'),
      props: (route) => ({ sittingId: route.params.sittingId, leaf: route.params.leaf || undefined }),
    },
    { path: '/door', name: 'door', component: DoorPage },
    { path: '/:path(.*)*', name: 'nowhere', component: NowherePage },
  ],
})
