import { presetFor } from '../tools/preset-for.ts';
import { usualStep } from '../tools/turned.ts';
import type { BaseTool } from '../document/tool.ts';
import type { Job } from '../document/job.ts';
import type { UsualDrive } from './fresh-cut.ts';
import type { FreshFrom } from './kind.ts';
import { rightThrough } from './past-the-stock.ts';
import { usualTabs } from './usual-tabs.ts';

/** What a tool without settings of its own is driven with. */
const USUAL = { feed: 1000, plunge: 500, speed: 16000, depthPerPass: 3 };

/** What a new cut with a bit is made from in a job. */
export function fromJob<T extends BaseTool>({ stock }: Job, bit: T): FreshFrom<T> & UsualDrive {
  const preset = presetFor(bit, stock);
  const thick = Math.max(...stock.corners);
  return {
    bit,
    preset,
    ...USUAL,
    ...Object.fromEntries(Object.entries(preset ?? {}).filter(([name]) => name in USUAL)),
    thick,
    through: rightThrough(stock),
    step: usualStep(bit),
    peck: 3.175,
    entry: { kind: 'ramp', angle: 5 },
    tabs: { count: stock.holdDown === 'tape' ? 0 : 4, ...usualTabs(thick) },
  };
}
