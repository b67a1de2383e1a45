import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { z } from 'zod';
import type { Job } from '../document/job.ts';
import { newJob } from '../document/new-job.ts';
import { BenchSchema } from '../machines/bench-schema.ts';
import { ToolSchema } from '../tools/tool-schema.ts';
import { rightThrough } from './past-the-stock.ts';
import { newCut } from './new-cut.ts';
import type { CutKindName } from './kinds.ts';
import { usualTabs } from './usual-tabs.ts';

const bits = z.array(ToolSchema).parse(JSON.parse(readFileSync('demo/bits.json', 'utf8')));
const [bench] = z.array(BenchSchema).parse(JSON.parse(readFileSync('demo/benches.json', 'utf8')));
const fresh = () => newJob('Board', 'mm', bits, bench);

describe('what a new cut begins with', () => {
  test.each([
    ['stock', 'clamps', 12.5],
    ['spoilboard', 'vacuum', 12.05],
    // On tape and glue a cut stops at the thickest corner (common practice).
    ['stock', 'tape', 12],
    ['spoilboard', 'tape', 12],
  ] as const)('zero on the %s, held by %s: right through 12 mm is %s mm', (zeroZ, holdDown, deep) => {
    const { stock } = fresh();
    expect(rightThrough({ ...stock, corners: [11.9, 12, 11.8, 12], zeroZ, holdDown })).toBeCloseTo(deep, 9);
  });

  test.each([
    ['laser-cut', true],
    ['laser-score', true],
    ['laser-fill', false],
    ['laser-picture', false],
  ] as [CutKindName, boolean][])('%s: air %s (common practice)', (kind, air) => {
    expect(newCut(fresh() as Job, kind, 'c')).toMatchObject({ air });
  });

  test('tabs go by the stock: small ones in thin sheets, 8 by 3 mm in boards (common practice)', () => {
    expect([3, 9, 18].map(usualTabs)).toEqual([
      { length: 3, height: 1 },
      { length: 8, height: 3 },
      { length: 8, height: 3 },
    ]);
  });
});
