import vue from '@vitejs/plugin-vue';
import { ElementPlusResolver } from 'unplugin-vue-components/resolvers';
import Components from 'unplugin-vue-components/vite';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';

export default defineConfig({
  plugins: [
    vue(),
    Components({ resolvers: [ElementPlusResolver({ importStyle: 'css' })], dts: 'components.d.ts', dirs: [] }),
    VitePWA({
      registerType: 'autoUpdate',
      injectRegister: 'script-defer',
      manifest: {
        name: 'Veglia',
        short_name: 'Veglia',
        description: 'The bench companion of a TV repair shop',
        theme_color: '#0b5d66',
        background_color: '#f3f1eb',
        display: 'standalone',
        icons: [{ src: '/lamp.svg', sizes: 'any', type: 'image/svg+xml' }],
      },
      workbox: {
        // The whole app opens without a server; what the recogniser needs is fetched when it is asked for.
        globPatterns: ['**/*.{js,css,html,svg,woff2}'],
        globIgnores: ['recognise/**'],
        navigateFallback: '/index.html',
        navigateFallbackDenylist: [/^\/api\//],
      },
    }),
  ],
  build: { target: 'es2022', sourcemap: false },
  define: { __VUE_I18N_LEGACY_API__: false, __VUE_I18N_FULL_INSTALL__: false, __INTLIFY_PROD_DEVTOOLS__: false },
});
