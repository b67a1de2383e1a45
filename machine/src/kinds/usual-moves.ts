import type { MachineState } from '../link/machine-state.ts';
import type { BenchFacts } from '../runner/bench-facts.ts';
import type { Coordinates, Wire } from '../link/wire.ts';

/** Every mode that the lines here count on, stated anew. */
export const MILLIMETRES = 'G17 G21 G90 G94 G54';

/** Offset of the work coordinate system: machine coordinates of the job's zero. A missing one is left as it was. */
export type WorkOffset = Partial<Coordinates>;

/** A number of a block, mm. @example word(-0.00001) // '0' */
export function word(value: number): string {
  return value
    .toFixed(4)
    .replace(/\.?0+$/, '')
    .replace(/^-0$/, '0');
}

/** Homes all axes, up first, and waits until that is done. */
export async function home<S extends MachineState>(wire: Wire<S>, signal: AbortSignal): Promise<void> {
  wire.control('home');
  await wire.fresh(signal);
  await wire.until(() => wire.state!.word !== 'homing' && !wire.state!.held, signal);
}

/** Says where zero lies: the offset of G54. */
export async function setOffset<S extends MachineState>(
  wire: Wire<S>,
  offset: WorkOffset,
  signal: AbortSignal,
): Promise<void> {
  const words = (['x', 'y', 'z'] as const)
    .filter((axis) => offset[axis] !== undefined)
    .map((axis) => axis.toUpperCase() + word(offset[axis]!));
  await wire.run(signal, MILLIMETRES, `G10 L2 P1 ${words.join(' ')}`);
}

/** So much of an axis is left at its lower end, mm: a second, slow touch goes past the first by less than that. */
const SPARE = 4;

/** How far down may be felt for something from where the tool is: no further than the axis goes, mm. */
export async function wayDown<S extends MachineState>(
  wire: Wire<S>,
  { travel }: Pick<BenchFacts, 'travel'>,
  most: number,
  signal: AbortSignal,
): Promise<number> {
  const { machine } = await wire.fresh(signal);
  return Math.max(1, Math.min(most, travel.z + machine.z - SPARE));
}

/** Goes to zero: up, across, down to a height over it. */
export async function goToZero<S extends MachineState>(
  wire: Wire<S>,
  lift: number,
  signal: AbortSignal,
): Promise<void> {
  await wire.run(signal, MILLIMETRES, 'G53 G0 Z0', 'G0 X0 Y0', `G1 Z${word(lift)} F800`);
}
