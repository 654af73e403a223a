import { createRouter, createWebHistory } from 'vue-router';

/** Every view by its address; the route is the state of where you are. */
export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', redirect: '/today' },
    { path: '/begin', component: () => import('../begin/BeginView.vue'), meta: { index: 'begin', title: 'Begin' } },
    { path: '/today', component: () => import('../today/TodayView.vue'), meta: { index: 'today', title: 'Today' } },
    {
      path: '/tickets',
      component: () => import('../tickets/TicketsView.vue'),
      meta: { index: 'tickets', title: 'Tickets' },
    },
    {
      path: '/tickets/new',
      component: () => import('../tickets/NewTicketView.vue'),
      meta: { index: 'tickets', title: 'New ticket' },
    },
    {
      path: '/tickets/:id/:station?',
      component: () => import('../tickets/TicketView.vue'),
      props: true,
      meta: { index: 'tickets', title: 'Ticket', bench: true },
    },
    {
      path: '/coupons',
      component: () => import('../coupons/CouponsView.vue'),
      meta: { index: 'coupons', title: 'Coupons' },
    },
    {
      path: '/coupons/:id',
      component: () => import('../coupons/CouponView.vue'),
      props: true,
      meta: { index: 'coupons', title: 'Coupon' },
    },
    {
      path: '/windows',
      component: () => import('../window/WindowsView.vue'),
      meta: { index: 'windows', title: 'Windows' },
    },
    {
      path: '/windows/:substrateId/:headId/:lensId/:compoundId',
      component: () => import('../window/WindowView.vue'),
      props: true,
      meta: { index: 'windows', title: 'Window' },
    },
    {
      path: '/windows/:substrateId/:headId/:lensId/:compoundId/match',
      component: () => import('../window/MatchView.vue'),
      props: true,
      meta: { index: 'windows', title: 'Match a piece' },
    },
    {
      path: '/compare',
      component: () => import('../compare/CompareView.vue'),
      meta: { index: 'windows', title: 'Compare windows' },
    },
    {
      path: '/recipes/:id',
      component: () => import('../recipes/RecipeView.vue'),
      props: true,
      meta: { index: 'windows', title: 'Recipe' },
    },
    { path: '/ledger', component: () => import('../runs/LedgerView.vue'), meta: { index: 'ledger', title: 'Ledger' } },
    {
      path: '/ledger/side-by-side',
      component: () => import('../runs/SideBySide.vue'),
      meta: { index: 'ledger', title: 'Side by side' },
    },
    {
      path: '/ledger/:id',
      component: () => import('../runs/RunView.vue'),
      props: true,
      meta: { index: 'ledger', title: 'Run' },
    },
    {
      path: '/substrates/:id',
      component: () => import('../substrate/SubstrateView.vue'),
      props: true,
      meta: { index: 'ledger', title: 'What works' },
    },
    {
      path: '/causes',
      component: () => import('../faults/CausesView.vue'),
      meta: { index: 'ledger', title: 'What went wrong' },
    },
    {
      path: '/faults/:kind(run|coupon|coat)/:id',
      component: () => import('../faults/FaultView.vue'),
      props: true,
      meta: { index: 'ledger', title: 'Find the fault' },
    },
    {
      path: '/stores/:id?',
      component: () => import('../inventory/InventoryView.vue'),
      props: true,
      meta: { index: 'stores', title: 'Stores' },
    },
    {
      path: '/card',
      component: () => import('../cards/CardView.vue'),
      meta: { index: 'stores', title: 'Reference card' },
    },
    {
      path: '/identify',
      component: () => import('../identify/IdentifyView.vue'),
      meta: { index: 'stores', title: 'What is this part?' },
    },
    {
      path: '/practice',
      component: () => import('../stated-settings/StatedSettingsView.vue'),
      meta: { index: 'practice', title: 'Practice' },
    },
    {
      path: '/practice/bring',
      component: () => import('../old-records/OldRecordsView.vue'),
      meta: { index: 'practice', title: 'Old records' },
    },
    { path: '/shop', component: () => import('../shop/ShopView.vue'), meta: { index: 'shop', title: 'Shop' } },
    {
      path: '/:rest(.*)*',
      component: () => import('./NowhereView.vue'),
      meta: { index: '', title: 'Nothing here' },
    },
  ],
});
