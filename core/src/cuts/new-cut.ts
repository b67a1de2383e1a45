import { presetFor, usualStep } from '../bits/bit.ts';
import { type Cut, CutSchema } from '../document/cut.ts';
import type { Job } from '../document/job.ts';
import { CUT_KINDS } from './kinds.ts';

/**
 * A new cut of a kind, with the first fitting bit and its settings for the job's material; nothing where the job has no
 * such bit.
 */
export function newCut(job: Job, kind: Cut['kind'], id: string): Cut | undefined {
  const bit = CUT_KINDS[kind].bits.map((k) => job.bits.find((b) => b.kind === k)).find((b) => b !== undefined);
  if (!bit) return undefined;
  const preset = presetFor(bit, job.stock.material);
  const thick = Math.max(...job.stock.corners);
  const depthPerPass = preset?.depthPerPass ?? 3;
  const base = {
    id,
    kind,
    targets: [],
    bit: bit.id,
    feed: preset?.feed ?? 1000,
    plunge: preset?.plunge ?? 500,
    speed: preset?.speed ?? 16000,
    depthPerPass,
  };
  const own = CUT_KINDS[kind].fresh({
    bit,
    preset,
    depthPerPass,
    thick,
    through: thick + (job.stock.zeroZ === 'spoilboard' ? 0.05 : 0.5),
    step: usualStep(bit),
    entry: { kind: 'ramp', angle: 5 },
    tabs: { count: job.stock.holdDown === 'tape' ? 0 : 4, length: 8, height: Math.min(3, thick / 2) },
  });
  return CutSchema.parse({ ...base, ...own });
}
