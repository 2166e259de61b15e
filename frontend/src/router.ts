import { createRouter, createWebHistory, type RouteLocationNormalized } from 'vue-router'

import BenchPage from './pages/BenchPage.vue'
import ShelfPage from './pages/ShelfPage.vue'

/** What number building is given in its address. */
const toBuild = ({ query }: RouteLocationNormalized) => ({
  numbers: String(query.numbers ?? ''),
  wanted: String(query.wanted ?? ''),
})

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'shelf', component: ShelfPage },
    { path: '/reveals/:setId', name: 'reveals', component: () => import('./pages/RevealsPage.vue'), props: true },
    { path: '/bench/:setId/:exampleId?', name: 'bench', component: BenchPage, props: true },
    { path: '/handout/:setId', name: 'handout', component: () => import('./pages/HandoutPage.vue'), props: true },
    { path: '/wall/:setId/:exampleId?', name: 'wall', component: () => import('./pages/WallPage.vue'), props: true },
    { path: '/ladder/:setId', name: 'ladder', component: () => import('./pages/LadderPage.vue'), props: true },
    { path: '/stories/:setId', name: 'stories', component: () => import('./pages/StoriesPage.vue'), props: true },
    { path: '/scenarios', name: 'scenarios', component: () => import('./pages/ScenariosPage.vue') },
    { path: '/likely-wrong-answers', name: 'catalogue', component: () => import('./pages/CataloguePage.vue') },
    {
      path: '/number-building',
      name: 'building',
      component: () => import('./pages/BuildingPage.vue'),
      props: (route) => ({ given: toBuild(route) }),
    },
    {
      path: '/number-building/wall',
      name: 'building-wall',
      component: () => import('./pages/BuildingWallPage.vue'),
      props: toBuild,
    },
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
    { path: '/enter/:secret', name: 'enter', component: () => import('./pages/EnterPage.vue'), props: true },
    {
      path: '/come-back',
      name: 'come-back',
      component: () => import('./pages/ComeBackPage.vue'),
      props: ({ query }) => ({ code: String(query.code ?? ''), state: String(query.state ?? '') }),
    },
    { path: '/invited/:secret', name: 'invited', component: () => import('./pages/InvitedPage.vue'), props: true },
    { path: '/school', name: 'school', component: () => import('./pages/SchoolPage.vue') },
    { path: '/colleagues', name: 'colleagues', component: () => import('./pages/ColleaguesPage.vue') },
    {
      path: '/colleagues/:teacherId/:setId/:exampleId?',
      name: 'next-door',
      component: () => import('./pages/NextDoorPage.vue'),
      props: true,
    },
    { path: '/account', name: 'account', component: () => import('./pages/AccountPage.vue') },
    { path: '/door', name: 'door', component: () => import('./pages/DoorPage.vue') },
    { path: '/:path(.*)*', name: 'nowhere', component: () => import('./pages/NowherePage.vue') },
  ],
})

// On another page the keyboard begins at its top, and a reader of the screen is told of it.
router.afterEach((to, from) => {
  if (from.name && to.name !== from.name) document.getElementById('app')?.focus({ preventScroll: true })
})
