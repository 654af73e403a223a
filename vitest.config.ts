import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    projects: [
      {
        plugins: [vue()],
        test: {
          name: 'unit',
          include: ['{core,contract,domain,simulators,web,scripts}/**/*.test.ts'],
          exclude: ['**/node_modules/**', '**/dist/**'],
          // Properties over many cases take their time on a loaded machine.
          testTimeout: 30_000,
          maxWorkers: 2,
        },
      },
      {
        test: {
          name: 'api',
          include: ['{server,demo}/**/*.test.ts'],
          exclude: ['**/node_modules/**'],
          globalSetup: ['scripts/lib/test-cluster.ts'],
          testTimeout: 30_000,
          hookTimeout: 60_000,
          maxWorkers: 2,
        },
      },
      {
        test: {
          name: 'e2e',
          include: ['e2e/**/*.test.ts'],
          exclude: ['**/node_modules/**'],
          globalSetup: ['scripts/lib/test-cluster.ts'],
          testTimeout: 180_000,
          // The first to come makes the demo, with all its pictures where nobody made them before.
          hookTimeout: 300_000,
          maxWorkers: 3,
        },
      },
    ],
  },
});
