import { copyFileSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import vue from '@vitejs/plugin-vue';
import { ElementPlusResolver } from 'unplugin-vue-components/resolvers';
import Components from 'unplugin-vue-components/vite';
import { defineConfig, type Plugin } from 'vite';
import { compression } from 'vite-plugin-compression2';
import { VitePWA } from 'vite-plugin-pwa';

const require = createRequire(import.meta.url);
const folderOf = (name: string): string => path.dirname(require.resolve(`${name}/package.json`));

/** Engine and language data of the recogniser, copied beside the app: they are files it loads by name, not modules. */
function recogniser(): Plugin {
  const files = [
    [path.join(folderOf('tesseract.js'), 'dist'), 'worker.min.js'],
    [folderOf('tesseract.js-core'), 'tesseract-core-lstm.wasm.js'],
    [folderOf('tesseract.js-core'), 'tesseract-core-simd-lstm.wasm.js'],
    [folderOf('tesseract.js-core'), 'tesseract-core-relaxedsimd-lstm.wasm.js'],
    [path.join(folderOf('@tesseract.js-data/eng'), '4.0.0_best_int'), 'eng.traineddata.gz'],
  ] as const;
  return {
    name: 'veglia-recogniser',
    apply: 'build',
    writeBundle({ dir = 'dist' }) {
      mkdirSync(path.join(dir, 'recognise'), { recursive: true });
      for (const [folder, file] of files) copyFileSync(path.join(folder, file), path.join(dir, 'recognise', file));
    },
  };
}

const noticesFile = 'licences.json';
interface Notice {
  name: string;
  version: string;
  identifier: string | null;
  text?: string;
}
/** What the build doesn't see: code of the workers, which are built apart, and files that are copied. Sorted, each once. */
function moreNotices(): Plugin {
  const names = ['jsqr', 'tesseract.js-core', '@tesseract.js-data/eng', 'workbox-core'];
  const read = (name: string): Notice => {
    const folder = folderOf(name);
    const about = JSON.parse(readFileSync(path.join(folder, 'package.json'), 'utf8')) as { version: string; license?: string };
    const file = readdirSync(folder).find((one) => /^licen[cs]e/i.test(one));
    return {
      name,
      version: about.version,
      identifier: about.license ?? null,
      ...(file === undefined ? {} : { text: readFileSync(path.join(folder, file), 'utf8') }),
    };
  };
  return {
    name: 'veglia-more-notices',
    apply: 'build',
    enforce: 'post',
    writeBundle({ dir = 'dist' }) {
      const file = path.join(dir, noticesFile);
      const seen = JSON.parse(readFileSync(file, 'utf8')) as Notice[];
      const more = names.filter((name) => !seen.some((one) => one.name === name)).map(read);
      writeFileSync(file, JSON.stringify([...seen, ...more].sort((a, b) => (a.name < b.name ? -1 : 1))));
    },
  };
}

export default defineConfig({
  plugins: [
    vue(),
    recogniser(),
    moreNotices(),
    Components({ resolvers: [ElementPlusResolver({ importStyle: 'css' })], dts: 'components.d.ts', dirs: [] }),
    compression({ include: /[.](js|css)$/, threshold: 1024 }),
    VitePWA({
      // A page is never reloaded under somebody's hands: they are asked (parts/NewVersion.vue).
      registerType: 'prompt',
      injectRegister: false,
      manifest: {
        name: 'Veglia',
        short_name: 'Veglia',
        description: 'The bench companion of a TV repair shop',
        theme_color: '#0b5d66',
        background_color: '#f3f1eb',
        display: 'standalone',
        icons: [
          { src: '/lamp.svg', sizes: 'any', type: 'image/svg+xml' },
          { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
          { src: '/icon-512.png', sizes: '512x512', type: 'image/png' },
          { src: '/icon-maskable-512.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
        ],
      },
      workbox: {
        // The whole app opens without a server; what the recogniser needs is fetched when it is asked for.
        globPatterns: ['**/*.{js,css,html,svg,woff2}'],
        globIgnores: ['recognise/**'],
        // The first visit is kept from the first moment on; a newer version still waits to be asked for.
        clientsClaim: true,
        navigateFallback: '/index.html',
        navigateFallbackDenylist: [/^\/api\//],
      },
    }),
  ],
  // `npm run dev`: the page from here, everything else from the server beside it.
  server: process.env.VEGLIA_API ? { proxy: { '/api': { target: process.env.VEGLIA_API, ws: true } } } : {},
  build: { target: 'es2022', sourcemap: false, license: { fileName: noticesFile } },
  define: { __VUE_I18N_LEGACY_API__: false, __VUE_I18N_FULL_INSTALL__: false, __INTLIFY_PROD_DEVTOOLS__: false },
});
