import type { Wire } from '../../link/wire.ts';
import type { From } from '../../runner/commands.ts';
import { type Basis, riseOf, shapeOf } from '../../runner/zero.ts';
import type { AtBench } from '../driver.ts';
import { MILLIMETRES, setOffset, wayDown, word } from '../usual-moves.ts';
import { plasmaFacts } from './facts.ts';
import type { PlasmaState } from './messages.ts';

export type PlasmaWire = Wire<PlasmaState>;

/** Furthest down that the sheet is looked for where nobody knows its height, mm; first quickly, then slowly, mm/min. */
const SEARCH = 100;
const FEELS = { quick: 1000, slow: 200 };
/** How high over the sheet the torch is left, mm. */
const CLEAR = 15;

/** Feels for the sheet where the torch is, quickly and then slowly, and sets Z of zero by it. */
export async function feelSheet(
  wire: PlasmaWire,
  basis: Basis,
  from: From,
  { state, facts, telling }: AtBench<PlasmaState>,
  signal: AbortSignal,
): Promise<void> {
  const { touch } = plasmaFacts(facts);
  const down = await wayDown(wire, facts, SEARCH, signal);
  state.zero = { ...state.zero, z: undefined };
  await wire.run(signal, MILLIMETRES, 'G92.1', 'G91');
  telling.probing(true);
  await wire.probeMove(`G38.2 Z${word(-down)} F${FEELS.quick}`, signal);
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

const now = () => new Date().toISOString();
