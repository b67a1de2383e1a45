import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import type { Cut } from '@kerbe/core/cuts/kinds';
import { newCut } from '@kerbe/core/cuts/new-cut';
import { readJobFile } from '@kerbe/core/job/job-file';
import { type CutView, itemView } from '../workers/job-view.ts';
import { keysOf } from './legend.ts';
import { LinesBuilder } from './lines.ts';
import { artworkGroups, chosenGroups, wayGroups } from './scene.ts';

const { job } = readJobFile(
  readFileSync(new URL('../../../../demo/jobs/night-light.kerbe.json', import.meta.url), 'utf8'),
);
const box = (x: number) => Float64Array.of(x, 0, x + 5, 0, x + 5, 5, x, 5);
const shape = (mark: string, x: number, closed = true) => ({
  name: mark,
  mark,
  rule: 'nonzero' as const,
  outlines: [{ points: box(x), closed }],
});
const item = itemView({
  id: 'a',
  nodes: { drawn: 0, now: 0, off: 0 },
  notes: [],
  shapes: [shape('both', 0), shape('carved', 10), shape('free', 20), shape('open', 30, false)],
});
const cut = (kind: 'v-carve' | 'profile' | 'drill', id: string, ...shapes: string[]): Cut =>
  ({ ...newCut(job, kind, id)!, targets: [{ item: 'a', shapes }] }) as Cut;
const cuts = [cut('v-carve', 'carve', 'both', 'carved', 'open'), cut('profile', 'out', 'both')];
const told = (groups: ReturnType<typeof chosenGroups>) =>
  groups.map(({ ranges, look }) => [
    ranges.map(({ from }) => item.shapes.findIndex((s) => s.from === from)).join(''),
    look.tone,
    look.fill ?? look.line,
  ]);

test('a shape in two cuts shows the looks of both, an open one that it is none to carve, a free one that it is free', () => {
  expect(told(artworkGroups({ items: [item], cuts }).get('a')!)).toEqual([
    ['01', 'carved', 'solid'],
    ['3', 'signal', 1.2],
    ['0', 'ink', 1],
    ['2', 'ink', 1.2],
  ]);
});

test('at Run what is yet to be carved is an outline, and done it is filled', () => {
  const first = (done: string[]) => told(artworkGroups({ items: [item], cuts, done: new Set(done) }).get('a')!)[0];
  expect([first([]), first(['carve'])]).toEqual([['01', 'ink', 1.2], ['01', 'carved', 'solid']]); // prettier-ignore
});

test('the cut at hand shows all it has, whatever else they are in; none at hand, what is picked', () => {
  const picked = new Map([['a', new Set([2])]]);
  expect(told(chosenGroups({ items: [item], cuts, active: 'out', picked }))).toEqual([['0', 'signal', 2.5]]);
  expect(told(chosenGroups({ items: [item], cuts, active: undefined, picked }))).toEqual([['2', 'signal', 2.5]]);
});

const lines = (() => {
  const builder = new LinesBuilder();
  builder.circle(1, 1, 1);
  return builder.done();
})();
const part = (id: string, marks: CutView['marks'] = []) =>
  ({ id, cut: id, way: lines, links: lines, marks, tabs: [], leaves: { kind: 'groove' } }) as unknown as CutView;

test('ways are drawn where one looks at them, a cut-out’s everywhere, and what lies beside them as it says', () => {
  const shown = { items: [item], cuts, made: [part('carve'), part('out')], marks: false };
  const looks = (ways: boolean) => wayGroups({ ...shown, ways }).map(({ look }) => [look.tone, look.line]);
  expect(looks(false)).toEqual([['ink', 1.8]]);
  expect(looks(true)).toEqual([['wood', 1], ['signal', 1], ['ink', 1.8], ['signal', 1]]); // prettier-ignore
});

test('what draws is as wide as it comes out, and a cut-out tells its direction where its way is looked at', () => {
  const shown = { items: [item], cuts, marks: false };
  const drawn = { ...part('carve'), leaves: { kind: 'mark' as const, width: 0.3 } };
  const looks = (ways: boolean, made = [drawn, part('out')]) =>
    wayGroups({ ...shown, made, ways }).map(({ look }) => look);
  expect(looks(true)[0]).toMatchObject({ across: 0.3 });
  expect(looks(true)[2]).toMatchObject({ line: 1.8, arrows: true });
  expect(looks(false)[0].arrows).toBeUndefined();
  expect(looks(true, [part('carve')])[0].across).toBeUndefined();
});

test('the legend calls each mark once, and a hole by what is drawn of it', () => {
  const hole = { look: { tone: 'carved' as const, fill: 'solid' as const }, word: 'hole', always: true, lines };
  const keys = keysOf({
    job: { ...job, cuts: [...cuts, cut('drill', 'holes', 'free')] },
    made: [part('out'), part('holes', [hole])],
    handles: [],
    marked: true,
    ways: true,
    chalk: false,
  });
  expect(keys.map(({ word }) => word)).toEqual(['carved', 'cut through', 'hole', 'path of the bit', 'lifted over', 'clamp']); // prettier-ignore
  expect(keys.find(({ word }) => word === 'hole')!.look).toEqual(hole.look);
});
