import { presetFor } from '../../tools/preset-for.ts';
import { ofKinds } from '../../tools/kinds.ts';
import type { Bit } from '../../tools/turned.ts';
import { type JudgedCut, type Remark, setCut } from '../remark.ts';
import { drawnSizes, drawnWords, SIZE_WORTH_SAYING } from './drawn-sizes.ts';
import type { DrillFacts } from './facts.ts';
import type { DrillCut } from './fields.ts';

/** Circles drawn smaller than the bit, whose holes would come out too wide: the drill of their size, where the job has one. */
export function judgeDrawnSmaller({ job, cut, index, own: bit, result }: JudgedCut<DrillCut, DrillFacts>): Remark[] {
  const { smaller } = drawnSizes(result.facts, bit);
  if (smaller.length === 0) return [];
  const all = smaller.length === (result.facts?.holes ?? []).length;
  // Only one that makes every circle as it is drawn.
  const fits = (drill: Bit) =>
    drill.flute >= cut.depth &&
    [smaller[0], smaller[smaller.length - 1]].every((size) => Math.abs(drill.diameter - size) <= SIZE_WORTH_SAYING);
  const finer = all ? ofKinds<Bit>(job.bits, ['drill']).find(fits) : undefined;
  const preset = finer && presetFor(finer, job.stock);
  const driven = preset && { feed: preset.feed, plunge: preset.plunge, speed: preset.speed };
  return [
    {
      stop: 'cuts',
      cut: cut.id,
      id: `drawn-smaller-${cut.id}`,
      weight: 'advice',
      text: drawnWords(smaller, bit, job.unit),
      remedies: finer ? [{ label: `Use ${finer.name}`, patch: setCut(index, { bit: finer.id, ...driven }) }] : [],
    },
  ];
}
