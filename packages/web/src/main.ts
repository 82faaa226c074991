import '@fontsource/atkinson-hyperlegible-next/400.css';
import '@fontsource/atkinson-hyperlegible-next/600.css';
import '@fontsource/atkinson-hyperlegible-next/700.css';
import '@fontsource/atkinson-hyperlegible-mono/500.css';
import 'element-plus/theme-chalk/base.css';
import 'element-plus/theme-chalk/dark/css-vars.css';
import './theme.css';
import { createPinia } from 'pinia';
import { createApp } from 'vue';
import { z } from 'zod';
import App from './App.vue';
import { i18n } from './i18n.ts';
import { router } from './router.ts';

// The page's security policy forbids code made at run time; Zod asks for it unless told not to.
z.config({ jitless: true });

createApp(App).use(createPinia()).use(i18n).use(router).mount('#app');
