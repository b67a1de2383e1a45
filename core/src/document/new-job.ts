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

/** An empty job: a board of oak, the shop's bits, and a bench. */
export function newJob<C extends BaseCut>(name: string, unit: LengthUnit, bits: BaseTool[], bench: BaseBench): Job<C> {
  const { thickness, length, width, lift } = USUAL[unit];
  return {
    format: 'kerbe-job',
    version: 3,
    name,
    unit,
    stock: {
      material: 'oak',
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
