import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['{core,machine,web,command}/src/**/*.test.ts', 'tests/*.test.ts'],
    testTimeout: 60_000,
    hookTimeout: 30_000,
  },
});
