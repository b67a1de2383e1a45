import type { Job } from '../../document/job.ts';
import { formatLength } from '../../quantity/format.ts';
import { ofKinds } from '../../tools/kinds.ts';
import { type Bit, usualStep } from '../../tools/turned.ts';
import type { QuickerTry } from '../kind.ts';
import type { PocketCut } from './fields.ts';

/** What may make a pocket quicker: slots, a usual step where it is finer, a larger bit that clears first. */
export function quicker({ unit, bits }: Job, cut: PocketCut, own: Bit, name: string): QuickerTry[] {
  const out: QuickerTry[] = [];
  if (!cut.slots)
    out.push({
      what: 'slots',
      text: `Let the bit cut slots in ${name} instead of opening it with loops`,
      effect: 'buried over its whole width where rings begin; take less depth a pass if it labours',
      fields: { slots: true },
    });
  const step = usualStep(own);
  if (cut.step < 0.9 * step)
    out.push({
      what: 'step',
      text: `Step of ${formatLength(step, unit, 2)} in ${name}`,
      effect: '40 % of the bit, and more for it to take sideways; listen to it',
      fields: { step },
    });
  if (cut.clearBits.length === 0)
    for (const mill of ofKinds<Bit>(bits, ['end']).sort((a, b) => b.diameter - a.diameter))
      if (mill.diameter > own.diameter)
        out.push({
          what: 'clear',
          which: mill.id,
          text: `Clear ${name} with ${mill.name} first`,
          effect: `${own.name} for corners and narrow places only, and a bit change more`,
          fields: { clearBits: [mill.id] },
        });
  return out;
}
