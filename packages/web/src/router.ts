import { createRouter, createWebHistory } from 'vue-router';
import { readyRefiner } from './stores/deeper.ts';

/** Screens that ask the judge: it gets ready while theirs is on its way. */
const judged = new Set<unknown>(['shelves', 'counter', 'bench', 'close', 'call', 'flash', 'proof', 'jobParts', 'worth', 'handover']);

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'shelves', component: () => import('./screens/shelves/ShelvesView.vue') },
    { path: '/jobs/new', name: 'counter', component: () => import('./screens/counter/CounterView.vue') },
    { path: '/jobs/:id', name: 'bench', props: true, component: () => import('./screens/bench/BenchView.vue') },
    { path: '/jobs/:id/close', name: 'close', props: true, component: () => import('./screens/close/CloseView.vue') },
    { path: '/jobs/:id/call', name: 'call', props: true, component: () => import('./screens/call/CallView.vue') },
    { path: '/jobs/:id/flash', name: 'flash', props: true, component: () => import('./screens/flash/FlashView.vue') },
    { path: '/jobs/:id/proof', name: 'proof', props: true, component: () => import('./screens/proof/ProofView.vue') },
    { path: '/jobs/:id/parts', name: 'jobParts', props: true, component: () => import('./screens/parts/JobPartsView.vue') },
    { path: '/jobs/:id/worth', name: 'worth', props: true, component: () => import('./screens/worth/WorthView.vue') },
    { path: '/jobs/:id/handover', name: 'handover', props: true, component: () => import('./screens/handover/HandOverView.vue') },
    { path: '/parts', name: 'orders', component: () => import('./screens/parts/OrdersView.vue') },
    { path: '/parts/stock', name: 'stockParts', component: () => import('./screens/parts/StockPartsView.vue') },
    { path: '/pictures', name: 'pictures', component: () => import('./screens/pictures/PicturesView.vue') },
    { path: '/blink', name: 'blink', component: () => import('./screens/blink/BlinkView.vue') },
    { path: '/boards', name: 'boards', component: () => import('./screens/boards/BoardsView.vue') },
    { path: '/boards/:id', name: 'board', props: true, component: () => import('./screens/boards/BoardView.vue') },
    { path: '/families', name: 'families', component: () => import('./screens/families/FamiliesView.vue') },
    { path: '/families/:id', name: 'family', props: true, component: () => import('./screens/families/FamilyView.vue') },
    { path: '/instruments/:instrument?', name: 'instruments', component: () => import('./screens/instruments/InstrumentsView.vue') },
    { path: '/stock', name: 'stock', component: () => import('./screens/stock/StockView.vue') },
    { path: '/experience', name: 'experience', component: () => import('./screens/experience/ExperienceView.vue') },
    { path: '/settings', name: 'settings', component: () => import('./screens/settings/SettingsView.vue') },
    { path: '/account', name: 'account', component: () => import('./screens/account/AccountView.vue') },
    { path: '/accounts', name: 'accounts', component: () => import('./screens/account/AccountsView.vue') },
    { path: '/customers', name: 'customers', component: () => import('./screens/customers/CustomersView.vue') },
    { path: '/settings/licences', name: 'notices', component: () => import('./screens/settings/NoticesView.vue') },
    { path: '/:rest(.*)*', name: 'nowhere', component: () => import('./screens/NowhereView.vue') },
  ],
});

router.beforeEach(({ name }) => {
  if (judged.has(name)) readyRefiner();
});
