import type { Clipper, Loops } from '../geometry/clipper.ts';
import { signedArea } from '../geometry/outline.ts';
import { type Path, PathBuilder } from '../motion/path.ts';
import { CutProblem } from './cut-problem.ts';
import { placeTabs, type Tab } from './tabs.ts';
import { PLUNGE_CLEARANCE } from './v-carve.ts';

export interface ProfileSettings {
  /** Diameter of the end mill, mm. */
  diameter: number;
  side: 'outside' | 'inside' | 'on';
  /** How deep, mm below the top of the stock. */
  depth: number;
  depthPerPass: number;
  /** Climb milling keeps the wood on the right of the bit (with a spindle that turns clockwise). */
  climb: boolean;
  tabs: { count: number; length: number; height: number };
  /** Thickness of the stock, mm: tabs stand up from its underside. */
  thickness: number;
  feed: number;
  plunge: number;
  lift: number;
}

export interface ProfileCut {
  path: Path;
  tabs: Tab[];
  /** Loops that vanished because the bit does not fit into them. */
  lost: number;
}

/**
 * Cuts along outlines at half the bit's diameter, inner loops before outer ones, in even passes of at most
 * `depthPerPass`. Over tabs the bit rises to leave them standing.
 *
 * @param area loops as `Clipper.union` returns them.
 * @throws {CutProblem} for settings that cannot be cut.
 */
export function profile(area: Loops, settings: ProfileSettings, clipper: Clipper): ProfileCut {
  const { diameter, side, depth, depthPerPass, climb, tabs, thickness, feed, plunge, lift } = settings;
  if (!(depth > 0)) throw new CutProblem('The depth is 0, so nothing would be cut; give it a depth.');
  if (!(depthPerPass > 0)) throw new CutProblem('The depth per pass is 0; give it a depth above 0.');
  const offset = side === 'outside' ? diameter / 2 : side === 'inside' ? -diameter / 2 : 0;
  const loops = offset === 0 ? area : clipper.offset(area, offset);
  if (loops.length === 0)
    throw new CutProblem('The bit is wider than the outline it should cut inside; choose a smaller bit.');
  const lost = side === 'inside' ? Math.max(0, area.length - loops.length) : 0;
  // Smaller areas first: what lies inside is cut while the part around it still holds.
  const ordered = [...loops].sort((a, b) => Math.abs(signedArea(a)) - Math.abs(signedArea(b)));
  const passes = Math.max(1, Math.ceil(depth / depthPerPass - 1e-9));
  const builder = new PathBuilder();
  const placed: Tab[] = [];
  for (const raw of ordered) {
    const isHole = signedArea(raw) < 0;
    // The part lies inside an outer loop cut outside. Climb: the bit goes clockwise round a part, so the part is on
    // its right.
    const partInside = side === 'inside' ? isHole : !isHole;
    const counterClockwise = partInside ? !climb : climb;
    const loop = signedArea(raw) > 0 === counterClockwise ? raw : reversed(raw);
    const through = depth > thickness - tabs.height;
    const loopTabs = tabs.count > 0 && through ? placeTabs(loop, tabs.count, tabs.length + diameter) : [];
    placed.push(...loopTabs);
    const ceiling = -(thickness - tabs.height);
    const start = startOf(loop, loopTabs);
    for (let pass = 1; pass <= passes; pass++) {
      const z = -(depth * pass) / passes;
      const track = trackOf(loop, start, z < ceiling ? loopTabs : [], z, ceiling);
      if (pass === 1) {
        if (builder.length) builder.to(builder.x, builder.y, lift, 0);
        builder.to(track[0], track[1], lift, 0);
        builder.to(track[0], track[1], Math.min(lift, PLUNGE_CLEARANCE), 0);
      }
      builder.to(track[0], track[1], z, plunge);
      for (let i = 3; i < track.length; i += 3) {
        const across = Math.hypot(track[i] - builder.x, track[i + 1] - builder.y) > 1e-9;
        builder.to(track[i], track[i + 1], track[i + 2], across || track[i + 2] > builder.z ? feed : plunge);
      }
    }
  }
  if (builder.length) builder.to(builder.x, builder.y, lift, 0);
  return { path: builder.done(), tabs: placed, lost };
}

function reversed(loop: Float64Array): Float64Array {
  const out = new Float64Array(loop.length);
  for (let i = 0; i < loop.length; i += 2) {
    out[i] = loop[loop.length - 2 - i];
    out[i + 1] = loop[loop.length - 1 - i];
  }
  return out;
}

/** Arc length at which a loop is entered: halfway between the last tab and the first, or its first point. */
function startOf(loop: Float64Array, tabs: readonly Tab[]): number {
  if (tabs.length === 0) return 0;
  const total = perimeter(loop);
  const first = Math.min(...tabs.map((t) => t.from));
  const last = Math.max(...tabs.map((t) => t.to));
  return (((last + (first + total - last) / 2) % total) + total) % total;
}

function perimeter(loop: Float64Array): number {
  let total = 0;
  for (let i = 0, j = loop.length - 2; i < loop.length; j = i, i += 2)
    total += Math.hypot(loop[i] - loop[j], loop[i + 1] - loop[j + 1]);
  return total;
}

/** One turn round a loop as x, y, z triples, from arc length `start`, at `z` or, over tabs, at `ceiling`. */
function trackOf(loop: Float64Array, start: number, tabs: readonly Tab[], z: number, ceiling: number): number[] {
  const n = loop.length / 2;
  const at = new Float64Array(n + 1);
  for (let i = 0; i < n; i++) {
    const k = ((i + 1) % n) * 2;
    at[i + 1] = at[i] + Math.hypot(loop[k] - loop[2 * i], loop[k + 1] - loop[2 * i + 1]);
  }
  const total = at[n];
  const stops: { s: number; z?: [number, number] }[] = [];
  for (let i = 0; i < n; i++) stops.push({ s: (at[i] - start + total) % total });
  for (const tab of tabs) {
    stops.push({ s: (tab.from - start + 2 * total) % total, z: [z, ceiling] });
    stops.push({ s: (tab.to - start + 2 * total) % total, z: [ceiling, z] });
  }
  stops.push({ s: 0 }, { s: total });
  stops.sort((a, b) => a.s - b.s);
  const out: number[] = [];
  let height = z;
  for (const stop of stops) {
    const [x, y] = pointAt(loop, at, (stop.s + start) % total);
    if (stop.z) {
      out.push(x, y, stop.z[0], x, y, stop.z[1]);
      height = stop.z[1];
    } else out.push(x, y, height);
  }
  return out;
}

function pointAt(loop: Float64Array, at: Float64Array, s: number): [number, number] {
  const n = loop.length / 2;
  let lo = 0;
  let hi = n;
  while (hi - lo > 1) {
    const mid = (lo + hi) >> 1;
    if (at[mid] <= s) lo = mid;
    else hi = mid;
  }
  const k = ((lo + 1) % n) * 2;
  const length = at[lo + 1] - at[lo];
  const t = length > 0 ? (s - at[lo]) / length : 0;
  return [loop[2 * lo] + t * (loop[k] - loop[2 * lo]), loop[2 * lo + 1] + t * (loop[k + 1] - loop[2 * lo + 1])];
}
