import { expect, test } from 'vitest';
import { z } from 'zod';
import { BENCH_FACTS } from './bench-facts.ts';
import { PageCommandSchema } from './commands.ts';
import { BasisSchema } from './zero.ts';

const taken = (schema: z.ZodType, value: unknown) => schema.safeParse(value).success;
const long = (n: number) => 'x'.repeat(n);

test('names of benches as long as a job may hold', () => {
  const bench = (id: number, name: number) => ({ id: long(id), name: long(name), travel: { x: 1, y: 2, z: 3 } });
  const facts = z.object(BENCH_FACTS);
  expect([taken(facts, bench(60, 80)), taken(facts, bench(61, 80)), taken(facts, bench(60, 81))]).toEqual([true, false, false]); // prettier-ignore
});

test.each(['focused', 'feel-sheet', 'zero-here'])('%s is told for a job by a name of 60 letters at most', (command) => {
  const of = (n: number) => ({ command, job: long(n), method: 'corner', corner: 'lower-left', height: 'paper', place: 'sight' }); // prettier-ignore
  const told = PageCommandSchema.safeParse(of(61));
  expect(JSON.stringify(told.error?.issues ?? [])).toContain('"job"');
  expect(JSON.stringify(PageCommandSchema.safeParse(of(60)).error?.issues ?? [])).not.toContain('"job"');
});

test('a zero lies within ten metres of the sheet’s corner', () => {
  const { at } = BasisSchema.shape;
  expect([9999, -9999, 10_001, -10_001].map((x) => taken(at, { x, y: 0 }))).toEqual([true, true, false, false]);
});
