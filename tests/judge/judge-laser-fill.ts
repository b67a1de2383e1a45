import type { Asked } from './asked.ts';
import type { Burn } from './burns.ts';
import type { Drawn } from './drawings.ts';
import { Edges } from './edges.ts';
import { GOUGE } from './finding.ts';

/** Acceleration of the bench that the command takes, both axes, mm/s², and its fastest way, mm/min. */
const BENCH = { acceleration: 2500, speed: 30_000 };

/** Two places of a program in inches are each off by half of a ten-thousandth at most, both ways, mm. */
const ROUNDED = 4e-3;

/**
 * Lines at their angle, so many a millimetre, the whole area over; each run up to and out of at its feed with the beam off;
 * nothing burnt half a spot beyond the outline, and nothing left out that a line can reach.
 */
export function judgeLaserFill(moves: readonly Burn[], drawn: Drawn, asked: Asked): string[] {
  const { diameter: spot, step, angle } = asked;
  const [c, s] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)];
  const found: string[] = [];
  const edges = new Edges(drawn.loops, spot + 1);
  const speed = Math.min(asked.feed, BENCH.speed) / 60;
  // The fuller the slope, the more both axes give together.
  const room = (speed * speed * Math.max(Math.abs(c), Math.abs(s))) / (2 * BENCH.acceleration);
  /** Rows by their number: where they are burnt, along the angle. */
  const rows = new Map<number, [number, number][]>();
  let first: number | undefined;
  const way = (m: Burn) => (m.bx - m.ax) * c + (m.by - m.ay) * s;
  for (const m of moves) {
    if (m.power === 0) continue;
    const along = way(m);
    const across = Math.abs((m.by - m.ay) * c - (m.bx - m.ax) * s);
    if (across > ROUNDED) found.push(`line ${m.line} does not lie at ${angle}°`);
    if (asked.oneWay && along < 0) found.push(`line ${m.line} is gone back along`);
    // Told so much earlier, it burns so much further on.
    const later = Math.sign(along) * speed * (asked.earlier / 1000);
    const [ax, ay, bx, by] = [m.ax + later * c, m.ay + later * s, m.bx + later * c, m.by + later * s];
    const beyond = spot / 2 - edges.fromMove(ax, ay, bx, by, spot / 2);
    if (beyond > GOUGE) found.push(`line ${m.line} burns ${beyond.toFixed(4)} mm beyond the outline`);
    if (!edges.inside((ax + bx) / 2, (ay + by) / 2)) found.push(`line ${m.line} burns outside the outlines`);
    const v = (ay + by) / 2 * c - (ax + bx) / 2 * s; // prettier-ignore
    first ??= v;
    const row = Math.round((v - first) / step);
    if (Math.abs(v - first - row * step) > ROUNDED) found.push(`line ${m.line} lies ${(v - first).toFixed(4)} mm from another, no whole number of steps`); // prettier-ignore
    const ends: [number, number] = [ax * c + ay * s, bx * c + by * s];
    rows.set(row, [...(rows.get(row) ?? []), [Math.min(...ends), Math.max(...ends)]]);
  }
  found.push(...runs(moves, asked.feed, room, way));
  return [...found, ...leftOut(rows, first ?? 0, drawn, asked, edges, [c, s])];
}

/** Between a rapid and the first or last burnt move of a line there is room to come to its feed, which it keeps. */
function runs(moves: readonly Burn[], feed: number, room: number, way: (m: Burn) => number): string[] {
  for (let k = 0; k < moves.length;) {
    if (moves[k].feed === 0) {
      k++;
      continue;
    }
    let end = k;
    while (end < moves.length && moves[end].feed > 0) end++;
    const run = moves.slice(k, end);
    const burnt = run.flatMap(({ power }, i) => (power > 0 ? [i] : []));
    if (burnt.length > 0) {
      const before = run.slice(0, burnt[0]).reduce((sum, m) => sum + Math.abs(way(m)), 0);
      const after = run.slice(burnt.at(-1)! + 1).reduce((sum, m) => sum + Math.abs(way(m)), 0);
      const least = Math.min(before, after);
      if (least < room - 0.003) return [`line ${run[0].line} has ${least.toFixed(3)} mm beside it, and ${room.toFixed(3)} are needed`]; // prettier-ignore
      const uneven = run.find((m) => Math.abs(m.feed - feed) > 0.26);
      if (uneven) return [`line ${uneven.line} feeds ${uneven.feed} mm/min in a line that is burnt at ${feed}`];
      const turned = run.some((m) => way(m) * way(run[0]) < 0);
      if (turned) return [`line ${run[0].line} turns back with no rapid between`];
    }
    k = end;
  }
  return [];
}

/** The first place that a line could have burnt, and none did. */
function leftOut(
  rows: Map<number, [number, number][]>,
  first: number,
  drawn: Drawn,
  { diameter: spot, step }: Asked,
  edges: Edges,
  [c, s]: [number, number],
): string[] {
  const all = drawn.loops.flat();
  const turned = all.map(([x, y]) => [x * c + y * s, y * c - x * s]);
  const [u0, u1] = [Math.min(...turned.map(([u]) => u)), Math.max(...turned.map(([u]) => u))];
  const [v0, v1] = [Math.min(...turned.map(([, v]) => v)), Math.max(...turned.map(([, v]) => v))];
  const [from, to] = [Math.ceil((v0 - first) / step), Math.floor((v1 - first) / step)];
  const pitch = Math.max(spot / 2, ((u1 - u0) * Math.max(1, to - from)) / 20_000, 0.02);
  for (let row = from; row <= to; row++) {
    const v = first + row * step;
    const burnt = rows.get(row) ?? [];
    for (let u = u0 + pitch / 3; u < u1; u += pitch) {
      const [x, y] = [u * c - v * s, u * s + v * c];
      if (!edges.inside(x, y) || edges.distance(x, y) < spot / 2 + GOUGE) continue;
      if (!burnt.some(([a, b]) => u > a - GOUGE && u < b + GOUGE)) return [`leaves ${x.toFixed(3)}, ${y.toFixed(3)} unburnt`]; // prettier-ignore
    }
  }
  return [];
}
