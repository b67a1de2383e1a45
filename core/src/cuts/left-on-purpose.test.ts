import jsonPatch from 'fast-json-patch';
import { expect, test } from 'vitest';
import { newJob } from '../document/new-job.ts';
import type { Job } from '../document/job.ts';
import type { Remark } from './remark.ts';
import { leaveIt, letItStand, mayBeLeft, sortLeft } from './left-on-purpose.ts';

const AT = '2026-05-04T10:00:00.000Z';
const advice: Remark = {
  id: 'uneven-stock',
  stop: 'cuts',
  cut: 'a',
  weight: 'advice',
  text: 'The corners differ by 0.6 mm.',
  remedies: [],
};
const job = (): Job => ({
  ...newJob('Board', 'mm', [], {} as never),
  cuts: [{ id: 'a', kind: 'pocket', bit: 'e3', targets: [{ item: 'art', shapes: 'all' }], feed: 800 } as never],
});
const patched = (of: Job, patch: ReturnType<typeof leaveIt>) =>
  jsonPatch.applyPatch(structuredClone(of), patch).newDocument;

test('a remark that is left stands no more, with why, by whom and when; and again if it is asked for', () => {
  const left = patched(job(), leaveIt(job(), advice, 'a lamp hides it', 'Ilse', AT));
  const other = { ...advice, id: 'other' };
  expect(sortLeft(left, [advice, other])).toEqual({
    remarks: [other],
    left: [
      { remark: advice, why: expect.objectContaining({ reason: 'a lamp hides it', by: 'Ilse', at: AT }) as never },
    ],
  });
  expect(sortLeft(patched(left, letItStand(left, advice)), [advice]).remarks).toEqual([advice]);
});

test.each<[string, (of: Job) => void, Partial<Remark>]>([
  ['what it says', () => {}, { text: 'The corners differ by 0.7 mm.' }],
  ['the outlines of its cut', ({ cuts }) => (cuts[0].targets = [{ item: 'art', shapes: ['id:moon'] }]), {}],
  ['the material', ({ stock }) => (stock.material = 'oak, thick'), {}],
  ['the stock', ({ stock }) => (stock.corners = [9, 9, 8, 9]), {}],
  ['the bit', (of) => of.bits.push({ id: 'e3', diameter: 3 } as never), {}],
])('it stands again when %s is another', (_, change, remark) => {
  const left = patched(job(), leaveIt(job(), advice, 'why not', '', AT));
  change(left);
  expect(sortLeft(left, [{ ...advice, ...remark }]).remarks).toHaveLength(1);
});

test('it stays left when something else changes', () => {
  const left = patched(job(), leaveIt(job(), advice, 'why not', '', AT));
  Object.assign(left.cuts[0], { feed: 900 });
  left.name = 'Another';
  expect(sortLeft(left, [advice]).left).toHaveLength(1);
});

test('what keeps a program or a start back cannot be left, whatever a document says', () => {
  for (const kept of [{ weight: 'wrong' as const }, { weight: 'advice' as const, withholds: true as const }]) {
    const remark = { ...advice, ...kept };
    expect(mayBeLeft(remark)).toBe(false);
    const left = patched(job(), leaveIt(job(), remark, 'why not', '', AT));
    expect(sortLeft(left, [remark]).remarks).toEqual([remark]);
  }
});
