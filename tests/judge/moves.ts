import { Reader } from '../../machine/src/stand-in/reader.ts';

/** A straight move of a program in the drawing's own mm (y up, z up from the stock's top), arcs as chords of 1 µm. */
export interface Move {
  ax: number;
  ay: number;
  az: number;
  bx: number;
  by: number;
  bz: number;
  /** mm a minute; 0 is a rapid. */
  feed: number;
  /** The number of the bit in the spindle. */
  bit: number;
  line: number;
}

/**
 * The moves of a program as the stand-in's reader understands it, which shares no code with the engine's writer.
 * @param still whether the tool must not turn.
 * @throws where that reader refuses a block, the spindle stands while a bit is fed below the top, or it turns though the
 *   tool must not.
 */
export function movesOf(text: string, still = false): Move[] {
  const reader = new Reader();
  reader.at = { x: 0, y: 0, z: 1000 };
  const moves: Move[] = [];
  let bit = 0;
  let turns = 0;
  for (const [index, line] of text.split('\n').entries()) {
    let { x, y, z } = reader.at;
    for (const order of reader.read(line)) {
      if (order.order === 'change') {
        bit = order.bit;
        turns = 0;
      } else if (order.order === 'spindle') turns = order.turns;
      else if (order.order === 'go') {
        if (still && turns > 0) throw new Error(`line ${index + 1} moves with the spindle on`);
        if (!still && order.feed > 0 && order.to.z < 0 && turns === 0)
          throw new Error(`line ${index + 1} cuts with no spindle`);
        moves.push({
          ax: x,
          ay: y,
          az: z,
          bx: order.to.x,
          by: order.to.y,
          bz: order.to.z,
          feed: order.feed,
          bit,
          line: index + 1,
        });
        ({ x, y, z } = order.to);
      }
    }
  }
  return moves;
}
