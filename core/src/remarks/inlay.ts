import { fitWords } from '../cuts/inlay/fit-words.ts';
import type { InlayCut } from '../document/cut.ts';
import { formatLength } from '../quantity/format.ts';
import { pinchedWords } from '../cuts/inlay/pinched-words.ts';
import { cutsOf, type Judged, type Remark, setCut } from './remark.ts';

/** The two halves of an inlay are one pair: they must be made for one fit and for each other's bits. */
export function judgeInlays(judged: Judged): Remark[] {
  const { job } = judged;
  const remarks: Remark[] = cutsOf(judged).flatMap(({ cut, index, result }): Remark[] => {
    if (cut.kind !== 'inlay' || result.problem || !result.pinched) return [];
    const own = job.bits.find(({ id }) => id === cut.bit)!.diameter;
    const smaller = job.bits
      .filter((b) => b.kind === 'end' && b.diameter < own)
      .sort((a, b) => b.diameter - a.diameter)[0];
    return [
      {
        id: `pinched-${cut.id}`,
        stop: 'cuts',
        cut: cut.id,
        weight: 'wrong',
        text: pinchedWords(result.pinched),
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
  });
  const halves = job.cuts.flatMap((cut, index) => (cut.kind === 'inlay' ? [{ cut, index }] : []));
  for (const recess of halves) {
    if (recess.cut.role !== 'recess') continue;
    const part = halves.find(({ cut }) => cut.role === 'part' && sameShapes(cut, recess.cut));
    if (!part) continue;
    const about = { stop: 'cuts', cut: part.cut.id } as const;
    const [a, b] = [recess.cut.allowance, part.cut.allowance];
    if (Math.abs(a - b) > 1e-6)
      remarks.push({
        ...about,
        id: `pair-${part.cut.id}`,
        weight: 'wrong',
        text: `The two halves of this inlay have different fits: the recess ${fitWords(a, job.unit)}, the part ${fitWords(b, job.unit)}. Together they would come to ${fitWords((a + b) / 2, job.unit)}.`,
        remedies: [
          { label: `Both with ${fitWords(a, job.unit)}`, patch: setCut(part.index, { allowance: a }) },
          { label: `Both with ${fitWords(b, job.unit)}`, patch: setCut(recess.index, { allowance: b }) },
        ],
      });
    const bits = [recess, part].map(({ cut }) => job.bits.find(({ id }) => id === cut.bit)?.diameter ?? 0);
    const round = [recess, part].map(({ cut }, k) => Math.max(bits[k], cut.otherDiameter));
    if (bits.every((d) => d > 0) && Math.abs(round[0] - round[1]) > 1e-6)
      remarks.push({
        ...about,
        id: `corners-of-${part.cut.id}`,
        weight: 'wrong',
        text: `The corners of this inlay’s halves are rounded for different bits, ${formatLength(round[0], job.unit, 3)} in the recess and ${formatLength(round[1], job.unit, 3)} in the part, and would not fit.`,
        remedies: [
          {
            label: 'Round both for the two bits',
            patch: [
              ...setCut(recess.index, { otherDiameter: bits[1] }),
              ...setCut(part.index, { otherDiameter: bits[0] }),
            ],
          },
        ],
      });
  }
  return remarks;
}

function sameShapes(a: InlayCut, b: InlayCut): boolean {
  const key = ({ targets }: InlayCut) =>
    JSON.stringify(targets.map(({ item, shapes }) => [item, shapes]).sort((x, y) => (String(x) < String(y) ? -1 : 1)));
  return key(a) === key(b);
}
