import type { Drawn } from './drawings.ts';
import type { Move } from './moves.ts';
import type { Asked } from './asked.ts';

/** Nothing outside is cut by more than this, mm. */
export const GOUGE = 0.01;

/** A finding at a move. */
export const say = (move: Move, what: string) => `line ${move.line}: ${what}`;

/** Radius of the bit with a number: the cut's own is the first. */
export const radiusOf = ({ diameter, clear }: Asked, bit: number) => (bit === 1 ? diameter : clear[bit - 2]) / 2;

/** Moves on the page: a program whose zero is its middle is moved back. */
export function placed(moves: Move[], { options }: Asked, { width, height }: Drawn): Move[] {
  if (!options.includes('--zero centre')) return moves;
  const [dx, dy] = [width / 2, height / 2];
  return moves.map((m) => ({ ...m, ax: m.ax + dx, ay: m.ay + dy, bx: m.bx + dx, by: m.by + dy }));
}
