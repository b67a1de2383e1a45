import type { LengthUnit } from '../quantity/units.ts';
import type { BaseBench } from './bench.ts';
import type { BaseCut } from './cut.ts';
import type { Job } from './job.ts';
import type { BaseTool } from './tool.ts';

/** A board as the shop has it, in round numbers of the unit, mm. */
const USUAL: Record<LengthUnit, { thickness: number; length: number; width: number; lift: number }> = {
  mm: { thickness: 20, length: 300, width: 150, lift: 6 },
  in: { thickness: 19.05, length: 304.8, width: 152.4, lift: 6.35 },
};

/**
 * An empty job: the shop's bits, a bench, and a board of what the first tool of the bench's machine has settings for.
 * @param tools kinds of tool that the machine holds; all where it is left out.
 */
export function newJob<C extends BaseCut>(
  name: string,
  unit: LengthUnit,
  bits: BaseTool[],
  bench: BaseBench,
  tools?: readonly string[],
): Job<C> {
  const { length, width, lift, ...usual } = USUAL[unit];
  const row = bits.filter(({ kind }) => tools?.includes(kind)).flatMap(({ presets }) => presets)[0];
  const material = row?.material ?? 'oak';
  const thickness = (row as { thickness?: number } | undefined)?.thickness ?? usual.thickness;
  return {
    format: 'kerbe-job',
    version: 3,
    name,
    unit,
    stock: {
      material,
      length,
      width,
      corners: [thickness, thickness, thickness, thickness],
      zeroXY: 'lower-left',
      zeroZ: 'stock',
      holdDown: 'clamps',
      keepOuts: [],
      lift,
      spoilboard: 18,
    },
    artwork: [],
    steps: [],
    bits,
    cuts: [],
    ownOrder: false,
    bench,
    notes: '',
  };
}
