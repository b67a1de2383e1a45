import type { Operation } from 'fast-json-patch';
import { formatLength } from '../quantity/format.ts';
import { kindOf } from '../cuts/kinds.ts';
import { type Remark, setCut } from '../cuts/remark.ts';
import type { Stock } from '../document/stock.ts';
import type { CutResult } from '../sequence/cut-result.ts';
import { spread, thicknessAt, thickest } from '../stock/stock.ts';
import { cutsOf, type Judged } from './judged.ts';

/** How far below the thickest corner the stock lies at most under a cut, mm. */
function lowestUnder({ path: { xyz } }: CutResult, stock: Stock): number {
  let drop = 0;
  const thick = thickest(stock);
  for (let i = 0; i < xyz.length; i += 3)
    if (xyz[i + 2] < 0) drop = Math.max(drop, thick - thicknessAt(stock, xyz[i], xyz[i + 1]));
  return drop;
}

/** What uneven stock does to the cuts of a job. */
interface Uneven {
  /** Strokes come out so much narrower where the stock is low, mm; 0 where none does. */
  narrower: number;
  /** The depth of the shallowest floor that is hardly told, mm. */
  shallowest: number;
  /** How far the stock lies lower under the cuts that show it, mm, up to the next hundredth. */
  drop: number;
  /** Goes deeper by that with each cut that shows it. */
  deeper: Operation[];
}

function whatUnevennessDoes(judged: Judged): Uneven {
  const { stock } = judged.job;
  const does: Uneven = { narrower: 0, shallowest: Infinity, drop: 0, deeper: [] };
  const told = cutsOf(judged).flatMap(({ cut, index, result }) => {
    if (result.problem) return [];
    const drop = lowestUnder(result, stock);
    const shows = kindOf(cut).onUneven?.(cut, result, drop, thickest(stock)) ?? {};
    if (shows.narrower === undefined && shows.shallow === undefined) return [];
    does.narrower = Math.max(does.narrower, shows.narrower ?? 0);
    does.shallowest = Math.min(does.shallowest, shows.shallow ?? Infinity);
    does.drop = Math.max(does.drop, Math.ceil(drop * 100 - 1e-6) / 100);
    return [{ cut, index, depth: result.depth }];
  });
  // Only where nothing goes through the stock by it.
  if (told.every(({ depth }) => depth + does.drop < Math.min(...stock.corners)))
    does.deeper = told.flatMap(({ cut, index }) => setCut(index, kindOf(cut).deeper?.(cut, does.drop) ?? {}));
  return does;
}

/**
 * Corners that differ, where that is seen: in the width of strokes, or in the depth of floors. Carvers differ in what to do:
 * to cut deeper by the spread, or to plane the board flat (common practice).
 */
export function judgeUneven(judged: Judged): Remark[] {
  const { stock, unit } = judged.job;
  const uneven = spread(stock);
  if (uneven === 0) return [];
  const { narrower, shallowest, drop, deeper } = whatUnevennessDoes(judged);
  const said = (value: number) => formatLength(value, unit, 2);
  const strokes = narrower > 0;
  if (!strokes && shallowest === Infinity) return [];
  const thin = Math.min(...stock.corners);
  const then = strokes
    ? 'strokes as drawn where it is low, wider where it is thick'
    : `the shallowest ${said(shallowest)} where it is low, ${said(shallowest + drop)} where it is thick`;
  return [
    {
      id: 'uneven-stock',
      stop: 'stock',
      weight: 'advice',
      text: strokes
        ? `The corners differ by ${said(uneven)}, and strokes come out up to ${said(narrower)} narrower where the stock is low.`
        : `The corners differ by ${said(uneven)}, and the shallowest cut is ${said(shallowest)} deep; the low corner will come out faint.`,
      remedies: [
        ...(deeper.length > 0 ? [{ label: `Cut ${said(drop)} deeper: ${then}`, patch: deeper }] : []),
        {
          label: 'It is planed flat: use the thinnest corner for all',
          patch: [{ op: 'replace', path: '/stock/corners', value: [thin, thin, thin, thin] }],
        },
      ],
    },
  ];
}
