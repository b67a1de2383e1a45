import type { Asked } from './asked.ts';
import { type Burn, burnsOf } from './burns.ts';
import type { Drawn } from './drawings.ts';
import { Edges, toSegment } from './edges.ts';
import { GOUGE } from './finding.ts';
import { judgeLaserFill } from './judge-laser-fill.ts';

/** Places along the lines that are looked at, mm apart. */
const EVERY = 0.6;

/**
 * A beam: off wherever nothing is burnt, at its power, feed and air wherever something is; kerfs once beside the lines as often
 * as there are passes, what lies inside first; scores on the lines and nowhere else; areas by lines.
 */
export function judgeLaser(text: string, drawn: Drawn, asked: Asked): string[] {
  const centre = text.includes('zero: centre of the page');
  const { moves, wrong: found } = burnsOf(text, centre ? { x: drawn.width / 2, y: drawn.height / 2 } : { x: 0, y: 0 });
  const burning = moves.filter(({ power }) => power > 0);
  if (burning.length === 0) return [...found, 'burns nothing'];
  const air = asked.kind === 'laser-fill' ? asked.options.includes('--air') : !asked.options.includes('--no-air');
  for (const { power, feed, line, air: blown } of burning) {
    if (Math.abs(power - asked.power) > 0.051) found.push(`line ${line} burns at ${power} %, ${asked.power} was asked for`); // prettier-ignore
    if (Math.abs(feed - asked.feed) > 0.26) found.push(`line ${line} feeds ${feed} mm/min, ${asked.feed} was asked for`); // prettier-ignore
    if (blown !== air) found.push(`line ${line} burns with the air ${blown ? 'on' : 'off'}`);
  }
  const says = new RegExp(`: beam:[\\d.]+, ${asked.power} % power, `);
  if (!says.test(text)) found.push('the heading says another power');
  if (asked.kind === 'laser-fill') found.push(...judgeLaserFill(moves, drawn, asked));
  else if (asked.kind === 'laser-score') found.push(...judgeScored(burning, drawn, asked));
  else found.push(...judgeKerfs(burning, drawn, asked));
  return [...new Set(found)].slice(0, 4);
}

/** Burnt moves, found by place. */
class Followed {
  private readonly cells = new Map<string, Burn[]>();

  constructor(moves: readonly Burn[]) {
    for (const m of moves) {
      const [i0, i1] = [Math.min(m.ax, m.bx), Math.max(m.ax, m.bx)].map(Math.floor);
      const [j0, j1] = [Math.min(m.ay, m.by), Math.max(m.ay, m.by)].map(Math.floor);
      for (let i = i0 - 1; i <= i1 + 1; i++)
        for (let j = j0 - 1; j <= j1 + 1; j++) {
          const list = this.cells.get(`${i} ${j}`);
          if (list) list.push(m);
          else this.cells.set(`${i} ${j}`, [m]);
        }
    }
  }

  /** Times that a place is gone past: moves on end that come near it are one time, unless one turns back. */
  times(x: number, y: number, within: number): number {
    let count = 0;
    let last: Burn | undefined;
    for (const m of this.cells.get(`${Math.floor(x)} ${Math.floor(y)}`) ?? []) {
      if (toSegment(x, y, m.ax, m.ay, m.bx, m.by) > within) continue;
      const goesOn = last?.bx === m.ax && last.by === m.ay && (last.bx - last.ax) * (m.bx - m.ax) + (last.by - last.ay) * (m.by - m.ay) > 0; // prettier-ignore
      if (!goesOn) count++;
      last = m;
    }
    return count;
  }
}

/** Room beyond a kerf that is told from none, mm. */
const HAIR = 0.002;

/** The middles of pieces of the drawn lines, with the way along them. */
function* places({ loops, open }: Drawn): Generator<{ x: number; y: number; ux: number; uy: number }> {
  for (const loop of loops)
    for (let k = 0; k < loop.length - (open ? 1 : 0); k++) {
      const [[ax, ay], [bx, by]] = [loop[k], loop[(k + 1) % loop.length]];
      const length = Math.hypot(bx - ax, by - ay);
      const pieces = Math.max(1, Math.ceil(length / EVERY));
      for (let p = 0; p < pieces && length > 0; p++) {
        const t = (p + 0.5) / pieces;
        yield { x: ax + t * (bx - ax), y: ay + t * (by - ay), ux: (bx - ax) / length, uy: (by - ay) / length };
      }
    }
}

/** How far burnt moves lie from the lines at most, beyond what is allowed. */
function besideLines(burning: readonly Burn[], drawn: Drawn, allowed: number): string[] {
  const lines = drawn.loops.map((loop) => new Edges([loop], 2));
  const closing = new Edges(drawn.open ? drawn.loops.map((loop) => [loop[0], loop.at(-1)!]) : [], 2);
  const found: string[] = [];
  for (const { ax, ay, bx, by, line } of burning)
    for (const t of [0.02, 0.5, 0.98]) {
      const [x, y] = [ax + t * (bx - ax), ay + t * (by - ay)];
      const off = Math.min(...lines.map((edges) => edges.distance(x, y)));
      if (off > allowed + GOUGE) found.push(`line ${line} burns ${off.toFixed(4)} mm beside the lines`);
      else if (drawn.open && Math.hypot(bx - ax, by - ay) > allowed + 0.1 && onlyClosing(closing, drawn, x, y))
        found.push(`line ${line} closes a line that is open`);
    }
  return found;
}

