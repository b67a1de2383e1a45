import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { readJobFile } from '@kerbe/core/job/job-file';
import type { JobView } from '../workers/job-view.ts';
import { turnsNext } from './turns-next.ts';

const { job } = readJobFile(
  readFileSync(new URL('../../../../demo/jobs/instrument-labels.kerbe.json', import.meta.url), 'utf8'),
);
job.bits.push({ id: 'end', name: 'End 3', kind: 'end', diameter: 3, shank: 3, flute: 9, presets: [] } as never);
const view = (...bits: string[]) =>
  ({ cuts: bits.map((bit) => ({ bit, turns: bit === 'end' })) }) as unknown as JobView;
const each = { ...job, bench: { ...job.bench, dialect: 'operator-spindle' } as typeof job.bench };

test('one program for all bits turns if any of them does', () => {
  expect(turnsNext(job, view('diamond'), undefined)).toBe(false);
  expect(turnsNext(job, view('diamond', 'end'), { id: 'diamond' })).toBe(true);
  expect(turnsNext(job, undefined, undefined)).toBe(true);
});

test('where each bit has its own, the one that is in counts: a diamond is not asked for a warm spindle, nor a cutter for a still one', () => {
  expect(turnsNext(each, view('diamond', 'end'), { id: 'diamond' })).toBe(false);
  expect(turnsNext(each, view('diamond', 'end'), { id: 'end' })).toBe(true);
  expect(turnsNext(each, view('diamond', 'end'), undefined)).toBe(false);
  // A bit of another job counts for nothing here.
  expect(turnsNext(each, view('end'), { id: 'diamond' })).toBe(true);
});
