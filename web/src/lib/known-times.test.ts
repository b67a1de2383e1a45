import { readFileSync } from 'node:fs';
import { readJobFile } from '@kerbe/core/job/job-file';
import { expect, test } from 'vitest';
import { timeInAll, timelessCuts } from './known-times.ts';

const job = () =>
  readJobFile(readFileSync(new URL('../../../demo/jobs/entrance-board.kerbe.json', import.meta.url), 'utf8')).job;

test('a job as its tools have it has a time', () => {
  const known = timelessCuts(job());
  expect(known.size).toBe(0);
  expect(timeInAll(61.25, known)).toBe('1 h 01 min in all');
});

test('in a material that no tool has a row for no cut has a time', () => {
  const brass = job();
  brass.stock.material = 'bell metal';
  for (const cut of brass.cuts) delete cut.settings;
  const timeless = timelessCuts(brass);
  expect([...timeless]).toEqual(brass.cuts.map(({ id }) => id));
  expect(timeInAll(61.25, timeless)).toBe(`time not known: ${brass.cuts.length} cuts have no settings`);
});

test('one cut alone with a feed that no row has', () => {
  const changed = job();
  const [cut] = changed.cuts;
  delete cut.settings;
  Object.assign(cut, { feed: 1234.5 });
  expect([...timelessCuts(changed)]).toEqual([cut.id]);
  expect(timeInAll(61.25, new Set([cut.id]))).toBe('time not known: a cut has no settings');
});
