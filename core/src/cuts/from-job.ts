import { presetFor, usualStep } from '../bits/bit.ts';
import type { Bit } from '../document/bit.ts';
import type { Job } from '../document/job.ts';
import type { UsualDrive } from './fresh-cut.ts';
import type { FreshFrom } from './kind.ts';
import { rightThrough } from './past-the-stock.ts';

/** What a new cut with a bit is made from in a job. */
export function fromJob({ stock }: Job, bit: Bit): FreshFrom & UsualDrive {
  const preset = presetFor(bit, stock.material);
  const thick = Math.max(...stock.corners);
  return {
    bit,
    preset,
    feed: preset?.feed ?? 1000,
    plunge: preset?.plunge ?? 500,
    speed: preset?.speed ?? 16000,
    depthPerPass: preset?.depthPerPass ?? 3,
    thick,
    through: rightThrough(stock),
    step: usualStep(bit),
    peck: 3.175,
    entry: { kind: 'ramp', angle: 5 },
    tabs: { count: stock.holdDown === 'tape' ? 0 : 4, length: 8, height: Math.min(3, thick / 2) },
  };
}
