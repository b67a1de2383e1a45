import { Reader } from '../../machine/src/stand-in/reader.ts';

/** A straight move of a beam, mm as drawn. */
export interface Burn {
  ax: number;
  ay: number;
  bx: number;
  by: number;
  /** Per cent of the full power; 0 where it is off. */
  power: number;
  /** mm/min; 0 is a rapid. */
  feed: number;
  air: boolean;
  line: number;
}

/** What full power is on the bench that the command takes. */
const FULL = 1000;

/** What a beam does by the stand-in's reader, and what is wrong whatever was asked for. */
export function burnsOf(text: string, shift: { x: number; y: number }): { moves: Burn[]; wrong: string[] } {
  const reader = new Reader();
  reader.at = { x: 0, y: 0, z: 0 };
  const moves: Burn[] = [];
  const wrong: string[] = [];
  let [on, power, air, ended] = [false, 0, false, false];
  for (const [index, line] of text.split('\n').entries()) {
    let { x, y } = reader.at;
    for (const order of reader.read(line)) {
      if (order.order === 'spindle') [on, power] = [order.on, (100 * order.turns) / FULL];
      else if (order.order === 'speed') power = (100 * order.turns) / FULL;
      else if (order.order === 'relay') air = order.on;
      else if (order.order === 'end') ended = !on;
      else if (order.order === 'dwell' && on && power > 0) wrong.push(`line ${index + 1} waits with the beam on`);
      else if (order.order === 'go') {
        const { to, feed } = order;
        if (Math.abs(to.z) > 1e-9) wrong.push(`line ${index + 1} moves Z`);
        if (feed === 0 && on && power > 0) wrong.push(`line ${index + 1} is a rapid move with the beam on`);
        moves.push({ ax: x + shift.x, ay: y + shift.y, bx: to.x + shift.x, by: to.y + shift.y, power: on && feed > 0 ? power : 0, feed, air, line: index + 1 }); // prettier-ignore
        ({ x, y } = to);
      }
    }
  }
  if (!ended) wrong.push('the beam is not off at the end');
  return { moves, wrong };
}
