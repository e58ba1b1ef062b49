import { defineConfig } from 'vitest/config';

/**
 * Tests that change what all of a process share (its clock, its threads, the file they run) or that start
 * and kill processes by the clock: each has a process of its own. All others share one by one what was loaded.
 */
const APART = [
  'e2e/house/{fullDisk,interference,killed,start,survival,work}.test.ts',
  'e2e/carried/*.test.ts',
  'server/src/platform/turns.test.ts',
  'server/src/platform/upgrade/*.test.ts',
];
const NOWHERE = ['**/node_modules/**', '**/dist/**'];
const common = { testTimeout: 480_000, hookTimeout: 480_000, setupFiles: ['./scripts/propertySeed.ts'] };

export default defineConfig({
  test: {
    // What tests run in processes of their own is put together first.
    globalSetup: './scripts/togetherFirst.mjs',
    // More than the processors that there are at least: some tests mostly wait.
    maxWorkers: 4,
    projects: [
      {
        test: {
          ...common,
          name: 'together',
          include: ['{words,core,contract,server,web,demo,e2e,bench,scripts}/**/*.test.{ts,tsx}'],
          exclude: [...NOWHERE, ...APART],
          isolate: false,
        },
      },
      { test: { ...common, name: 'apart', include: APART, exclude: NOWHERE } },
    ],
  },
});
