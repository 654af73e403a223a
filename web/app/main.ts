import '@fontsource/atkinson-hyperlegible/latin-400.css';
import '@fontsource/atkinson-hyperlegible/latin-700.css';
import '@fontsource/jetbrains-mono/latin-400.css';
import '@fontsource/jetbrains-mono/latin-700.css';
import '../theme/tokens.css';
import { PiniaColada } from '@pinia/colada';
import { createPinia } from 'pinia';
import PrimeVue from 'primevue/config';
import { createApp } from 'vue';
import App from './App.vue';
import { router } from './router';
import { untoPreset } from '../theme/preset';

const nonce = document.querySelector('meta[name="csp-nonce"]')?.getAttribute('content') ?? '';

createApp(App)
  .use(createPinia())
  .use(PiniaColada, { queryOptions: { staleTime: 5000, refetchOnWindowFocus: false } })
  .use(router)
  .use(PrimeVue, { theme: { preset: untoPreset, options: { darkModeSelector: '.lamp' } }, csp: { nonce } })
  .mount('#unto');
