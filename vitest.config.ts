import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vitest/config';
import { BaseSequencer, type TestSpecification } from 'vitest/node';

/** Files that take longest, first: whatever comes last has nothing beside it. */
const LONGEST = [
  'demo/demo.test.ts',
  'core/coupon-reading/other-maths.reference.test.ts',
  'simulators/camera/coupon-photo.test.ts',
  'e2e/proving.test.ts',
  'e2e/coating.test.ts',
  'e2e/whole-pass.test.ts',
  'e2e/window.test.ts',
  'e2e/starting.test.ts',
  'e2e/bad-input.test.ts',
  'e2e/choosing.test.ts',
  'e2e/first-hour.test.ts',
];

class LongestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const place = ({ moduleId }: TestSpecification) => {
      const found = LONGEST.findIndex((name) => moduleId.endsWith(name));
      return found < 0 ? LONGEST.length : found;
    };
    return (await super.sort(files)).sort((a, b) => place(a) - place(b));
  }
}

export default defineConfig({
  test: {
    sequence: { sequencer: LongestFirst },
    projects: [
      {
        test: {
          name: 'unit',
          include: ['{core,contract,domain,simulators,scripts}/**/*.test.ts'],
          exclude: ['**/node_modules/**'],
          // Nothing here keeps anything in a module: what they import is read once.
          isolate: false,
          // Properties over many cases take their time on a loaded machine.
          testTimeout: 30_000,
          maxWorkers: 2,
        },
      },
      {
        plugins: [vue()],
        test: {
          name: 'web',
          include: ['web/**/*.test.ts'],
          exclude: ['**/node_modules/**', '**/dist/**'],
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
          // Every file has a database of its own; what they import is read once.
          isolate: false,
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
          maxWorkers: 4,
        },
      },
    ],
  },
});
