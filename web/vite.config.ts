import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';
import { arucoAsModule } from './aruco-as-module';

export default defineConfig({
  root: import.meta.dirname,
  plugins: [vue(), arucoAsModule()],
  worker: { format: 'es', plugins: () => [arucoAsModule()] },
  optimizeDeps: { exclude: ['js-aruco2'] },
  build: { target: 'es2022', chunkSizeWarningLimit: 700, emptyOutDir: true },
  server: { host: '127.0.0.1', port: 4781, proxy: { '/api': 'http://127.0.0.1:4780' } },
});