/** Whether a place lies on what would close an open line, and on none that was drawn. */
function onlyClosing(closing: Edges, { loops }: Drawn, x: number, y: number): boolean {
  if (closing.distance(x, y) > 1e-3) return false;
  return !loops.some((loop) =>
    loop.some((p, k) => k > 0 && toSegment(x, y, loop[k - 1][0], loop[k - 1][1], p[0], p[1]) < 0.02),
  );
}

function judgeScored(burning: readonly Burn[], drawn: Drawn, asked: Asked): string[] {
  const found = besideLines(burning, drawn, asked.join);
  const followed = new Followed(burning);
  for (const { x, y } of places(drawn)) {
    const times = followed.times(x, y, GOUGE);
    if (times < asked.passes) return [...found, `burnt ${times} times at ${x.toFixed(3)}, ${y.toFixed(3)}, ${asked.passes} were asked for`]; // prettier-ignore
  }
  return found;
}

function judgeKerfs(burning: readonly Burn[], drawn: Drawn, asked: Asked): string[] {
  const { side, kerf, passes } = asked;
  const followed = new Followed(burning);
  if (side === 'on' || drawn.open) {
    const found = besideLines(burning, drawn, 0);
    // What two shapes share is no outline of either.
    const edges = new Edges(drawn.loops, 1);
    for (const { x, y } of places(drawn)) {
      if (!drawn.open && edges.distance(x, y) > 1e-6) continue;
      const times = followed.times(x, y, GOUGE);
      if (times < passes) return [...found, `cut ${times} times at ${x.toFixed(3)}, ${y.toFixed(3)}, ${passes} were asked for`]; // prettier-ignore
    }
    return found;
  }
  const found: string[] = [];
  const edges = new Edges(drawn.loops, kerf + 1);
  const outside = side === 'outside';
  for (const { ax, ay, bx, by, line } of burning) {
    const into = kerf / 2 - edges.fromMove(ax, ay, bx, by, kerf / 2);
    if (into > GOUGE) found.push(`line ${line} cuts ${into.toFixed(4)} mm beyond the outline`);
    const [x, y] = [(ax + bx) / 2, (ay + by) / 2];
    const off = edges.distance(x, y);
    if (off > GOUGE && edges.inside(x, y) === outside) found.push(`line ${line} burns in what is to be kept`);
    if (off > kerf / 2 + GOUGE) found.push(`line ${line} cuts ${(off - kerf / 2).toFixed(4)} mm off the outline`);
  }
  for (const { x, y, ux, uy } of places(drawn))
    for (const way of [1, -1]) {
      const [nx, ny] = [way * uy, -way * ux];
      // Behind it must be what is kept, and before it room for the kerf.
      if (edges.inside(x - 0.01 * nx, y - 0.01 * ny) !== outside || edges.inside(x + 0.01 * nx, y + 0.01 * ny) === outside) continue; // prettier-ignore
      const [px, py] = [x + (nx * kerf) / 2, y + (ny * kerf) / 2];
      if (kerf > 0.02 && (edges.inside(px, py) === outside || edges.distance(px, py) < kerf / 2 - 1e-4)) continue;
      // Where two walls stand a kerf apart to a hair, what there is of a line ends a little sooner or later.
      const [rx, ry] = [px + nx * HAIR, py + ny * HAIR];
      if (edges.distance(rx, ry) < kerf / 2 + HAIR / 2) continue;
      const times = followed.times(px, py, 0.02);
      if (times < passes) return [...found, `cut ${times} times at ${x.toFixed(3)}, ${y.toFixed(3)}, ${passes} were asked for`]; // prettier-ignore
    }
  return [...found, ...cutInFree(burning, kerf)];
}

/** Burns inside what an earlier ring of burns has cut free. */
function cutInFree(burning: readonly Burn[], kerf: number): string[] {
  const runs: Burn[][] = [];
  for (const m of burning) {
    const last = runs.at(-1)?.at(-1);
    if (last && last.bx === m.ax && last.by === m.ay) runs.at(-1)!.push(m);
    else runs.push([m]);
  }
  const rings: Edges[] = [];
  for (const run of runs) {
    const { bx, by, line } = run[Math.floor(run.length / 2)];
    if (rings.some((ring) => ring.inside(bx, by) && ring.distance(bx, by) > kerf / 2 + 0.05))
      return [`line ${line} cuts in a piece that is free already`];
    const first = run[0];
    const back = run.findIndex((m, k) => k > 1 && m.bx === first.ax && m.by === first.ay);
    if (back > 1) rings.push(new Edges([run.slice(0, back + 1).map((m) => [m.ax, m.ay])], 2));
  }
  return [];
}
