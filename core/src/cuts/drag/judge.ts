import { formatLength } from '../../quantity/format.ts';
import { spread } from '../../stock/stock.ts';
import type { DragPoint } from '../../tools/drag/fields.ts';
import { type JudgedCut, type Remark, type Remedy, setCut } from '../remark.ts';
import type { DragFacts } from './facts.ts';
import { type DragCut, fills } from './fields.ts';

/** More than this keeps a point in touch where plate is not quite as flat as its corners say, mm. */
const IN_TOUCH = 0.5;

/** Whether it stays in touch, and whether its lines fill what they are to fill. */
export async function judgeDrawn(judged: JudgedCut<DragCut, DragFacts, DragPoint>): Promise<Remark[]> {
  const { job, cut, index, own, result } = judged;
  const { unit, stock } = job;
  const mm = (length: number) => formatLength(length, unit, 2);
  const remarks: Remark[] = [];
  const about = { stop: 'cuts', cut: cut.id } as const;
  const uneven = spread(stock);
  const press = Math.ceil((uneven + IN_TOUCH) * 10) / 10;
  if (cut.pressed <= uneven)
    remarks.push({
      ...about,
      id: `touch-${cut.id}`,
      weight: 'wrong',
      text: `The stock lies up to ${mm(uneven)} lower at a corner, and the point is pressed ${mm(cut.pressed)}; it would lose touch there and leave gaps.`,
      remedies:
        press <= own.travel ? [{ label: `Press it ${mm(press)}`, patch: setCut(index, { pressed: press }) }] : [],
    });
  if (fills(cut) && cut.fill === 'solid' && cut.step > own.width + 1e-9)
    remarks.push({
      ...about,
      id: `stripes-${cut.id}`,
      weight: 'wrong',
      text: `Lines ${mm(own.width)} wide at ${mm(cut.step)} leave stripes, and this filling is to be solid.`,
      remedies: [
        { label: `Set them ${mm(own.width)} apart`, patch: setCut(index, { step: own.width }) },
        { label: 'Let it be textured', patch: setCut(index, { fill: 'textured' }) },
      ],
    });
  const { closed = [] } = result.facts ?? {};
  if (closed.length > 0)
    remarks.push({
      ...about,
      id: `closes-up-${cut.id}`,
      weight: 'advice',
      text: `${closed.length === 1 ? 'One place closes' : `${closed.length} places close`} up at a line of ${mm(own.width)}; ${closed.length === 1 ? 'it is' : 'they are'} marked on the sheet.`,
      remedies: await drawnLarger(judged, closed.length),
    });
  return remarks;
}

/** By how much small letters may be drawn larger, per cent. */
const LARGER = [10, 20, 30, 40, 50];

/** The least that opens every place that closes up now, else what opens most of them; nothing where none opens any. */
async function drawnLarger(
  { cut, index, tryCut }: JudgedCut<DragCut, DragFacts, DragPoint>,
  now: number,
): Promise<Remedy[]> {
  let best: { larger: number; left: number } | undefined;
  for (const larger of LARGER.filter((more) => more > cut.larger)) {
    const tried = await tryCut({ ...cut, larger });
    if (tried.some(({ problem }) => problem)) continue;
    const left = tried.reduce((sum, { facts }) => sum + ((facts as DragFacts | undefined)?.closed.length ?? 0), 0);
    if (left < (best?.left ?? now)) best = { larger, left };
    if (left === 0) break;
  }
  if (!best) return [];
  const { larger, left } = best;
  const rest = left === 0 ? '' : left === 1 ? '; one place still closes up' : `; ${left} places still close up`;
  return [{ label: `Draw every shape ${larger} % larger${rest}`, patch: setCut(index, { larger }) }];
}
