import { lowOverFreed } from '../../command/src/freed-travel.ts';
import { Reader } from '../../machine/src/stand-in/reader.ts';
import type { Drawn } from './drawings.ts';
import { Edges } from './edges.ts';
import { GOUGE } from './finding.ts';
import type { Asked } from './asked.ts';

/** A straight move of the torch, mm, its height over the sheet as it was felt. */
interface Burnt {
  ax: number;
  ay: number;
  az: number;
  bx: number;
  by: number;
  bz: number;
  on: boolean;
  rapid: boolean;
  line: number;
}

/** What the torch does, by the stand-in's reader: the sheet is felt at the height that G92 says. */
function burntBy(text: string): {
  moves: Burnt[];
  pierces: { x: number; y: number; waited: number }[];
  wrong: string[];
} {
  const reader = new Reader();
  reader.at = { x: 0, y: 0, z: 0 };
  const moves: Burnt[] = [];
  const pierces: { x: number; y: number; waited: number }[] = [];
  const wrong: string[] = [];
  let on = false;
  let felt = false;
  let dwelt = 0;
  for (const [index, line] of text.split('\n').entries()) {
    let at = { ...reader.at };
    let base = reader.zero;
    const orders = reader.read(line);
    base = reader.zero;
    for (const order of orders) {
      if (order.order === 'spindle') {
        if (order.turns > 0 && !on) {
          if (!felt) wrong.push(`line ${index + 1} strikes the arc where the sheet was not felt for`);
          pierces.push({ x: at.x - base.x, y: at.y - base.y, waited: 0 });
        }
        on = order.turns > 0;
        felt = false;
      } else if (order.order === 'dwell') {
        dwelt = order.seconds;
        if (on && pierces.length > 0) pierces.at(-1)!.waited = dwelt;
      } else if (order.order === 'probe') {
        if (on) wrong.push(`line ${index + 1} feels for the sheet with the arc on`);
        felt = true;
        at = { ...order.to };
      } else if (order.order === 'go') {
        const [a, b] = [at, order.to];
        moves.push({ ax: a.x - base.x, ay: a.y - base.y, az: a.z - base.z, bx: b.x - base.x, by: b.y - base.y, bz: b.z - base.z, on, rapid: order.feed === 0, line: index + 1 }); // prettier-ignore
        if (on && order.feed === 0) wrong.push(`line ${index + 1} goes over by a rapid move with the arc on`);
        at = { ...order.to };
      }
    }
  }
  if (on) wrong.push('the arc is left on at the end');
  return { moves, pierces, wrong };
}

/** Places along the outlines that are looked at, mm apart. */
const EVERY = 0.7;

/** Drawings are made larger up to this on the simulated sheet, mm, and twice as large at least: its grid sees no web of half a millimetre. */
const SEEN_AT = 700;

/**
 * A kerf beside the lines: once, on the side of the scrap, all along wherever it fits; the square edge on the part; pierced in the
 * scrap after the sheet was felt for and the delay waited; inner before outer; no low travel over what was freed.
 */
