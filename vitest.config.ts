import { availableParallelism } from 'node:os';
import { defineConfig } from 'vitest/config';

/** Links run against a real clock, and databases, servers and processes are started: one file at a time. */
const ALONE = [
  'machine/src/link/*.test.ts',
  'machine/src/runner/program-store.test.ts',
  'tests/{database,database-access,left-in-programs,odd-clusters,restart,start-and-stop}.test.ts',
  'tests/faults/*.test.ts',
];

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'computation',
          include: ['{core,machine,web,command}/src/**/*.test.ts', 'tests/**/*.test.ts'],
          exclude: ALONE,
          // Pure functions, and machines on a clock that the test moves: files may share their modules, and as many run at
          // once as there are processors.
          isolate: false,
          maxWorkers: availableParallelism(),
          // Behind everything else, they have to wait.
          testTimeout: 900_000,
          hookTimeout: 900_000,
          sequence: { groupOrder: 0 },
        },
      },
      {
        test: {
          name: 'machines',
          include: ALONE,
          maxWorkers: 1,
          testTimeout: 900_000,
          hookTimeout: 300_000,
          sequence: { groupOrder: 1 },
        },
      },
    ],
  },
});
