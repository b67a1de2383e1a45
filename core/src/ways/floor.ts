import type { Profile } from '../tools/turned.ts';
import type { Clipper, Loops } from '../geometry/clipper.ts';
import { stretchesOf } from '../geometry/stretches.ts';
import { flatTrack, type Track } from '../motion/track.ts';
import type { Carvable } from './carvable.ts';
import { eroded } from './erosion.ts';
import { ringLevelsFrom } from './ring-levels.ts';
import { nestRings } from './rings.ts';

export interface FloorSettings {
  bit: Profile;
  /** Distance between neighbouring rings, mm. */
  floorStep: number;
  /** Radii of end mills that have cleared the floor before, mm. */
  clearedBy?: readonly number[];
}

/**
 * The flat floor that a depth limit leaves in a region: its wall, and rings inwards at the floor step. What flat bits
 * have cleared before is left out; the wall itself never is.
 *
 * @param floor where the bit's middle goes on it: the region shrunk by `reach`.
 * @param reach radius of the bit at the floor's depth, mm.
 * @param z height of the floor, mm.
 */
export function floorTracks(
  carvable: Carvable,
  floor: Loops,
  { bit, floorStep, clearedBy = [] }: FloorSettings,
  clipper: Clipper,
  reach: number,
  z: number,
): Track[] {
  const levels = ringLevelsFrom(floor, floorStep, clipper);
  if (levels.length === 0) return [];
  const cleared = clearedBy.length ? openedBy(eroded(carvable, reach - bit.flat, clipper), clearedBy, clipper) : [];
  if (cleared.length === 0) return nestRings(levels, z);
  const out = levels[0].map((loop) => flatTrack(loop, z, true));
  for (const ring of levels.slice(1).flat())
    for (const { points } of stretchesOf(ring, cleared, false)) out.push(flatTrack(points, z, false));
  return out;
}

/**
 * What round bits reach of an area, together: all places that a circle of one of the radii covers without leaving it.
 * @param leave how much nearer to its edge than this they do not come, mm.
 */
export function openedBy(area: Loops, radii: readonly number[], clipper: Clipper, leave = 0): Loops {
  const parts = radii.flatMap((radius) => clipper.offset(clipper.offset(area, -radius - leave), radius));
  return parts.length ? clipper.union(parts, 'nonzero') : [];
}
