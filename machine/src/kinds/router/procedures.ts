import type { BenchFacts } from '../../runner/bench-facts.ts';
import { acrossFrom, type Basis, type BitShape, type Corner, type Method, riseOf } from '../../runner/zero.ts';
import type { Coordinates, Wire } from '../../link/wire.ts';
import type { Telling } from '../driver.ts';
import { MILLIMETRES, wayDown, word, type WorkOffset } from '../usual-moves.ts';
import type { RouterState } from './messages.ts';

export type RouterWire = Wire<RouterState>;

/** The tip goes this far under the plate's top to find its sides, mm. */
const UNDER_TOP = 6;
/** Room kept over the plate while moving across, mm. */
const OVER_PLATE = 8;
/** Where the bit is brought for a change, as shares of the travel: in front, in the middle. */
const CHANGE_PLACE = { x: 0.5, y: 0.1 };
/** Longest way down in search of the plate, and of the tool setter, mm. */
const SEARCH = { plate: 40, setter: 120 };

/** Radius of a bit where a plate's upper edge meets it, with the tip `depth` under that edge, mm. */
export function touchRadius(
  { diameter, angle, tip }: Pick<BitShape, 'diameter' | 'angle' | 'tip'>,
  depth: number,
): number {
  if (angle === undefined) return diameter / 2;
  return Math.min(diameter / 2, tip / 2 + depth * Math.tan((angle * Math.PI) / 360));
}

/**
 * Finds zero with the touch plate. The bit hangs over the plate with the spindle stopped; it goes down to the plate's
 * top, and for a corner out, down and in again to two sides. Every touch is made twice, quickly and then slowly.
 */
export async function touchOff(
  wire: RouterWire,
  { method, corner, basis, bit }: { method: Method; corner: Corner; basis: Basis; bit: BitShape },
  facts: BenchFacts,
  telling: Telling,
  signal: AbortSignal,
): Promise<WorkOffset> {
  const plate = basis.plate!;
  telling.say('Feeling for the top of the plate');
  await wire.run(signal, MILLIMETRES);
  const down = await wayDown(wire, facts, SEARCH.plate, signal);
  const top = await twice(wire, 'Z', -1, down, telling, signal, OVER_PLATE);
  const offset: WorkOffset = { z: top.z - plate.thickness + riseOf(basis, method, corner) };
  if (method !== 'corner') return offset;
  const { machine: start } = await wire.fresh(signal);
  const across = acrossFrom(basis, corner);
  const r = touchRadius(bit, UNDER_TOP);
  const out = plate.size + r + 4;
  for (const axis of ['X', 'Y'] as const) {
    telling.say(`Feeling for the ${axis} side of the plate`);
    const inward = (axis === 'X' ? corner.endsWith('left') : corner.startsWith('lower')) ? 1 : -1;
    const key = axis === 'X' ? 'x' : 'y';
    await wire.run(
      signal,
      `G91 G1 ${axis}${word(-inward * out)} F2500`,
      `G1 Z${word(-(OVER_PLATE + UNDER_TOP))} F800`,
      'G90',
    );
    const touch = await twice(wire, axis, inward, out + 10, telling, signal, 2);
    offset[key] = touch[key] + inward * (r + plate.side) + across[key];
    await wire.run(
      signal,
      `G91 G1 Z${word(OVER_PLATE + UNDER_TOP)} F1500`,
      'G90',
      `G53 G1 X${word(start.x)} Y${word(start.y)} F2500`,
    );
  }
  return offset;
}

/** Drives to the tool setter, up first, and returns the height at which the bit touches it, machine coordinates. */
export async function measureBit(
  wire: RouterWire,
  setter: { x: number; y: number },
  facts: BenchFacts,
  telling: Telling,
  signal: AbortSignal,
): Promise<number> {
  await wire.run(signal, 'M5', MILLIMETRES, 'G53 G0 Z0', `G53 G0 X${word(setter.x)} Y${word(setter.y)}`);
  await standing(wire, signal);
  const down = await wayDown(wire, facts, SEARCH.setter, signal);
  const { z } = await twice(wire, 'Z', -1, down, telling, signal, 2);
  await wire.run(signal, 'G53 G0 Z0');
  return z;
}

/** Brings the bit up and to the front, where hands reach it, with the spindle off and standing. */
export async function toChangePlace(wire: RouterWire, { travel }: BenchFacts, signal: AbortSignal): Promise<void> {
  const { x, y } = { x: travel.x * CHANGE_PLACE.x, y: travel.y * CHANGE_PLACE.y };
  await wire.run(signal, 'M5', MILLIMETRES, 'G53 G0 Z0', `G53 G0 X${word(x)} Y${word(y)}`);
  await standing(wire, signal);
}

/** Up and out of the work with the spindle as it turns; only when it is clear, the spindle goes off. */
export async function liftOut(wire: RouterWire, signal: AbortSignal): Promise<void> {
  await wire.run(signal, MILLIMETRES, 'G53 G0 Z0', 'M5');
  await standing(wire, signal);
}

/** The spindle goes off where the bit is. */
export async function spindleOff(wire: RouterWire, signal: AbortSignal): Promise<void> {
  await wire.run(signal, 'M5');
}

/** Where a run is taken up: work coordinates, mm. */
export interface Entry {
  at: Coordinates;
  /** Turns a minute; 0 where the operator has switched the spindle on. */
  spindle: number;
  plunge: number;
  /** Height over everything on the work, mm from zero. */
  approach: number;
}

/** Up, spindle, across, and down at plunge feed to where a run is taken up. */
export async function enterAt(
  wire: RouterWire,
  { at, spindle, plunge, approach }: Entry,
  signal: AbortSignal,
): Promise<void> {
  await wire.run(signal, MILLIMETRES, 'G53 G0 Z0');
  if (spindle > 0) await wire.run(signal, `S${word(spindle)} M3`, `G4 P${SPINDLE_SECONDS}`);
  await wire.run(
    signal,
    `G0 X${word(at.x)} Y${word(at.y)}`,
    `G0 Z${word(Math.max(approach, at.z))}`,
    `G1 Z${word(at.z)} F${word(plunge)}`,
  );
}

const SPINDLE_SECONDS = 4;

async function standing(wire: RouterWire, signal: AbortSignal): Promise<void> {
  await wire.fresh(signal);
  await wire.until(() => wire.state!.spindle === 0, signal);
}

/** A quick touch, a step back, and a slow one that counts; then away from it by `away`, mm. */
async function twice(
  wire: RouterWire,
  axis: 'X' | 'Y' | 'Z',
  sign: 1 | -1,
  reach: number,
  telling: Telling,
  signal: AbortSignal,
  away: number,
): Promise<Coordinates> {
  telling.probing(true);
  await wire.run(signal, 'G91');
  await wire.probeMove(`G38.2 ${axis}${word(sign * reach)} F${axis === 'Z' ? 400 : 600}`, signal);
  await wire.run(signal, `G1 ${axis}${word(-sign * 1.5)} F600`);
  const touch = await wire.probeMove(`G38.2 ${axis}${word(sign * 3)} F40`, signal);
  await wire.run(signal, `G1 ${axis}${word(-sign * away)} F800`, 'G90');
  telling.probing(false);
  return touch;
}
