import type { Clipper } from '../geometry/clipper.ts';
import { boundsOf, type Loops, signedArea } from '../geometry/outline.ts';

/**
 * An area that is cut out, without two bars for every island in it: up from the island and down, as far as the next wall,
 * so that it hangs on to what stays.
 *
 * @param area as `Clipper.union` returns it. @param width of a bar, mm.
 * @example a ring 20 mm wide and bars of 3 mm: two halves of it, 3 mm apart above and below the island
 */
export function bridged(area: Loops, width: number, clipper: Clipper): Loops {
  const bars = area
    .filter((loop) => signedArea(loop) < 0)
    .flatMap((island) => {
      const box = boundsOf([{ points: island }])!;
      const x = (box.minX + box.maxX) / 2;
      const heights = crossings(area, x);
      const own = crossings([island], x);
      if (own.length < 2) return [];
      const [bottom, top] = [own[0], own.at(-1)!];
      const above = heights.find((y) => y > top + 1e-9);
      const below = heights.findLast((y) => y < bottom - 1e-9);
      const bar = (from: number, to: number) =>
        Float64Array.of(x - width / 2, from, x + width / 2, from, x + width / 2, to, x - width / 2, to);
      // A little into the walls on both sides: they need not be level.
      return [
        ...(above === undefined ? [] : [bar(top - width, above + width)]),
        ...(below === undefined ? [] : [bar(below - width, bottom + width)]),
      ];
    });
  return bars.length === 0 ? area : clipper.difference(area, clipper.union(bars, 'nonzero'));
}

/** Where an upright line meets the loops, from below. */
function crossings(loops: Loops, x: number): number[] {
  const out: number[] = [];
  for (const loop of loops)
    for (let n = loop.length, i = 0, j = n - 2; i < n; j = i, i += 2)
      if (loop[i] > x !== loop[j] > x)
        out.push(loop[j + 1] + ((x - loop[j]) / (loop[i] - loop[j])) * (loop[i + 1] - loop[j + 1]));
  return out.sort((a, b) => a - b);
}
