import { createRouter, createWebHistory } from 'vue-router';

/** Every view by its address; the route is the state of where you are. */
export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', redirect: '/today' },
    { path: '/today', component: () => import('./views/TodayView.vue'), meta: { index: 'today', title: 'Today' } },
    {
      path: '/tickets',
      component: () => import('./views/TicketsView.vue'),
      meta: { index: 'tickets', title: 'Tickets' },
    },
    {
      path: '/tickets/new',
      component: () => import('./views/NewTicketView.vue'),
      meta: { index: 'tickets', title: 'New ticket' },
    },
    {
      path: '/tickets/:id/:station?',
      component: () => import('./views/TicketView.vue'),
      props: true,
      meta: { index: 'tickets', title: 'Ticket' },
    },
    {
      path: '/coupons',
      component: () => import('./views/CouponsView.vue'),
      meta: { index: 'coupons', title: 'Coupons' },
    },
    {
      path: '/coupons/:id',
      component: () => import('./views/CouponView.vue'),
      props: true,
      meta: { index: 'coupons', title: 'Coupon' },
    },
    {
      path: '/windows',
      component: () => import('./views/WindowsView.vue'),
      meta: { index: 'windows', title: 'Windows' },
    },
    {
      path: '/windows/:id',
      component: () => import('./views/WindowView.vue'),
      props: true,
      meta: { index: 'windows', title: 'Window' },
    },
    { path: '/ledger', component: () => import('./views/LedgerView.vue'), meta: { index: 'ledger', title: 'Ledger' } },
    {
      path: '/ledger/:id',
      component: () => import('./views/RunView.vue'),
      props: true,
      meta: { index: 'ledger', title: 'Run' },
    },
    {
      path: '/stores/:id?',
      component: () => import('./views/StoresView.vue'),
      props: true,
      meta: { index: 'stores', title: 'Stores' },
    },
    {
      path: '/identify',
      component: () => import('./views/IdentifyView.vue'),
      meta: { index: 'stores', title: 'What is this part?' },
    },
    {
      path: '/practice',
      component: () => import('./views/PracticeView.vue'),
      meta: { index: 'practice', title: 'Practice' },
    },
    {
      path: '/:rest(.*)*',
      component: () => import('./views/NowhereView.vue'),
      meta: { index: '', title: 'Nothing here' },
    },
  ],
});
