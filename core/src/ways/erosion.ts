import type { Clipper, Loops } from '../geometry/clipper.ts';
import type { Carvable } from './carvable.ts';

/** Into how many bands a region is divided from its wall to its widest place. */
const BANDS = 6;

const kept = new WeakMap<Carvable, Map<number, Loops>>();

/**
 * A region shrunk by a distance. Shrinking by a part first and by the rest then comes to the same, so the larger part is
 * kept with the region: a depth limit that changes a little costs little.
 *
 * @param distance mm.
 */
export function eroded(carvable: Carvable, distance: number, clipper: Clipper): Loops {
  const { region, axis } = carvable;
  let widest = 0;
  for (const r of axis.r) if (r > widest) widest = r;
  const band = widest / BANDS;
  const step = Math.floor(distance / band);
  if (!(step > 0)) return clipper.offset(region.loops, -distance);
  let known = kept.get(carvable);
  if (!known) kept.set(carvable, (known = new Map()));
  let loops = known.get(step);
  if (!loops) known.set(step, (loops = clipper.offset(region.loops, -step * band)));
  const rest = distance - step * band;
  return rest > 0 ? clipper.offset(loops, -rest) : loops;
}
