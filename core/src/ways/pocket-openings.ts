import { Clearance } from '../geometry/clearance.ts';
import type { Loops } from '../geometry/clipper.ts';
import { regionsOf } from '../geometry/regions.ts';
import { insideArea } from '../geometry/stretches.ts';
import { flatTrack, type Track } from '../motion/track.ts';
import { openingAlong, openingsIn, type OpeningSettings } from './opening.ts';

/** As many ways to open a pocket, the quick ones first, as together take no longer than `most`: a slot is the lesser evil. */
export function affordable(openings: readonly Track[], most: number, timeOf: (track: Track) => number): Track[] {
  let left = most;
  return openings
    .map((track) => ({ track, time: timeOf(track) }))
    .sort((a, b) => a.time - b.time)
    .filter(({ time }) => (left -= time) >= 0)
    .map(({ track }) => track);
}

/** Ways to open a pocket without a slot: those that end beside an innermost ring, by its loop, and others. */
export function openingsOf(
  levels: readonly Loops[],
  settings: OpeningSettings,
  timeOf: (track: Track) => number,
): { before: Track[]; openings: Map<Float64Array, Track> } {
  const openings = new Map<Float64Array, Track>();
  const tracks = affordable(
    regionsOf(levels[0]).flatMap((region) => openingsIn(region, levels, settings)),
    levels.flat().reduce((sum, loop) => sum + timeOf(flatTrack(loop, 0, true)), 0),
    timeOf,
  );
  const innermost = levels.flatMap((level, k) =>
    regionsOf(level).filter(({ loops }) => !(levels[k + 1] ?? []).some((loop) => insideArea(loops, loop[0], loop[1]))),
  );
  const before = tracks.filter((track) => {
    const [x, y] = track.xyz.subarray(track.xyz.length - 3);
    const ring = innermost.find(
      ({ loops }) =>
        !openings.has(loops[0]) && (insideArea(loops, x, y) || Clearance.ofLoops(loops).at(x, y) < settings.radius),
    );
    if (ring) openings.set(ring.loops[0], track);
    return !ring;
  });
  return { before, openings };
}

/** A track of lines behind loops along its first line, which would else be a slot; the loops keep beside it, inside. */
export function openedLine(
  track: Track,
  area: Loops,
  settings: OpeningSettings,
  timeOf: (track: Track) => number,
): Track[] {
  const { xyz } = track;
  const [ax, ay, bx, by] = [xyz[0], xyz[1], xyz[3], xyz[4]];
  const length = Math.hypot(bx - ax, by - ay);
  const off = settings.radius / 2 + 1e-3;
  if (length < 2 * off) return [track];
  const [ux, uy] = [(bx - ax) / length, (by - ay) / length];
  for (const side of [1, -1]) {
    const [nx, ny] = [-uy * off * side, ux * off * side];
    const place = (s: number): [number, number] => [ax + ux * s + nx, ay + uy * s + ny];
    const free = (s: number) => {
      const [x, y] = place(s);
      return insideArea(area, x, y) && settings.room(x, y) >= settings.radius / 2 - 1e-6;
    };
    const [from, to] = longestRun(length, settings.step / 2, free);
    if (to - from < length / 2) continue;
    const loops = openingAlong(...place(from), ...place(to), settings);
    if (loops && timeOf(loops) < timeOf(track)) return [loops, track];
  }
  return [track];
}

/** The longest stretch of a line, seen every `step`, along which a place is `free` throughout; [0, 0] where none is. */
function longestRun(length: number, step: number, free: (s: number) => boolean): [number, number] {
  const count = Math.max(1, Math.ceil(length / step));
  let best: [number, number] = [0, 0];
  let from: number | undefined;
  for (let k = 0; k <= count; k++) {
    const s = (k / count) * length;
    if (!free(s)) from = undefined;
    else if (s - (from ??= s) > best[1] - best[0]) best = [from, s];
  }
  return best;
}
