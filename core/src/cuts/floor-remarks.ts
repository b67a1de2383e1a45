import type { BaseCut } from '../document/cut.ts';
import { formatLength } from '../quantity/format.ts';
import { thickest } from '../stock/stock.ts';
import { deepestFloor, rightThrough } from './past-the-stock.ts';
import { type JudgedCut, type Remark, setCut } from './remark.ts';

/** A cut that would go right through the spoilboard. */
export function judgeThroughBoard<C extends BaseCut & { depth: number }>({ job, cut, index }: JudgedCut<C>): Remark[] {
  const { stock, unit } = job;
  if (cut.depth <= thickest(stock) + stock.spoilboard) return [];
  const through = rightThrough(stock);
  return [
    {
      id: `through-board-${cut.id}`,
      stop: 'cuts',
      cut: cut.id,
      weight: 'wrong',
      text: `This cut is ${formatLength(cut.depth, unit)} deep and would go right through the spoilboard.`,
      remedies: [{ label: `Go ${formatLength(through, unit, 2)} deep`, patch: setCut(index, { depth: through }) }],
    },
  ];
}

/** A floor under which no wood would be left. */
export function judgeFloor<C extends BaseCut & { depth: number }>(judged: JudgedCut<C>): Remark[] {
  const { job, cut, index } = judged;
  const { stock, unit } = job;
  const through = judgeThroughBoard(judged);
  const thin = Math.min(...stock.corners);
  if (through.length > 0 || cut.depth < thin) return through;
  return [
    {
      id: `deeper-${cut.id}`,
      stop: 'cuts',
      cut: cut.id,
      weight: 'wrong',
      text: `The floor would lie ${formatLength(cut.depth, unit)} deep, and the stock is ${formatLength(thin, unit)} at its thinnest corner.`,
      remedies: [
        {
          label: `Go no deeper than ${formatLength(deepestFloor(stock), unit)}`,
          patch: setCut(index, { depth: deepestFloor(stock) }),
        },
      ],
    },
  ];
}

/** A floor so shallow that uneven stock leaves it faint. */
export const shallowOnUneven = (depth: number, drop: number): { shallow?: number } =>
  drop >= depth / 4 ? { shallow: depth } : {};
