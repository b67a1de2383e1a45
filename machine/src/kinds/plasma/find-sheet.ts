import type { Wire } from '../../link/wire.ts';
import type { From } from '../../runner/commands.ts';
import { CommandRefused } from '../../runner/reasons.ts';
import { clearTicks } from '../../runner/ticks.ts';
import { type Basis, type BitShape, riseOf } from '../../runner/zero.ts';
import type { AtBench } from '../driver.ts';
import { MILLIMETRES, setOffset, word } from '../usual-moves.ts';
import { plasmaFacts } from './facts.ts';
import type { PlasmaState } from './messages.ts';

export type PlasmaWire = Wire<PlasmaState>;

/** Furthest down that the sheet is looked for where nobody knows its height, mm; first quickly, then slowly, mm/min. */
const SEARCH = 100;
const FEELS = { quick: 1000, slow: 200 };
/** How high over the sheet the torch is left, mm. */
const CLEAR = 15;
/** A second place nearer to zero than this says little of how a sheet lies, mm; one turned further is none, radians. */
const EDGE = { least: 50, turned: Math.PI / 18 };

/** Sets X and Y of zero where the pointer's spot is; nothing moves. How the sheet lies is not known any more. */
export async function pointZero(
  wire: PlasmaWire,
  basis: Basis,
  from: From,
  { state, facts }: AtBench<PlasmaState>,
  signal: AbortSignal,
): Promise<void> {
  const { machine } = await wire.fresh(signal);
  const spot = plasmaFacts(facts).pointer!;
  const found = { x: machine.x + spot.x, y: machine.y + spot.y };
  await setOffset(wire, found, signal);
  state.origin = { z: 0, ...state.origin, ...found };
  const xy = { at: now(), by: from.name, method: 'sight' as const, bit: shapeOf(state.bit!), basis };
  state.zero = { ...state.zero, xy };
  clearTicks(state, 'zero');
}

/** How the sheet lies, by a second place on its edge along X under the pointer's spot. @throws {CommandRefused} */
export function pointEdge({ at, stock }: Basis, { state, facts, changed }: AtBench<PlasmaState>): void {
  const spot = plasmaFacts(facts).pointer!;
  const { machine } = state.machine!;
  const corner = (at.x === 0 || at.x === stock.length) && (at.y === 0 || at.y === stock.width);
  if (!corner) throw new CommandRefused('edge-needs-corner');
  const away = at.x === 0 ? 1 : -1;
  const dx = away * (machine.x + spot.x - state.origin!.x);
  const dy = away * (machine.y + spot.y - state.origin!.y);
  if (Math.hypot(dx, dy) < EDGE.least) throw new CommandRefused('edge-too-near');
  const turn = Math.atan2(dy, dx);
  if (Math.abs(turn) > EDGE.turned) throw new CommandRefused('edge-too-far');
  state.zero = { ...state.zero, xy: { ...state.zero!.xy!, turn } };
  state.checked = undefined;
  clearTicks(state, 'zero');
  changed();
}

/** The sheet lies along the axes. */
export function edgeFree({ state, changed }: AtBench<PlasmaState>): void {
  if (state.zero?.xy) state.zero = { ...state.zero, xy: { ...state.zero.xy, turn: undefined } };
  state.checked = undefined;
  changed();
}

/** Feels for the sheet where the torch is, quickly and then slowly, and sets Z of zero by it. */
export async function feelSheet(
  wire: PlasmaWire,
  basis: Basis,
  from: From,
  { state, facts, telling }: AtBench<PlasmaState>,
  signal: AbortSignal,
): Promise<void> {
  const { touch } = plasmaFacts(facts);
  state.zero = { ...state.zero, z: undefined };
  await wire.run(signal, MILLIMETRES, 'G92.1', 'G91');
  telling.probing(true);
  await wire.probeMove(`G38.2 Z${word(-SEARCH)} F${FEELS.quick}`, signal);
  await wire.run(signal, 'G0 Z3');
  const felt = await wire.probeMove(`G38.2 Z-6 F${FEELS.slow}`, signal);
  await wire.run(signal, `G0 Z${word(CLEAR)}`, 'G90');
  telling.probing(false);
  const found = { z: felt.z + touch.offset + riseOf(basis, 'felt') };
  await setOffset(wire, found, signal);
  state.origin = { x: 0, y: 0, ...state.origin, ...found };
  state.zero = {
    ...state.zero,
    z: { at: now(), by: from.name, method: 'felt', bit: shapeOf(state.bit!), basis },
  };
}

/** A nozzle was put in, as someone says. */
export function nozzleIn(bit: BitShape, from: From, { state, happened, changed }: AtBench<PlasmaState>): void {
  if (state.bit) happened('bit');
  state.bit = { ...shapeOf(bit), at: now(), by: from.name };
  state.checked = undefined;
  changed();
}

const now = () => new Date().toISOString();

/** A tool without when and by whom it was put in. */
const shapeOf = ({ id, name, diameter, angle, tip, turns, conducts, spring }: BitShape): BitShape => ({ id, name, diameter, angle, tip, turns, conducts, spring }); // prettier-ignore
