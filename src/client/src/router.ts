import { createRouter, createWebHistory } from 'vue-router'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    {
      path: '/',
      name: 'register',
      component: () => import('./views/register/RegisterView.vue'),
      meta: { title: 'Register' },
    },
    {
      path: '/circuits/:id',
      name: 'circuit',
      component: () => import('./views/circuit/CircuitView.vue'),
      props: true,
      meta: { title: 'Circuit' },
    },
    {
      path: '/set-up',
      name: 'setUp',
      component: () => import('./views/setup/SetupView.vue'),
      meta: { title: 'Set up a circuit' },
    },
    {
      path: '/set-up/terminals',
      name: 'terminals',
      component: () => import('./views/setup/TerminalsView.vue'),
      meta: { title: 'A device without marks' },
    },
    {
      path: '/circuits/:id/set-up',
      name: 'change',
      component: () => import('./views/setup/SetupView.vue'),
      props: true,
      meta: { title: 'Change a circuit' },
    },
    {
      path: '/jobs/:id',
      name: 'job',
      component: () => import('./views/job/JobView.vue'),
      props: true,
      meta: { isWorkbench: true },
    },
    {
      path: '/jobs/:id/close-out',
      name: 'closeOut',
      component: () => import('./views/closeout/CloseOutView.vue'),
      props: true,
      meta: { title: 'Repair and close out' },
    },
    {
      path: '/jobs/:id/report',
      name: 'report',
      component: () => import('./views/report/ReportView.vue'),
      props: true,
      meta: { title: 'Job report' },
    },
    {
      path: '/to-do',
      name: 'toDo',
      component: () => import('./views/follow-ups/FollowUpsView.vue'),
      meta: { title: 'Still to do' },
    },
    {
      path: '/sums/:sum?',
      name: 'sums',
      component: () => import('./views/sums/SumsView.vue'),
      props: true,
      meta: { title: 'Sums' },
    },
    {
      path: '/logbook',
      name: 'logbook',
      component: () => import('./views/logbook/LogbookView.vue'),
      meta: { title: 'Logbook' },
    },
    { path: '/:rest(.*)', component: () => import('./views/NotFound.vue'), meta: { title: 'Not here' } },
  ],
})
