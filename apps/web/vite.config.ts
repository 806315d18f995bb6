import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { antdStyles } from './antdStyles.ts';

export default defineConfig({
  plugins: [react(), antdStyles()],
  resolve: {
    alias: {
      '@water-clock/core': new URL('../../packages/core/src/index.ts', import.meta.url).pathname,
    },
  },
  worker: { format: 'es' },
  build: { target: 'es2022', sourcemap: false, chunkSizeWarningLimit: 900 },
  server: { proxy: { '/api': 'http://localhost:8420' } },
});
