import { type Bit, presetFor } from '../bits/bit.ts';
import type { LengthUnit } from '../quantity/units.ts';
import type { Bench, Cut, Job } from './job.ts';

/** An empty job: a board of oak, the shop's bits, and a bench. */
export function newJob(name: string, unit: LengthUnit, bits: Bit[], bench: Bench): Job {
  const thickness = unit === 'in' ? 19.05 : 20;
  const [length, width] = unit === 'in' ? [304.8, 152.4] : [300, 150];
  return {
    format: 'kerbe-job',
    version: 1,
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
    bits,
    cuts: [],
    bench,
    notes: '',
  };
}

/** A new cut of a kind, with the first fitting bit and its settings for the job's material. */
export function newCut(job: Job, kind: Cut['kind'], id: string): Cut | undefined {
  const bit = job.bits.find((b) => b.kind === (kind === 'v-carve' ? 'v' : 'end'));
  if (!bit) return undefined;
  const preset = presetFor(bit, job.stock.material);
  const thick = Math.max(...job.stock.corners);
  const base = {
    id,
    targets: [],
    bit: bit.id,
    feed: preset?.feed ?? 1000,
    plunge: preset?.plunge ?? 500,
    speed: preset?.speed ?? 16000,
  };
  if (kind === 'v-carve')
    return { ...base, kind, depthLimit: Math.max(1, Math.min(bit.flute, thick - 2)), floorStep: 0.5 };
  return {
    ...base,
    kind,
    side: 'outside',
    depth: thick + (job.stock.zeroZ === 'spoilboard' ? 0.05 : 0.5),
    depthPerPass: preset?.depthPerPass ?? 3,
    climb: true,
    tabs: { count: job.stock.holdDown === 'tape' ? 0 : 4, length: 8, height: Math.min(3, thick / 2) },
  };
}
