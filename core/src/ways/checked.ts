import { OwnFault } from '../schema/own-fault.ts';
import { type Profile, radiusAtDepth } from '../tools/turned.ts';
import { Clearance } from '../geometry/clearance.ts';
import type { Loops } from '../geometry/clipper.ts';
import { Sides } from '../geometry/sides.ts';
import type { Track } from '../motion/track.ts';

/** How far past an outline a move may cut by rounding, mm. */
export const PAST_OUTLINE = 0.012;

/** A move of Kerbe's own making that would cut where nothing is to be cut, told with how far and where. */
export const past = (by: number, x: number, y: number) =>
  new OwnFault(
    `Kerbe’s own check found a move that would cut ${by.toFixed(2)} mm past the outline near ${x.toFixed(1)}, ${y.toFixed(1)} mm, so this cut is not made. That is a fault of Kerbe, not of the drawing; another bit or step may avoid it.`,
  );

/**
 * Looks at level tracks of a round bit against the outline itself, not against what they were made from.
 *
 * @param outline loops of the area that is cut in, or that stays.
 * @param inside on which side of the outline the bit's middle belongs.
 * @param radius of the bit, mm.
 * @throws {OwnFault} where the bit would come nearer to the outline than its radius, or stand on its other side.
 */
export function checkClear(tracks: readonly Track[], outline: Loops, inside: boolean, radius: number): void {
  if (tracks.length === 0 || outline.length === 0) return;
  const least = radius - PAST_OUTLINE;
  const edge = Clearance.ofLoops(outline);
  const look = (x: number, y: number) => {
    const away = edge.at(x, y);
    if (away < least) throw past(radius - away, x, y);
  };
  const sides = new Sides(outline);
  let count = 0;
  for (const { xyz } of tracks) {
    if (sides.inside(xyz[0], xyz[1]) !== inside) throw past(radius + edge.at(xyz[0], xyz[1]), xyz[0], xyz[1]);
    count += xyz.length / 3;
    for (let i = 0; i < xyz.length; i += 3) {
      look(xyz[i], xyz[i + 1]);
      if (i === 0) continue;
      // A wall that is crossed has ends on both sides that are far from it, so only a long move can do that.
      const [dx, dy] = [xyz[i] - xyz[i - 3], xyz[i + 1] - xyz[i - 2]];
      const pieces = Math.floor(Math.hypot(dx, dy) / Math.max(radius, 0.05));
      for (let k = 1; k <= pieces; k++)
        look(xyz[i - 3] + (dx * k) / (pieces + 1), xyz[i - 2] + (dy * k) / (pieces + 1));
    }
  }
  // Two lines are nearest at an end of one of them: now the outline's own corners against the moves.
  const [ax, ay, bx, by] = [0, 1, 2, 3].map(() => new Float64Array(count));
  let n = 0;
  for (const { xyz } of tracks)
    for (let i = 0; i < xyz.length; i += 3, n++) {
      const from = i === 0 ? i : i - 3;
      [ax[n], ay[n], bx[n], by[n]] = [xyz[from], xyz[from + 1], xyz[i], xyz[i + 1]];
    }
  const moves = new Clearance(n, ax, ay, bx, by);
  for (const loop of outline)
    for (let i = 0; i < loop.length; i += 2) {
      const away = moves.at(loop[i], loop[i + 1]);
      if (away < least) throw past(radius - away, loop[i], loop[i + 1]);
    }
}

/**
 * Looks at tracks of a V-bit against the outline.
 * @param top height at which carving starts, mm.
 * @param area what is carved: a place well away from the outline may also lie on its wrong side.
 * @throws {OwnFault} where the bit is wider at the top than the place it is in, or outside it.
 */
export function checkCarved(
  tracks: readonly Track[],
  outline: Clearance,
  bit: Profile,
  top: number,
  area: Loops,
): void {
  const sides = new Sides(area);
  for (const { xyz } of tracks) {
    let [wasX, wasY, free] = [0, 0, 0];
    const look = (x: number, y: number, z: number) => {
      if (z > top - 1e-6) return;
      const away = outline.at(x, y);
      const by = radiusAtDepth(bit, top - z) - away;
      if (by > PAST_OUTLINE) throw past(by, x, y);
      // Within a circle that no wall enters all places lie on the side of its middle.
      const sameSide = (x - wasX) ** 2 + (y - wasY) ** 2 < free ** 2;
      if (away > PAST_OUTLINE && !sameSide && !sides.inside(x, y)) throw past(away, x, y);
      // What is at a wall may lie on either side, so only a place that was looked at vouches for others.
      [wasX, wasY, free] = [x, y, away > PAST_OUTLINE ? away : 0];
    };
    look(xyz[0], xyz[1], xyz[2]);
    for (let i = 3; i < xyz.length; i += 3) {
      look((xyz[i - 3] + xyz[i]) / 2, (xyz[i - 2] + xyz[i + 1]) / 2, (xyz[i - 1] + xyz[i + 2]) / 2);
      look(xyz[i], xyz[i + 1], xyz[i + 2]);
    }
  }
}
