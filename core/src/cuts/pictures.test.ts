import { expect, test } from 'vitest';
import { clipper } from '../geometry/clipper-for-tests.ts';
import { cutArtwork } from './cut-artwork.ts';
import { CUT_KINDS, type CutKindName } from './kinds.ts';
import { partsOf } from './parts-of.ts';

const frame = Float64Array.of(0, 0, 40, 0, 40, 30, 0, 30);
const picture = {
  name: 'photograph',
  rule: 'nonzero' as const,
  outlines: [{ points: frame, closed: true }],
  greys: { grey: { width: 4, height: 3, greys: new Uint8Array(12) }, map: [10, 0, 0, -10, 0, 30] as never },
};
const letter = { name: 'letter', rule: 'nonzero' as const, outlines: [{ points: frame, closed: true }] };

const others = (Object.keys(CUT_KINDS) as CutKindName[]).filter((kind) => !CUT_KINDS[kind].pictures);

test('a kind of cut works on pictures', () => {
  expect(others.length).toBe(Object.keys(CUT_KINDS).length - 1);
});

test.each(others)('%s does not take the frame of a picture for an outline, alone or beside a letter', async (kind) => {
  const job = { bits: [{ id: 'b', kind: CUT_KINDS[kind].bits[0], name: 'Bit' }] } as never;
  for (const shapes of [[picture], [letter, picture]])
    await expect(partsOf(job, { kind, bit: 'b' } as never, cutArtwork(shapes, clipper), clipper)).rejects.toThrow(
      /^A picture is chosen, and it has no outlines that .* could follow; take it out of this cut/,
    );
});
