import { createRouter, createWebHistory, type RouteLocation } from 'vue-router'
import { sentence } from '../lib/formats'
import { steps } from '../position/view'

/** Where the table is whatever lies on it: a position that is not saved has no address of its own. */
export const unsavedAddress = 'now'

/** Every place of the application; what is not needed at first is loaded when it is gone to. */
export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', redirect: '/table' },
    { path: `/table/:position?/:step(${steps.join('|')})?`, name: 'table', component: () => import('./TablePlace.vue') },
    { path: '/practice', name: 'practice', component: () => import('../features/practice/PracticePlace.vue'), meta: { title: 'Practice' } },
    {
      path: '/practice/routines/:id',
      name: 'routine',
      component: () => import('../features/practice/RoutinePlace.vue'),
      props: true,
      meta: { title: 'Routine' },
    },
    {
      path: '/practice/sessions/:id',
      name: 'session',
      component: () => import('../features/practice/SessionPlace.vue'),
      props: true,
      meta: { title: 'Session' },
    },
    {
      path: '/practice/learn',
      name: 'learn',
      component: () => import('../features/learning/LearnPlace.vue'),
      meta: { title: 'Learn your table' },
    },
    { path: '/photo', name: 'photo', component: () => import('../features/photo/PhotoPlace.vue'), meta: { title: 'Photograph' } },
    { path: '/progress', name: 'progress', component: () => import('../features/progress/ProgressPlace.vue'), meta: { title: 'Progress' } },
    {
      path: '/progress/player/:id',
      name: 'player-page',
      component: () => import('../features/progress/PlayerPage.vue'),
      props: true,
      meta: { title: 'Player' },
    },
    { path: '/frames', name: 'frames', component: () => import('../features/frames/FramesPlace.vue'), meta: { title: 'Frames' } },
    {
      path: '/frames/:id/:view(shots|breaks|figures)?',
      name: 'frame',
      component: () => import('../features/frames/FramesPlace.vue'),
      meta: { title: 'Frames' },
    },
    { path: '/glance', name: 'glance', component: () => import('../features/glance/GlancePlace.vue'), meta: { title: 'At a glance' } },
    { path: '/handbook', name: 'handbook', component: () => import('../features/handbook/HandbookPlace.vue'), meta: { title: 'Handbook' } },
    { path: '/library', name: 'library', component: () => import('../features/library/LibraryPlace.vue'), meta: { title: 'Library' } },
    ...(['players', 'tables', 'cues'] as const).map((kind) => ({
      path: `/${kind}/:id?`,
      name: kind,
      component: () => import('../features/club/ClubPlace.vue'),
      props: (route: RouteLocation) => ({ kind, id: route.params.id as string | undefined }),
      meta: { title: sentence(kind) },
    })),
    {
      path: '/devices',
      name: 'devices',
      component: () => import('../features/devices/DevicesPlace.vue'),
      meta: { title: 'Devices' },
    },
    { path: '/settings', name: 'settings', component: () => import('./SettingsPlace.vue'), meta: { title: 'Settings' } },
    {
      path: '/:rest(.*)*',
      name: 'nowhere',
      component: () => import('./NowherePlace.vue'),
      meta: { title: 'Nothing here' },
    },
  ],
})

/** What is opened at the table, where there may be no network: from the first visit on it can be opened again. */
const atTheTable = ['glance', 'handbook', 'practice', 'routine', 'session', 'progress', 'player-page', 'frames', 'frame', 'library']
router.afterEach(({ name }) => {
  if (atTheTable.includes(String(name))) void import('./serviceWorker').then((worker) => worker.keepPage())
})
