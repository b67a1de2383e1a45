import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['{core,machine,web,command}/src/**/*.test.ts', 'tests/*.test.ts'],
    // One file at a time: machines are simulated against a clock, and the cores are few.
    fileParallelism: false,
    testTimeout: 60_000,
    hookTimeout: 30_000,
  },
});
