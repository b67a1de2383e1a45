import type { BaseCut } from '../../document/cut.ts';
import { formatLength } from '../../quantity/format.ts';
import { type JudgedCut, type Remark, setCut } from '../remark.ts';
import { nextSmallerMill } from '../smaller-bit.ts';
import type { InlayCut } from './fields.ts';
import { fitWords } from './fit-words.ts';
import type { InlayFacts } from './facts.ts';
import { pinchedWords } from './pinched-words.ts';

type Judged = JudgedCut<InlayCut, InlayFacts>;

/** Places where the halves do not fit. */
export function judgePinched({ job, cut, index, result }: Judged): Remark[] {
  if (!result.facts?.pinched) return [];
  const smaller = nextSmallerMill(job, job.bits.find(({ id }) => id === cut.bit)!.diameter);
  return [
    {
      id: `pinched-${cut.id}`,
      stop: 'cuts',
      cut: cut.id,
      weight: 'wrong',
      text: pinchedWords(result.facts.pinched),
      remedies: smaller
        ? [
            {
              label: `Use ${smaller.name} for both`,
              patch: setCut(index, { bit: smaller.id, otherDiameter: smaller.diameter }),
            },
          ]
        : [],
    },
  ];
}

/** The two halves of an inlay are one pair: they must be made for one fit and for each other's bits. Said at the part. */
export function judgePair({ job, cut, index }: Judged): Remark[] {
  const recess = job.cuts.map((other, at) => ({ cut: other, index: at })).find((other) => isRecessOf(cut, other.cut));
  if (cut.role !== 'part' || !recess) return [];
  const halves = [
    { cut: recess.cut as InlayCut, index: recess.index },
    { cut, index },
  ];
  const remarks: Remark[] = [];
  const about = { stop: 'cuts', cut: cut.id, weight: 'wrong' } as const;
  const [a, b] = halves.map((half) => half.cut.allowance);
  if (Math.abs(a - b) > 1e-6)
    remarks.push({
      ...about,
      id: `pair-${cut.id}`,
      text: `The two halves of this inlay have different fits: the recess ${fitWords(a, job.unit)}, the part ${fitWords(b, job.unit)}. Together they would come to ${fitWords((a + b) / 2, job.unit)}.`,
      remedies: [
        { label: `Both with ${fitWords(a, job.unit)}`, patch: setCut(index, { allowance: a }) },
        { label: `Both with ${fitWords(b, job.unit)}`, patch: setCut(recess.index, { allowance: b }) },
      ],
    });
  const bits = halves.map((half) => job.bits.find(({ id }) => id === half.cut.bit)?.diameter ?? 0);
  const round = halves.map((half, k) => Math.max(bits[k], half.cut.otherDiameter));
  if (bits.every((d) => d > 0) && Math.abs(round[0] - round[1]) > 1e-6)
    remarks.push({
      ...about,
      id: `corners-of-${cut.id}`,
      text: `The corners of this inlay’s halves are rounded for different bits, ${formatLength(round[0], job.unit, 3)} in the recess and ${formatLength(round[1], job.unit, 3)} in the part, and would not fit.`,
      remedies: [
        {
          label: 'Round both for the two bits',
          patch: [...setCut(recess.index, { otherDiameter: bits[1] }), ...setCut(index, { otherDiameter: bits[0] })],
        },
      ],
    });
  return remarks;
}

function isRecessOf(part: InlayCut, other: BaseCut): boolean {
  return other.kind === part.kind && (other as InlayCut).role === 'recess' && shapesOf(other) === shapesOf(part);
}

const shapesOf = ({ targets }: BaseCut): string =>
  JSON.stringify(targets.map(({ item, shapes }) => [item, shapes]).sort((x, y) => (String(x) < String(y) ? -1 : 1)));
