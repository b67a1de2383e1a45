import type { MachineState } from '../../link/machine-state.ts';
import type { Wire } from '../../link/wire.ts';
import type { From } from '../../runner/commands.ts';
import { CommandRefused } from '../../runner/reasons.ts';
import { clearTicks } from '../../runner/ticks.ts';
import { type Basis, type BitShape, shapeOf } from '../../runner/zero.ts';
import type { AtBench } from '../driver.ts';
import { setOffset } from '../usual-moves.ts';

/** Where the pointer's spot lies from the tool's middle, mm. */
export interface Spot {
  x: number;
  y: number;
}

/** A second place nearer to zero than this says little of how stock lies, mm; one turned further is none, radians. */
const EDGE = { least: 50, turned: Math.PI / 18 };

/** Sets X and Y of zero where the pointer's spot is; nothing moves. How the stock lies is not known any more. */
export async function pointZero<S extends MachineState>(
  wire: Wire<S>,
  spot: Spot,
  basis: Basis,
  from: From,
  { state }: AtBench<S>,
  signal: AbortSignal,
): Promise<void> {
  const { machine } = await wire.fresh(signal);
  const found = { x: machine.x + spot.x, y: machine.y + spot.y };
  await setOffset(wire, found, signal);
  state.origin = { z: 0, ...state.origin, ...found };
  const xy = { at: now(), by: from.name, method: 'sight' as const, bit: shapeOf(state.bit!), basis };
  state.zero = { ...state.zero, xy };
  clearTicks(state, 'zero');
}

/** How the stock lies, by a second place on its edge along X under the pointer's spot. @throws {CommandRefused} */
export function pointEdge<S extends MachineState>(
  spot: Spot,
  { at, stock }: Basis,
  { state, changed }: AtBench<S>,
): void {
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

/** The stock lies along the axes. */
export function edgeFree<S extends MachineState>({ state, changed }: AtBench<S>): void {
  if (state.zero?.xy) state.zero = { ...state.zero, xy: { ...state.zero.xy, turn: undefined } };
  state.checked = undefined;
  changed();
}

/** A tool was put in, as someone says. */
export function toolSaid<S extends MachineState>(
  bit: BitShape,
  from: From,
  { state, happened, changed }: AtBench<S>,
): void {
  if (state.bit) happened('bit');
  state.bit = { ...shapeOf(bit), at: now(), by: from.name };
  state.checked = undefined;
  changed();
}

const now = () => new Date().toISOString();
