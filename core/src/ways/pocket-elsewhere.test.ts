import fc from 'fast-check';
import { expect, test } from 'vitest';
import { clipper } from '../geometry/clipper-for-tests.ts';
import { boundsOf } from '../geometry/outline.ts';
import { shiftLoops } from '../geometry/same-shape.ts';
import { measurePath, type Path } from '../motion/path.ts';
import { pocket, type PocketSettings } from './pocket.ts';

// Promised: a pocket is cleared in the same way wherever on the sheet it lies, into the wood as well.

const settings: PocketSettings = {
  diameter: 5,
  depth: 4.3,
  depthPerPass: 2.7,
  step: 1.9,
  pattern: 'rings',
  angle: 0.4,
  climb: true,
  finish: 0,
  entry: { kind: 'plunge' } as PocketSettings['entry'],
  feed: 1900,
  plunge: 600,
  lift: 5,
};

const flat = ({ xyz }: Path) => xyz.filter((_, i) => i % 3 < 2);

test('elsewhere its path is the same, moved', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 18, max: 60 }),
      fc.integer({ min: 14, max: 45 }),
      fc.boolean(),
      fc.constantFrom('plunge', 'ramp', 'helix'),
      fc.constantFrom('rings', 'lines'),
      fc.constantFrom(0, 0.3),
      fc.tuple(fc.integer({ min: 1, max: 900 }), fc.integer({ min: 1, max: 500 })),
      (length, width, island, kind, pattern, finish, [dx, dy]) => {
        const outline = Float64Array.of(0, 0, length, 0, length, width, 7, width, 0, width - 9);
        const hole = Float64Array.of(length - 4, 4, length - 7, 4, length - 7, 7, length - 4, 7);
        const area = clipper.union(island ? [outline, hole] : [outline], 'nonzero');
        const own = { ...settings, pattern, finish, entry: { kind, angle: 0.07 } } as PocketSettings;
        const here = pocket(area, own, clipper);
        const there = pocket(shiftLoops(area, dx, dy), own, clipper);
        // Spikes of nanometres, which rounding makes, aside.
        const [a, b] = [measurePath(here.path), measurePath(there.path)];
        expect(Math.abs(a.cut - b.cut)).toBeLessThan(0.001);
        expect(b.lowest).toBe(a.lowest);
        const [from, to] = [boundsOf([{ points: flat(here.path) }])!, boundsOf([{ points: flat(there.path) }])!];
        expect([to.minX - dx, to.minY - dy, to.maxX - dx, to.maxY - dy].map((v) => v.toFixed(4))).toEqual(
          [from.minX, from.minY, from.maxX, from.maxY].map((v) => v.toFixed(4)),
        );
        expect(there.passes).toBe(here.passes);
      },
    ),
    { numRuns: 60, seed: 4 },
  );
});
