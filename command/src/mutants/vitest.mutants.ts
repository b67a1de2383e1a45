import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

/** The checkout that is mutated: this file is copied there with it. */
const ROOT = fileURLToPath(new URL('../../..', import.meta.url)).replace(/\/$/, '');
/** What needs a database, a process or a clock. */
const ALONE = [
  'machine/src/link/*.test.ts',
  'machine/src/runner/program-store.test.ts',
  '{core,machine,web,command}/src/**/{bundles,shop-lock,supervised,figures}.test.ts',
  'tests/faults/*.test.ts',
  'tests/{cut-command,database,database-access,examples,left-in-programs,odd-clusters,restart,start-and-stop}.test.ts',
];
/** What takes long: judges by brute force, whole jobs in many ways, and faults at every moment. */
const LONG = [
  'tests/{reference,hostile-settings,compute-cache,links,plasma-variants,program-mutants}.test.ts',
  'machine/src/runner/{lost-count,each-loss,lost-arcs,piece,planned-time,moments,each-moment}.test.ts',
];
/** Tests of the machine hold its own rooms; those of the core stand in the core and in tests/. */
const ABOVE = process.env.KERBE_HOUSE === 'core' ? ['{machine,web,command}/**'] : [];

export default defineConfig({
  root: ROOT,
  resolve: {
    // The workspaces' links lead to the sources that are not mutated.
    alias: [{ find: /^@kerbe\/(core|machine)\/(.*)$/, replacement: `${ROOT}/$1/src/$2.ts` }],
  },
  test: {
    include: ['{core,machine,web,command}/src/**/*.test.ts', 'tests/*.test.ts'],
    exclude: [...ALONE, ...LONG, ...ABOVE],
    isolate: false,
    testTimeout: 120_000,
    hookTimeout: 120_000,
  },
});