export function judgePlasma(text: string, drawn: Drawn, asked: Asked): string[] {
  const { moves: all, pierces, wrong: found } = burntBy(text);
  const shift = text.includes('zero: centre of the page')
    ? { x: drawn.width / 2, y: drawn.height / 2 }
    : { x: 0, y: 0 };
  const moves = all.map((m) => ({ ...m, ax: m.ax + shift.x, ay: m.ay + shift.y, bx: m.bx + shift.x, by: m.by + shift.y })); // prettier-ignore
  const kerf = asked.diameter;
  const burning = moves.filter(({ on }) => on);
  if (burning.length === 0) return [...found, 'burns nothing'];
  if (!text.includes('taken off here')) found.push('the heading does not say who takes the kerf off');
  const edges = new Edges(drawn.loops, kerf + 1);
  const outside = asked.side === 'outside';
  for (const m of burning) {
    const across = Math.hypot(m.bx - m.ax, m.by - m.ay);
    if (across > 1e-6 && Math.abs(m.bz - asked.cutHeight) > 2e-3)
      found.push(`line ${m.line} cuts ${m.bz.toFixed(3)} mm high, ${asked.cutHeight} was asked for`);
    const by = kerf / 2 - edges.fromMove(m.ax, m.ay, m.bx, m.by, kerf / 2);
    if (by > GOUGE) found.push(`line ${m.line} cuts ${by.toFixed(4)} mm beyond the outline`);
    const [mx, my] = [(m.ax + m.bx) / 2, (m.ay + m.by) / 2];
    if (edges.inside(mx, my) === outside) found.push(`line ${m.line} burns in what is to be kept`);
    // Along a wall the part lies on the right.
    const beside = (x: number, y: number) => Math.abs(edges.distance(x, y) - kerf / 2) < 5e-3;
    // Webs of shapes that nearly touch are thinner than a program is written.
    if (drawn.kind !== 'near-touching' && across > 0.4 && beside(mx, my) && beside(m.ax, m.ay) && beside(m.bx, m.by)) {
      const [nx, ny] = [(m.by - m.ay) / across, -(m.bx - m.ax) / across];
      // From where the outline is; on neither side is a web that ends in a point.
      const to = edges.distance(mx, my);
      const kept = (side: number) => [0.001, 0.005, 0.02, 0.1].some((more) => edges.inside(mx + side * nx * (to + more), my + side * ny * (to + more)) === outside); // prettier-ignore
      if (!kept(1) && kept(-1)) found.push(`line ${m.line} has its square edge in the scrap`);
    }
  }
  for (const { x, y, waited } of pierces) {
    const off = edges.distance(x + shift.x, y + shift.y);
    if (off < kerf / 2 - GOUGE) found.push(`pierces ${off.toFixed(3)} mm beside the outline`);
    if (Math.abs(waited - asked.delay) > 1e-3)
      found.push(`waits ${waited} s at a pierce, ${asked.delay} were asked for`);
  }
  const cells = new Map<string, Burnt[]>();
  const size = Math.max(1, kerf);
  for (const m of burning)
    for (
      let i = Math.floor((Math.min(m.ax, m.bx) - kerf) / size);
      i <= Math.floor((Math.max(m.ax, m.bx) + kerf) / size);
      i++
    )
      // prettier-ignore
      for (let j = Math.floor((Math.min(m.ay, m.by) - kerf) / size); j <= Math.floor((Math.max(m.ay, m.by) + kerf) / size); j++) { // prettier-ignore
        const cell = cells.get(`${i} ${j}`);
        if (cell) cell.push(m);
        else cells.set(`${i} ${j}`, [m]);
      }
  for (const loop of drawn.loops) {
    for (let k = 0; k < loop.length; k++) {
      const [ax, ay] = loop[k];
      const [bx, by] = loop[(k + 1) % loop.length];
      const length = Math.hypot(bx - ax, by - ay);
      for (let s = EVERY / 2; s < length; s += EVERY) {
        const t = s / length;
        for (const side of [1, -1]) {
          const [x, y] = [ax + (bx - ax) * t + (side * (by - ay) * kerf) / 2 / length, ay + (by - ay) * t - (side * (bx - ax) * kerf) / 2 / length]; // prettier-ignore
          // Between shapes that touch there is no wall.
          const beyond = -0.01 * side;
          if (edges.inside(ax + (bx - ax) * t + (beyond * (by - ay)) / length, ay + (by - ay) * t - (beyond * (bx - ax)) / length) !== outside) continue; // prettier-ignore
          // The kerf's middle can stand there, in the scrap, so the wall there should have been burnt.
          if (edges.inside(x, y) === outside || edges.distance(x, y) < kerf / 2 - 1e-4) continue;
          const near = cells.get(`${Math.floor(x / size)} ${Math.floor(y / size)}`) ?? [];
          if (!near.some((m) => toSegmentOf(x, y, m) < 0.02))
            return [...new Set(found), `leaves the wall at ${(ax + (bx - ax) * t).toFixed(2)}, ${(ay + (by - ay) * t).toFixed(2)} uncut`].slice(0, 4); // prettier-ignore
        }
      }
    }
  }
  // Drawn so large that webs between kerfs are seen on the simulated sheet's grid.
  const [length, width] = [drawn.width + 40, drawn.height + 40];
  const scale = Math.max(2, Math.min(10, Math.floor(SEEN_AT / Math.max(length, width))));
  const xyz = Float64Array.from([
    scale * moves[0].ax,
    scale * moves[0].ay,
    moves[0].az,
    ...moves.flatMap(({ bx, by, bz }) => [scale * bx, scale * by, bz]),
  ]);
  const power = Float32Array.from([0, ...moves.map(({ on }) => Number(on))]);
  const path = { xyz, power, feed: new Float64Array(power.length), rapid: new Uint8Array(power.length) };
  const low = lowOverFreed({ path, radius: (scale * kerf) / 2 }, { length: scale * length, width: scale * width }, 30);
  if (low > 0) found.push(`travels low over a freed piece ${low} times`);
  return [...new Set(found)].slice(0, 4);
}

function toSegmentOf(x: number, y: number, { ax, ay, bx, by }: Burnt): number {
  const [dx, dy] = [bx - ax, by - ay];
  const l2 = dx * dx + dy * dy;
  const t = l2 > 0 ? Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / l2)) : 0;
  return Math.hypot(x - ax - t * dx, y - ay - t * dy);
}
