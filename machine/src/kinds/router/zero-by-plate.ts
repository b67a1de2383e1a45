import type { Coordinates } from '../../link/wire.ts';
import type { From } from '../../runner/commands.ts';
import { clearTicks } from '../../runner/ticks.ts';
import {
  acrossFrom,
  type Basis,
  type BitShape,
  type Corner,
  type HandMethod,
  type Method,
  riseOf,
  shapeOf,
} from '../../runner/zero.ts';
import type { AtBench, ToolChange } from '../driver.ts';
import { farFromOwn, SAME_LENGTH } from './bit-lengths.ts';
import { routerFacts } from './facts.ts';
import type { RouterState } from './messages.ts';
import { setOffset, type WorkOffset } from '../usual-moves.ts';
import { measureBit, type RouterWire, touchOff } from './procedures.ts';

/** Finds zero with the touch plate; while it is being found it is not known. */
export async function findZero(
  wire: RouterWire,
  { method, corner, basis }: { method: Method; corner: Corner; basis: Basis },
  from: From,
  { state, facts, telling }: AtBench<RouterState>,
  signal: AbortSignal,
): Promise<void> {
  const bit = shapeOf(state.bit!);
  const xy = method === 'corner' ? undefined : state.zero?.xy;
  state.zero = { xy };
  clearTicks(state, 'zero');
  const found = await touchOff(wire, { method, corner, basis, bit }, facts, telling, signal);
  await setOffset(wire, found, signal);
  const part = { at: now(), by: from.name, method, corner, bit, basis };
  state.origin = { x: 0, y: 0, z: 0, ...state.origin, ...found } as Coordinates;
  state.zero = { xy: method === 'corner' ? part : xy, z: { ...part } };
  // The clip was on: its circuit is tried anew before it is trusted again.
  state.circuit = undefined;
}

/**
 * Sets zero where the tool stands, as whoever stands there has found it: nothing moves. A height by a slip of paper, by
 * eye or with a gauge under the tip; a place over the mark by sight, or by the corner stop.
 */
export async function zeroHere(
  wire: RouterWire,
  { method, over, basis }: { method: HandMethod; over: number; basis: Basis },
  from: From,
  { state, facts }: AtBench<RouterState>,
  signal: AbortSignal,
): Promise<void> {
  const { machine } = await wire.fresh(signal);
  const found: WorkOffset = {};
  if (method === 'sight') Object.assign(found, { x: machine.x, y: machine.y });
  else if (method === 'stop') {
    const stop = routerFacts(facts).stop!;
    const across = acrossFrom(basis, 'lower-left');
    Object.assign(found, { x: stop.x + across.x, y: stop.y + across.y });
  } else found.z = machine.z - over + riseOf(basis, method);
  await setOffset(wire, found, signal);
  const part = { at: now(), by: from.name, method, over, bit: shapeOf(state.bit!), basis };
  state.origin = { x: 0, y: 0, z: 0, ...state.origin, ...found } as Coordinates;
  state.zero = found.z === undefined ? { ...state.zero, xy: part } : { ...state.zero, z: { ...part } };
}

/** Moves zero up or down by hand. */
export async function nudgeZero(
  wire: RouterWire,
  by: number,
  { state }: AtBench<RouterState>,
  signal: AbortSignal,
): Promise<void> {
  const z = state.origin!.z + by;
  await setOffset(wire, { z }, signal);
  state.origin = { ...state.origin!, z };
  const part = state.zero!.z!;
  state.zero = { ...state.zero, z: { ...part, nudged: (part.nudged ?? 0) + by } };
}

/** A bit was put in, as someone says. */
export function bitIn(bit: BitShape, from: From, { state, happened, changed }: AtBench<RouterState>): void {
  if (state.bit) happened('bit');
  state.bit = { ...shapeOf(bit), at: now(), by: from.name };
  state.checked = undefined;
  changed();
}

/** Measures the bit that is in, and brings the zero along where its height is known by an earlier reading. */
export async function measureIt(wire: RouterWire, at: AtBench<RouterState>, signal: AbortSignal): Promise<void> {
  const { state, lengths } = at;
  const bit = shapeOf(state.bit!);
  const reading = await measureBit(wire, routerFacts(at.facts).setter!, at.facts, at.telling, signal);
  const z = state.zero?.z;
  const own = lengths.of(bit);
  lengths.add(bit, reading);
  if (!z) return;
  if (z.void && z.void !== 'bit' && z.void !== 'emergency-at-rest') return;
  if (z.reading === undefined) {
    if (!z.void) z.reading = reading;
    else state.problem = 'This bit is measured now, but the one that zero was set with was not; set zero in Z again.';
    return;
  }
  const off = reading - z.reading;
  if (!z.void && Math.abs(off) > SAME_LENGTH) {
    at.happened('bit');
    state.problem = `This bit sticks out ${Math.abs(off).toFixed(2)} mm ${off > 0 ? 'further' : 'less'} than when zero was set; see whether it has slipped. Measure again to go by the new length.`;
    return;
  }
  await bringAlong(wire, off, bit, reading, at, signal);
  const far = farFromOwn(reading, own);
  if (far !== undefined)
    state.problem = `${bit.name} was never measured like this; it is ${far.toFixed(1)} mm off its last lengths. See that it is the right one.`;
}

/** Brings Z along with another bit's length. */
export async function bringAlong(
  wire: RouterWire,
  by: number,
  bit: BitShape,
  reading: number,
  { state, changed }: Pick<ToolChange<RouterState>, 'state' | 'changed'>,
  signal: AbortSignal,
): Promise<void> {
  const z = state.origin!.z + by;
  await setOffset(wire, { z }, signal);
  state.origin = { ...state.origin!, z };
  state.zero = { ...state.zero, z: { ...state.zero!.z!, void: undefined, bit: shapeOf(bit), reading } };
  changed();
}

const now = () => new Date().toISOString();
