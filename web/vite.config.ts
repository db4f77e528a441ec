import { svelte } from '@sveltejs/vite-plugin-svelte';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';
import { begins } from './vite.begin.ts';

export default defineConfig({
  plugins: [
    svelte(),
    tailwindcss(),
    begins(),
    VitePWA({
      strategies: 'injectManifest',
      srcDir: 'src',
      filename: 'sw.ts',
      injectRegister: false,
      injectManifest: { globPatterns: ['**/*.{js,css,html,svg,woff2,png,wasm}'], maximumFileSizeToCacheInBytes: 10_000_000 },
      manifest: {
        name: 'Mezzadro',
        short_name: 'Mezzadro',
        description: 'The working record of a landscape maintenance firm',
        start_url: '/#/walk',
        display: 'standalone',
        background_color: '#fbfaf5',
        theme_color: '#fbfaf5',
        icons: [
          { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
          { src: '/icon-512.png', sizes: '512x512', type: 'image/png', purpose: 'any maskable' },
          { src: '/icon.svg', sizes: 'any', type: 'image/svg+xml' },
        ],
      },
    }),
  ],
  // Flowbite's parts put their classes together by it; which of two classes holds is settled in theme.ts.
  resolve: { alias: [{ find: /^tailwind-variants$/, replacement: 'tailwind-variants/lite' }] },
  build: {
    outDir: 'dist',
    emptyOutDir: true,
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 800,
    // Flowbite does not say that its parts have no side effects: without that every part's look comes with the first page.
    rolldownOptions: {
      treeshake: { moduleSideEffects: [{ test: /node_modules\/flowbite-svelte\//, sideEffects: false }] },
      output: {
        // What every screen has, and what nearly every form has, are a file each: twenty small ones take a phone longer to ask for.
        codeSplitting: {
          groups: [
            {
              name: 'base',
              test: /node_modules\/(svelte|openapi-fetch|esm-env|svelte-spa-router|regexparam|clsx|flowbite-svelte\/dist\/(theme|context))\b|src\/(api\/client|field\/verdicts|lib\/(house|dates|units|words|causes|reading|opened|Later|Waiting|Notes))\b/,
              priority: 2,
            },
            {
              name: 'shared',
              test: /src\/(cuts\/purposes|field\/(finds|queue|shrink)|finds\/finds|firm\/people|rounds\/clock|treat\/treat|walks\/Care)\b/,
              priority: 1,
            },
            { name: 'portrait', test: /src\/lib\/[Pp]ortrait\b/, priority: 1 },
            {
              name: 'parts',
              test: /node_modules\/(flowbite-svelte|tailwind-variants)\/|src\/lib\/(Field|FilePick|More|Pick|Tickbox|draft|fault|kept)\b/,
              priority: 1,
            },
          ],
        },
      },
    },
  },
  server: { proxy: { '/api': 'http://127.0.0.1:8080' } },
});
