import type { Coordinates, MachineLink } from '../link/machine-link.ts';
import type { BitShape, Zero } from './commands.ts';

/** The tip goes this far under the plate's top to find its sides, mm. */
const UNDER_TOP = 6;
/** Room kept over the plate while moving across, mm. */
const OVER_PLATE = 8;

/** Offset of the work coordinate system: machine coordinates of the job's zero. A missing one is left as it was. */
export type WorkOffset = Partial<Coordinates>;

/** Radius of a bit where a plate's upper edge meets it, with the tip `depth` under that edge, mm. */
export function touchRadius({ diameter, angle, tip }: BitShape, depth: number): number {
  if (angle === undefined) return diameter / 2;
  return Math.min(diameter / 2, tip / 2 + depth * Math.tan((angle * Math.PI) / 360));
}

/**
 * Finds zero with the touch plate. The bit hangs over the plate with the spindle stopped; it goes down to the plate's
 * top, and for a corner out, down and in again to two sides. Every touch is made twice, quickly and then slowly.
 */
export async function touchOff(link: MachineLink, order: Zero, say: (doing: string) => void): Promise<WorkOffset> {
  const { plate, bit, method } = order;
  say('Feeling for the top of the plate');
  const top = await twice(link, 'Z', -1, 40);
  await link.run(`G91 G1 Z${OVER_PLATE} F1500`, 'G90');
  const offset: WorkOffset = { z: top.z - plate.thickness + order.rise };
  if (method !== 'corner') return offset;
  const { machine: start } = await link.fresh();
  for (const axis of ['X', 'Y'] as const) {
    say(`Feeling for the ${axis} side of the plate`);
    const low = axis === 'X' ? order.corner.endsWith('left') : order.corner.startsWith('lower');
    const inward = low ? 1 : -1;
    const key = axis === 'X' ? 'x' : 'y';
    const out = plate.size + touchRadius(bit, UNDER_TOP) + 4;
    await link.run(`G91 G1 ${axis}${-inward * out} F2500`, `G1 Z${-(OVER_PLATE + UNDER_TOP)} F800`, 'G90');
    const touch = await twice(link, axis, inward, out + 10);
    const r = touchRadius(bit, UNDER_TOP);
    offset[key] = touch[key] + inward * (r + plate.side) + order.toZero[key];
    await link.run(`G91 G1 ${axis}${-inward * 2} F800`, `G1 Z${OVER_PLATE + UNDER_TOP} F1500`, 'G90');
    await link.run(`G53 G1 X${start.x} Y${start.y} F2500`);
  }
  return offset;
}

/** A quick touch, a step back, and a slow one that counts. */
export async function twice(
  link: MachineLink,
  axis: 'X' | 'Y' | 'Z',
  sign: 1 | -1,
  reach: number,
): Promise<Coordinates> {
  await link.run('G91 G21 G94');
  await link.probeMove(`G38.2 ${axis}${sign * reach} F${axis === 'Z' ? 400 : 600}`);
  await link.run(`G1 ${axis}${-sign * 1.5} F600`);
  const touch = await link.probeMove(`G38.2 ${axis}${sign * 3} F40`);
  await link.run('G90');
  return touch;
}

/** Drives to the tool setter, up first, and returns the height at which the bit touches it, machine coordinates. */
export async function measureBit(link: MachineLink, setter: { x: number; y: number }): Promise<number> {
  await link.run('M5', 'G21 G90 G94', 'G53 G0 Z0', `G53 G0 X${setter.x} Y${setter.y}`);
  const { z } = await twice(link, 'Z', -1, 120);
  await link.run('G53 G0 Z0');
  return z;
}
