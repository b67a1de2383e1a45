import { expect, test } from 'vitest';
import { checkProgram } from './check-program.ts';
import type { RouterFacts } from '../kinds/router/facts.ts';
import type { ProgramOrder } from './commands.ts';
import type { ProgramFacts } from './program-facts.ts';
import type { ProgramStore } from './program-store.ts';

const bench = (id: string, name: string): RouterFacts => ({
  id,
  name,
  kind: 'router',
  pins: 'none',
  warmUp: 0,
  dustBoot: true,
  travel: { x: 600, y: 450, z: 100 },
  setter: null,
  stop: null,
  plate: { thickness: 12, side: 8, size: 40 },
  spindleAfter: 20,
});
const nowhere = { min: { x: 1, y: 2, z: 3 }, max: { x: 0, y: 0, z: 0 } };
const found = {
  hash: 'h',
  lines: 3,
  refused: [],
  spindle: [],
  ends: true,
  reach: nowhere,
  direct: nowhere,
} as unknown as ProgramFacts;
const programs = { facts: async () => found } as unknown as ProgramStore;
const order = { hash: 'h', revision: '1', bench: bench('barn', 'Barn router'), cuts: [] } as unknown as ProgramOrder;
const findings = async (facts?: RouterFacts) =>
  (await checkProgram(order, { programs, facts, origin: undefined, zero: undefined })).findings;

test('a program is run on the bench that it was written for, and on no other', async () => {
  expect(await findings(bench('barn', 'Barn router'))).toEqual([]);
  // A bench goes by its id: it may be called otherwise meanwhile.
  expect(await findings(bench('barn', 'Old barn router'))).toEqual([]);
  expect(await findings(bench('shed', 'Barn router'))).toEqual([
    'The program was written for Barn router, and this is Barn router; choose this bench at Set-up and write it again.',
  ]);
});
