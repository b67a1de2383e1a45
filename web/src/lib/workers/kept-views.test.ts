import { readFileSync } from 'node:fs';
import { IDBFactory } from 'fake-indexeddb';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { leavesOf, withLeaf } from '@kerbe/core/document/leaves-for-tests';
import { readJobFile } from '@kerbe/core/job/job-file';
import type { CutJob } from '@kerbe/core/job/job';
import { LinesBuilder } from '../sheet/lines.ts';
import type { ItemView, JobView } from './job-view.ts';
import { keepView, keptView } from './kept-views.ts';

// Promised: what is found is what this build computed for this very job, and no more is kept than there is room for.

const { job } = readJobFile(
  readFileSync(new URL('../../../../demo/jobs/meridian-plate.kerbe.json', import.meta.url), 'utf8'),
);
const view = (minutes: number): JobView =>
  ({
    cuts: [],
    minutes,
    besideMinutes: 0,
    bitChanges: 0,
    bits: [],
    remarks: [],
    left: [],
    milliseconds: 3,
  }) satisfies JobView;
const build = (name: string) => vi.stubGlobal('self', { location: { href: `https://kerbe.test/${name}.js` } });

beforeEach(() => {
  vi.stubGlobal('indexedDB', new IDBFactory());
  build('one');
});
afterEach(() => void vi.unstubAllGlobals());

test('a job is known again by all that is in it, in whatever order that stands', async () => {
  await keepView(job, [], view(7));
  const turned = Object.fromEntries(Object.entries(structuredClone(job)).toReversed()) as CutJob;
  expect((await keptView(turned))?.view.minutes).toBe(7);
  for (const leaf of leavesOf(job)) expect(await keptView(withLeaf(job, leaf)), leaf.path.join('.')).toBeUndefined();
});

test('another build computes it anew', async () => {
  await keepView(job, [], view(7));
  build('two');
  expect(await keptView(job)).toBeUndefined();
});

test('twelve are kept, and the one that was kept longest ago goes first', async () => {
  const named = (k: number): CutJob => ({ ...job, name: `Plate ${k}` });
  for (let k = 0; k < 12; k++) await keepView(named(k), [], view(k));
  // Kept once more, the first is the newest.
  await keepView(named(0), [], view(100));
  await keepView(named(12), [], view(12));
  const minutes = await Promise.all(
    Array.from({ length: 13 }, async (_, k) => (await keptView(named(k)))?.view.minutes),
  );
  expect(minutes).toEqual([100, undefined, ...Array.from({ length: 11 }, (_, k) => k + 2)]);
});

test('what is larger than there is room for is not kept: 4 million points of artwork, or an eighth of so many places', async () => {
  const item = (points: number, places: number) =>
    ({
      id: 'a',
      shapes: [],
      nodes: [],
      notes: [],
      lines: {
        ...new LinesBuilder().done(),
        points: new Float64Array(2 * points),
        ...(places && { raster: { dark: new Uint8Array(places) } }),
      },
    }) as unknown as ItemView;
  for (const [points, places, isKept] of [
    [4_000_000, 0, true],
    [4_000_001, 0, false],
    [3_999_999, 8, true],
    [3_999_999, 16, false],
  ] as const) {
    const own = { ...job, name: `${points} ${places}` };
    const items = [item(points, places)];
    await keepView(own, items, view(1));
    expect((await keptView(own)) !== undefined, `${points} points, ${places} places`).toBe(isKept);
  }
});

test('a browser that keeps nothing goes on without', async () => {
  vi.stubGlobal('indexedDB', {
    open: () => {
      throw new DOMException('no', 'SecurityError');
    },
  });
  await keepView(job, [], view(7));
  expect(await keptView(job)).toBeUndefined();
});
