import { createRouter, createWebHistory } from 'vue-router'

import BenchPage from './pages/BenchPage.vue'
import NowherePage from './pages/NowherePage.vue'
import ShelfPage from './pages/ShelfPage.vue'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'shelf', component: ShelfPage },
    { path: '/bench/:setId/:exampleId?', name: 'bench', component: BenchPage, props: true },
    { path: '/:path(.*)*', name: 'nowhere', component: NowherePage },
  ],
})
