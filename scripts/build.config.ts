import { join } from 'node:path';
import { defineConfig } from 'vite';

const ROOT = join(import.meta.dirname, '..');

/** The server and the simulators as plain JavaScript in dist/: the workspaces in one, packages as they are installed. */
export default defineConfig({
  root: ROOT,
  publicDir: false,
  logLevel: 'warn',
  ssr: { noExternal: [/^@unto\//] },
  build: {
    ssr: true,
    outDir: 'dist',
    emptyOutDir: true,
    target: 'node20',
    minify: false,
    sourcemap: true,
    rolldownOptions: {
      input: {
        serve: 'scripts/serve.ts',
        simulators: 'scripts/simulators.ts',
        'pool-worker': 'server/pool/worker.ts',
        'picture-worker': 'demo/picture-worker.ts',
      },
      // All lie side by side: the demo starts its picture worker from beside itself.
      output: { entryFileNames: '[name].js', chunkFileNames: '[name].js' },
    },
  },
});
