import { ofKinds } from '../../tools/kinds.ts';
import type { Bit } from '../../tools/turned.ts';
import { type JudgedCut, type Remark, setCut } from '../remark.ts';
import { drawnSizes, drawnWords, SIZE_WORTH_SAYING } from './drawn-sizes.ts';
import type { DrillFacts } from './facts.ts';
import type { DrillCut } from './fields.ts';

/** Circles drawn smaller than the bit, whose holes would come out too wide: a finer drill, where the job has one that fits. */
export function judgeDrawnSmaller({ job, cut, index, own: bit, result }: JudgedCut<DrillCut, DrillFacts>): Remark[] {
  const { smaller } = drawnSizes(result.facts, bit);
  if (smaller.length === 0) return [];
  const all = smaller.length === (result.facts?.holes ?? []).length;
  const finer = ofKinds<Bit>(job.bits, ['drill'])
    .filter(({ diameter, flute }) => diameter <= smaller[0] + SIZE_WORTH_SAYING && flute >= cut.depth)
    .sort((a, b) => b.diameter - a.diameter)[0];
  return [
    {
      stop: 'cuts',
      cut: cut.id,
      id: `drawn-smaller-${cut.id}`,
      weight: 'advice',
      text: drawnWords(smaller, bit, job.unit),
      remedies: finer && all ? [{ label: `Use ${finer.name}`, patch: setCut(index, { bit: finer.id }) }] : [],
    },
  ];
}
