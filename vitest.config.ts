import { availableParallelism } from 'node:os';
import { defineConfig } from 'vitest/config';

/** Simulated machines run against a clock, and databases and servers are started: one file at a time. */
const ALONE = ['machine/src/**/*.test.ts', 'tests/{database,restart}.test.ts'];

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'computation',
          include: ['{core,web,command}/src/**/*.test.ts', 'tests/*.test.ts'],
          exclude: ALONE,
          // Pure functions: files may share their modules, and as many run at once as there are processors.
          isolate: false,
          maxWorkers: availableParallelism(),
          testTimeout: 60_000,
          sequence: { groupOrder: 0 },
        },
      },
      {
        test: {
          name: 'machines',
          include: ALONE,
          maxWorkers: 1,
          testTimeout: 60_000,
          hookTimeout: 30_000,
          sequence: { groupOrder: 1 },
        },
      },
    ],
  },
});
