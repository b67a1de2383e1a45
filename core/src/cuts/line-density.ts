import type { BaseCut } from '../document/cut.ts';
import type { Beam } from '../tools/beam/fields.ts';
import { formatLength } from '../quantity/format.ts';
import { type JudgedCut, type Remark, setCut } from './remark.ts';

/** A spot may be so many times as wide as its lines are apart, or so much narrower, before that is worth a word. */
const MOST = 2.5;
const LEAST = 0.6;

/** As many lines a millimetre as lie side by side, to a half. @example sensibleLines(0.08) // 12.5 */
export const sensibleLines = (spot: number): number => Math.max(0.5, Math.round(2 / spot) / 2);

/** Whether the lines of a scan suit the beam's spot. */
export function judgeLines({
  job,
  cut,
  index,
  own,
}: Pick<JudgedCut<BaseCut & { lines: number }, unknown, Beam>, 'job' | 'cut' | 'index' | 'own'>): Remark[] {
  // prettier-ignore
  const over = own.diameter * cut.lines;
  if (over <= MOST && over >= LEAST) return [];
  const lines = sensibleLines(own.diameter);
  const spot = formatLength(own.diameter, job.unit, 2);
  return [
    {
      stop: 'cuts',
      cut: cut.id,
      id: `lines-${cut.id}`,
      weight: 'advice',
      text:
        over > MOST
          ? `The spot of ${spot} is ${over.toFixed(1)} times as wide as the lines are apart: every place is burnt several times over, and fine detail runs together.`
          : `The spot of ${spot} is narrower than the lines are apart: stripes stay blank between them.`,
      remedies: [{ label: `Use ${lines} lines a millimetre`, patch: setCut(index, { lines }) }],
    },
  ];
}
