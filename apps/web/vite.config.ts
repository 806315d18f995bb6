import react from '@vitejs/plugin-react';
import { defineConfig, type UserConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';
import { antdStyles } from './antdStyles.ts';
import { chunksOf, formContextAlone } from './chunks.ts';

const base = {
  plugins: [react(), antdStyles(), formContextAlone()],
  resolve: {
    alias: {
      '@water-clock/core': new URL('../../packages/core/src/index.ts', import.meta.url).pathname,
      '@water-clock/words': new URL('../../packages/words/src/index.ts', import.meta.url).pathname,
    },
  },
  worker: { format: 'es' },
  build: {
    target: 'es2022',
    sourcemap: false,
    // For `npm run lint:size`.
    manifest: true,
    chunkSizeWarningLimit: 900,
  },
  server: { proxy: { '/api': 'http://localhost:8420' } },
} satisfies UserConfig;

const offline = VitePWA({
  strategies: 'injectManifest',
  srcDir: 'src/data/offline',
  filename: 'sw.ts',
  // A new version is offered, and used once someone accepts it.
  registerType: 'prompt',
  injectRegister: false,
  injectManifest: {
    globPatterns: ['assets/**/*.{js,css,woff2}', '*.{svg,png,webmanifest}'],
    maximumFileSizeToCacheInBytes: 4_000_000,
  },
  manifest: {
    id: '/',
    name: 'Water Clock',
    short_name: 'Water Clock',
    description: 'Programs sprinkler timers so that no two cycles ever overlap.',
    lang: 'en',
    start_url: '/',
    display: 'standalone',
    theme_color: '#faf8f2',
    background_color: '#faf8f2',
    icons: [
      { src: '/icon.svg', sizes: 'any', type: 'image/svg+xml' },
      { src: '/icon-192.png', sizes: '192x192', type: 'image/png', purpose: 'any maskable' },
      { src: '/icon-512.png', sizes: '512x512', type: 'image/png', purpose: 'any maskable' },
    ],
  },
});

export default defineConfig({ ...base, plugins: [...base.plugins, chunksOf(base), offline] });
