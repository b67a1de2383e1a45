import { formatLength } from '../../quantity/format.ts';
import { type JudgedCut, type Remark, type Remedy } from '../remark.ts';
import { freshCut } from '../fresh-cut.ts';
import { fromJob } from '../from-job.ts';
import { pocketKind } from '../pocket/kind.ts';
import { profileKind } from '../profile/kind.ts';
import { nextSmallerMill } from '../smaller-bit.ts';
import type { DrillCut } from './fields.ts';
import type { DrillFacts } from './facts.ts';

/** A drill makes holes of its own size; circles drawn larger by this, mm, may have been meant as they are drawn. */
const LARGER_WORTH_SAYING = 0.1;

/** Circles drawn larger than the bit: cut out or cleared as drawn, if that was meant. */
export function judgeDrawnLarger({ job, cut, index, result }: JudgedCut<DrillCut, DrillFacts>): Remark[] {
  const bit = job.bits.find((b) => b.id === cut.bit)!;
  const drawn = (result.facts?.holes ?? []).map(({ diameter = 0 }) => diameter);
  const larger = drawn.filter((diameter) => diameter > bit.diameter + LARGER_WORTH_SAYING).sort((a, b) => a - b);
  if (larger.length === 0) return [];
  const { unit } = job;
  const sizes = [...new Set([larger[0], larger[larger.length - 1]].map((d) => formatLength(d, unit, 2)))].join(' to ');
  const mill = nextSmallerMill(job, larger[0]);
  const remedies: Remedy[] = [];
  if (mill && mill.flute >= cut.depth && larger.length === drawn.length) {
    const through = cut.depth >= Math.min(...job.stock.corners);
    const { id, targets, depth } = cut;
    const from = fromJob(job, mill);
    const value = through
      ? {
          ...freshCut('profile', profileKind, id, from),
          side: 'inside',
          ramp: 5,
          tabs: { count: 0, length: 6, height: 1.5, shape: 'square', at: [] },
        }
      : freshCut('pocket', pocketKind, id, from);
    remedies.push({
      label: `${through ? 'Cut them out' : 'Clear them'} as drawn with ${mill.name}`,
      patch: [{ op: 'replace', path: `/cuts/${index}`, value: { ...value, targets, depth } }],
    });
  }
  return [
    {
      stop: 'cuts',
      cut: cut.id,
      id: `drawn-larger-${cut.id}`,
      weight: 'advice',
      text: `${larger.length === 1 ? 'One circle is' : `${larger.length} circles are`} drawn ${sizes} wide, and ${bit.name} makes holes of ${formatLength(bit.diameter, unit, 2)}.`,
      remedies,
    },
  ];
}
