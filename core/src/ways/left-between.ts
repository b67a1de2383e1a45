import type { Clipper, Loops } from '../geometry/clipper.ts';
import { distanceToSegment } from '../geometry/distance-to-segment.ts';
import { signedArea } from '../geometry/outline.ts';
import { flatTrack, type Track } from '../motion/track.ts';

/** Smaller places than this, mm², no eye sees. */
const SEEN = 1e-4;

/**
 * Strokes over what rings leave between them, at corners and in the middle, though they lie no further apart than a line is
 * wide: where walls meet at a sharp angle, the corners of two rings do.
 *
 * @param levels rings by level, the outermost first.
 * @param width of a line, mm.
 */
export function leftBetween(levels: readonly Loops[], width: number, clipper: Clipper): Track[] {
  const r = width / 2;
  const tracks: Track[] = [];
  levels.forEach((rings, k) => {
    const within = clipper.offset(rings, -r);
    if (within.length === 0) return;
    const next = levels[k + 1];
    // What the innermost ring leaves is gone round once more.
    if (!next) tracks.push(...within.map((loop) => flatTrack(loop, 0, true)));
    else
      for (const left of clipper.difference(within, clipper.offset(next, r)))
        if (signedArea(left) > SEEN) tracks.push(over(left, r));
  });
  return tracks;
}

/** One stroke from end to end where that covers a place, and once round it where it is bent. */
function over(loop: Float64Array, r: number): Track {
  const [ax, ay, bx, by] = longest(loop);
  // All its corners within reach of a straight stroke, all of it is.
  for (let i = 0; i < loop.length; i += 2)
    if (distanceToSegment(loop[i], loop[i + 1], ax, ay, bx, by) > r) return flatTrack(loop, 0, true);
  return flatTrack([ax, ay, bx, by], 0, false);
}

/** The two corners of a loop that are furthest from each other. */
function longest(loop: Float64Array): number[] {
  let [best, most] = [[loop[0], loop[1], loop[0], loop[1]], -1];
  for (let i = 0; i < loop.length; i += 2)
    for (let j = i + 2; j < loop.length; j += 2) {
      const far = Math.hypot(loop[j] - loop[i], loop[j + 1] - loop[i + 1]);
      if (far > most) [best, most] = [[loop[i], loop[i + 1], loop[j], loop[j + 1]], far];
    }
  return best;
}
