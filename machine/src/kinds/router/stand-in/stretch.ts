import type { Point } from '../../../stand-in/axes.ts';
import type { MadeMoves } from './made-moves.ts';
import { Marks } from './marks.ts';
import { SPOILBOARD_TOP, type Table } from './table.ts';
import type { FittedBit } from './workpiece.ts';

/** Places at which a probe and a bit are looked at along a stretch, mm apart: finer than any contact is judged by. */
const PROBE_EVERY = 0.002;
const LOOK_EVERY = 0.5;

/** A straight stretch of a bit's tip, and how it is gone. */
export interface Stretch {
  from: Point;
  to: Point;
  rapid: boolean;
  /** The spindle turns fast enough to cut. */
  turning: boolean;
  /** Which fitting of a bit it is, and the move it belongs to. */
  fitted: number;
  serial: number;
}

const along = ({ from: a, to: b }: Stretch, t: number): Point => ({
  x: a.x + (b.x - a.x) * t,
  y: a.y + (b.y - a.y) * t,
  z: a.z + (b.z - a.z) * t,
});

const lengthOf = ({ from: a, to: b }: Stretch) => Math.hypot(b.x - a.x, b.y - a.y, b.z - a.z);

/** Where on a stretch a bit first touches the plate or the setter. */
export function touchedOn(stretch: Stretch, bit: FittedBit, table: Table): Point | undefined {
  const steps = Math.max(1, Math.ceil(lengthOf(stretch) / PROBE_EVERY));
  for (let k = 1; k <= steps; k++) {
    const at = along(stretch, k / steps);
    if (table.contact(bit, at)) return at;
  }
  return undefined;
}

/** A stretch of a point that gives: it draws where it is pressed, and breaks where that is too much for its spring. */
function draw(
  stretch: Stretch,
  point: NonNullable<FittedBit['spring']>,
  { piece }: Table,
  made: MadeMoves,
): { at: Point; why: string } | undefined {
  const { from, to, rapid, turning, fitted, serial } = stretch;
  const local = (p: Point) => ({
    x: p.x - (piece?.corner.x ?? 0),
    y: p.y - (piece?.corner.y ?? 0),
    z: p.z - SPOILBOARD_TOP,
  });
  // Beside the stock lies the spoilboard; a broken point draws nothing.
  const surface = (x: number, y: number) => piece?.top(x, y) ?? 0;
  const over = point.broken ? undefined : (piece?.marks ?? new Marks()).draw(point, local(from), local(to), surface);
  const at = over === undefined ? to : along(stretch, over);
  made.add(from, at, rapid, turning, fitted, serial);
  if (over === undefined) return undefined;
  point.broken = true;
  return { at, why: 'the drag point was pressed further than its spring gives, and is broken' };
}

/**
 * Makes a stretch: what the bit meets stops it, and what it cuts is gone.
 * @returns where it was stopped, and why; nothing where it was made whole.
 */
export function make(
  stretch: Stretch,
  bit: FittedBit,
  table: Table,
  made: MadeMoves,
): { at: Point; why: string } | undefined {
  const { from, to, rapid, turning, fitted, serial } = stretch;
  if (bit.spring) return draw(stretch, bit.spring, table, made);
  // A rapid move straight up out of its own groove cuts nothing.
  const up = turning && to.x === from.x && to.y === from.y && to.z >= from.z;
  if ((!turning || rapid) && !up) {
    const steps = Math.max(1, Math.ceil(lengthOf(stretch) / LOOK_EVERY));
    for (let k = 1; k <= steps; k++) {
      const at = along(stretch, k / steps);
      const hit = table.blocked(bit, at);
      if (!hit) continue;
      made.add(from, at, rapid, turning, fitted, serial);
      return {
        at,
        why: `the bit was driven into the ${hit}${turning ? ' in a rapid move' : ' with the spindle standing'}`,
      };
    }
  } else if (table.blocked(bit, to) === 'plate') return { at: to, why: 'the bit was driven into the touch plate' };
  made.add(from, to, rapid, turning, fitted, serial);
  const { piece } = table;
  if (turning && piece) {
    const local = (p: Point) => ({ x: p.x - piece.corner.x, y: p.y - piece.corner.y, z: p.z - SPOILBOARD_TOP });
    piece.cut(bit, local(from), local(to));
  }
  return undefined;
}
