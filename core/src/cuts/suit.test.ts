import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import type { DragPoint } from '../tools/drag/fields.ts';
import type { Bit } from '../tools/turned.ts';
import type { VBit } from '../tools/v/fields.ts';
import type { Cut } from './kinds.ts';
import { readJobFile } from '../job/job-file.ts';
import { CUT_KINDS } from './kinds.ts';
import { newCut } from './new-cut.ts';
import { suitToBit, suitToPreset } from './suit.ts';

const { job } = readJobFile(
  readFileSync(new URL('../../../demo/jobs/night-light.kerbe.json', import.meta.url), 'utf8'),
);
const preset = { material: 'slate', feed: 700, plunge: 200, speed: 9000, depthPerPass: 0.7 };
const v: VBit = { id: 'v', name: 'V 60', kind: 'v', diameter: 12, angle: 60, tip: 0, flute: 12, shank: 6, presets: [preset] }; // prettier-ignore
const mill: Bit = { id: 'm', name: 'End 5', kind: 'end', diameter: 5, flute: 20, shank: 6, presets: [preset] };
const point: DragPoint = { id: 'd', name: 'Diamond', kind: 'drag', diameter: 6, shank: 6, angle: 90, width: 0.508, travel: 5, force: 5, standOut: null, presets: [] }; // prettier-ignore
const cutOf = (kind: Cut['kind']) => newCut({ ...job, bits: [...job.bits, v, point] }, kind, kind)!;

test('a drag engraving takes its feed and how far it is pressed, and steps 0.025 in where its line is 0.020 in wide, pressed 0.1 in (common practice)', () => {
  const cut = cutOf('drag') as Extract<Cut, { kind: 'drag' }>;
  expect(cut.pressed).toBeCloseTo(2.54, 9);
  expect(cut.angle).toBe(45);
  expect(cut.step).toBeCloseTo(0.025 * 25.4, 2);
  suitToPreset(cut, { material: 'brass', feed: 600, pressed: 1.5 } as never);
  expect(cut).toMatchObject({ feed: 600, pressed: 1.5 });
  // A setting that says nothing of it leaves it.
  suitToPreset(cut, preset);
  expect(cut).toMatchObject({ feed: 700, pressed: 1.5 });
});

const turning = (Object.keys(CUT_KINDS) as Cut['kind'][]).filter((kind) => 'speed' in CUT_KINDS[kind].fields);
test.each(turning)('%s takes feeds, speed and passes from a preset', (kind) => {
  const cut = cutOf(kind);
  suitToPreset(cut, preset);
  expect(cut).toMatchObject({ feed: 700, plunge: 200, speed: 9000 });
  if (kind === 'profile' || kind === 'pocket' || kind === 'inlay') expect(cut).toMatchObject({ depthPerPass: 0.7 });
});

test('a carving in one pass stays one, in several takes as much as the bit is set to', () => {
  const cut = cutOf('v-carve') as Extract<Cut, { kind: 'v-carve' }>;
  for (const [before, after] of [[null, null], [2, 0.7]] as const) {
    cut.depthPerPass = before;
    suitToPreset(cut, preset);
    expect(cut.depthPerPass).toBe(after);
  }
}); // prettier-ignore

test.each(['pocket', 'inlay'] as const)('%s with another bit steps 40 %% of that', (kind) => {
  const cut = cutOf(kind);
  suitToBit(cut, mill, { material: 'slate', corners: [9, 9.1, 9, 8.9] });
  expect(cut).toMatchObject({ bit: 'm', step: 2, depthPerPass: 0.7, feed: 700 });
  // Without settings at all the step still goes with the bit.
  suitToBit(cut, { ...mill, id: 'bare', diameter: 8, presets: [] }, { material: 'slate', corners: [9, 9.1, 9, 8.9] });
  expect(cut).toMatchObject({ bit: 'bare', step: 3.2, feed: 700 });
});

test('an inlay is two cuts, others are one', () => {
  const made = (Object.keys(CUT_KINDS) as Cut['kind'][]).map((kind) => {
    const cut = cutOf(kind);
    return [kind, (CUT_KINDS[kind].beside as undefined | ((c: Cut) => Cut[]))?.(cut).map(({ id }) => id) ?? []];
  });
  expect(made.filter(([, more]) => more.length > 0)).toEqual([['inlay', ['inlay-part']]]);
});
