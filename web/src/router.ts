import { createRouter, createWebHistory } from 'vue-router'
import { loadAnew } from './anew'
import { useSession } from './stores/session'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', redirect: '/shoots' },
    { path: '/sign-in', component: () => import('./views/SignIn.vue') },
    { path: '/shoots/:id?', component: () => import('./views/Shoots.vue') },
    { path: '/bench/:id', component: () => import('./views/Bench.vue') },
    { path: '/deliveries', component: () => import('./views/Deliveries.vue') },
    { path: '/contact-sheets/:batch', component: () => import('./views/ContactSheet.vue') },
    { path: '/guide', component: () => import('./views/Guide.vue') },
    { path: '/state', component: () => import('./views/State.vue') },
    { path: '/settings', component: () => import('./views/Settings.vue') },
    { path: '/:rest(.*)*', redirect: '/shoots' },
  ],
})

router.beforeEach(async (to) => {
  const session = useSession()
  await session.load()
  if (!session.name && to.path !== '/sign-in') return { path: '/sign-in', query: { to: to.fullPath } }
  if (session.name && to.path === '/sign-in') return '/shoots'
  return true
})

router.onError((fault, to) => void loadAnew(fault, to.fullPath, location, (path) => location.assign(path)))
