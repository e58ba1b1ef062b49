import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['{core,contract,server,web,demo,e2e,scripts}/**/*.test.{ts,tsx}'],
    exclude: ['**/node_modules/**', '**/dist/**'],
    testTimeout: 240_000,
    hookTimeout: 240_000,
    maxWorkers: 2,
    setupFiles: ['./scripts/propertySeed.ts'],
  },
});
