import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';

export default defineConfig({
  root: import.meta.dirname,
  plugins: [vue()],
  worker: { format: 'es' },
  build: { target: 'es2022', chunkSizeWarningLimit: 700, emptyOutDir: true },
  server: { host: '127.0.0.1', port: 4781, proxy: { '/api': 'http://127.0.0.1:4780' } },
});
