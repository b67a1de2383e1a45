import { presetFor } from '../bits/bit.ts';
import type { Bit } from '../document/bit.ts';
import { type Cut, CutSchema } from '../document/cut.ts';
import type { Job } from '../document/job.ts';

/** Bits that a kind of cut takes. */
export const BIT_KINDS: Record<Cut['kind'], Bit['kind'][]> = {
  'v-carve': ['v'],
  profile: ['end'],
  pocket: ['end'],
  drill: ['drill', 'end'],
  inlay: ['end'],
};

/**
 * A new cut of a kind, with the first fitting bit and its settings for the job's material; nothing where the job has no
 * such bit.
 */
export function newCut(job: Job, kind: Cut['kind'], id: string): Cut | undefined {
  const bit = BIT_KINDS[kind].map((k) => job.bits.find((b) => b.kind === k)).find((b) => b !== undefined);
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
  const entry = { kind: 'ramp', angle: 5 };
  const tabs = { count: job.stock.holdDown === 'tape' ? 0 : 4, length: 8, height: Math.min(3, thick / 2) };
  const through = thick + (job.stock.zeroZ === 'spoilboard' ? 0.05 : 0.5);
  const step = Math.round(bit.diameter * 40) / 100;
  const depthLimit = Math.max(1, Math.min(bit.flute, thick - 2));
  const own: Record<Cut['kind'], object> = {
    // Several passes only where the bit takes less at once than the limit allows.
    'v-carve': {
      depthLimit,
      floorStep: 0.5,
      depthPerPass: preset && preset.depthPerPass < depthLimit ? depthPerPass : null,
    },
    profile: { side: 'outside', depth: through, climb: true, tabs },
    pocket: { depth: Math.min(thick / 3, bit.flute), step, pattern: 'rings', climb: true, entry },
    drill: { depth: Math.min(through, bit.flute), peck: 3.175, retract: 'full', dwell: 0 },
    inlay: {
      role: 'recess',
      otherDiameter: bit.diameter,
      allowance: 0.06,
      depth: Math.min(thick / 3, bit.flute),
      step,
      climb: true,
      entry,
      tabs: { ...tabs, count: 0 },
      shift: { x: 0, y: 0 },
    },
  };
  return CutSchema.parse({ ...base, ...own[kind] });
}
