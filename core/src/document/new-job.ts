import type { LengthUnit } from '../quantity/units.ts';
import type { Bench } from './bench.ts';
import type { BaseCut } from './cut.ts';
import type { Job } from './job.ts';
import type { BaseTool } from './tool.ts';

/** An empty job: a board of oak, the shop's bits, and a bench. */
export function newJob<C extends BaseCut>(name: string, unit: LengthUnit, bits: BaseTool[], bench: Bench): Job<C> {
  const thickness = unit === 'in' ? 19.05 : 20;
  const [length, width] = unit === 'in' ? [304.8, 152.4] : [300, 150];
  return {
    format: 'kerbe-job',
    version: 2,
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
      lift: unit === 'in' ? 6.35 : 6,
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
