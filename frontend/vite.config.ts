import { svelte } from '@sveltejs/vite-plugin-svelte';
import { VitePWA } from 'vite-plugin-pwa';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [
    svelte(),
    // The shell is kept at hand, so that a reload with the server away still opens; what an earlier build left is dropped.
    // Readings wait in the page's own outbox, and what the server says is never kept here.
    VitePWA({
      filename: 'sw.js',
      registerType: 'autoUpdate',
      injectRegister: null,
      manifest: false,
      workbox: {
        globPatterns: ['**/*.{js,css,html,svg,woff2}'],
        cleanupOutdatedCaches: true,
        clientsClaim: true,
        skipWaiting: true,
        directoryIndex: null, // a page is the server's for as long as it answers
        navigateFallback: null,
        runtimeCaching: [
          {
            urlPattern: ({ request }) => request.mode === 'navigate',
            handler: 'NetworkOnly',
            options: { precacheFallback: { fallbackURL: 'index.html' } },
          },
        ],
        inlineWorkboxRuntime: true,
      },
    }),
  ],
  resolve: {
    alias: {
      $lib: fileURLToPath(new URL('./src/lib', import.meta.url)),
      $parts: fileURLToPath(new URL('./src/parts', import.meta.url)),
    },
  },
  build: { target: 'es2022', assetsInlineLimit: 0 },
  server: { proxy: { '/api': 'http://127.0.0.1:8642' } },
});
