import fc from 'fast-check';
import { expect, test } from 'vitest';
import { judgeCarving } from './judge.ts';
import { FLOOR_WORTH_SAYING } from './facts.ts';

/**
 * Promise held here: where strokes are wider than the depth limit lets a point go, a depth is offered at which they come to a
 * point, in tenths of a millimetre and no deeper than that takes; and only where the bit reaches so far, its edges are as
 * long, two millimetres of the stock stay, and the limit is not there already.
 */
test('the depth that is offered brings all strokes to a point', async () => {
  const tenth = (min: number, max: number) => fc.integer({ min: 10 * min, max: 10 * max }).map((n) => n / 10);
  let offered = 0;
  await fc.assert(
    fc.asyncProperty(
      fc.double({ min: 1, max: 24, noNaN: true }),
      tenth(8, 30),
      tenth(2, 25),
      tenth(1, 20),
      fc.constantFrom(40, 62, 90, 118),
      async (fullDepth, thick, flute, depthLimit, angle) => {
        const bit = { id: 'v', kind: 'v', name: 'V', diameter: 17, tip: 0.4, angle, flute, presets: [] };
        const stock = { material: 'oak', corners: [thick, thick - 0.3, thick - 0.1, thick - 0.2] };
        const facts = { tooNarrow: 0, floorArea: FLOOR_WORTH_SAYING + 7, fullDepth };
        const remarks = await judgeCarving({
          job: { unit: 'mm', stock, bits: [bit], artwork: [] },
          cut: { id: 'c', bit: 'v', depthLimit, targets: [] },
          index: 3,
          own: bit,
          result: { depth: Math.min(depthLimit, 5), facts },
          parts: [],
          tryCut: async () => [],
        } as never);
        const found = remarks
          .find(({ id }) => id === 'wide-c')!
          .remedies.find(({ label }) => label.endsWith('to a point'));
        const needed = [...Array(300).keys()].map((k) => k / 10).find((depth) => depth >= fullDepth)!;
        const reach = (17 / 2 - 0.4 / 2) / Math.tan((angle * Math.PI) / 360);
        if (needed > Math.min(reach, flute, thick - 2) || needed <= depthLimit) {
          expect(found).toBeUndefined();
          return;
        }
        offered++;
        expect(found).toEqual({
          label: `Carve ${needed} mm deep, to a point`,
          patch: [{ op: 'replace', path: '/cuts/3/depthLimit', value: needed }],
        });
      },
    ),
    { numRuns: 300, seed: 5 },
  );
  expect(offered).toBeGreaterThan(20);
});
