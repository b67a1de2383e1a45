import { formatFeed, formatLength } from '../quantity/format.ts';
import type { Operation } from 'fast-json-patch';
import { cutsOf, type Judged, type Remark, setCut } from './judge.ts';

/** Rules about what the bench can do: speeds of its axes and spindle, and its reach. */
export function judgeMachine(judged: Judged): Remark[] {
  const { job } = judged;
  const { bench, unit, stock } = job;
  const { speed } = bench.limits;
  const remarks: Remark[] = [];
  for (const { cut, index } of cutsOf(judged)) {
    const about = { stop: 'cuts', cut: cut.id } as const;
    const across = Math.min(speed.x, speed.y);
    const over: string[] = [];
    const patch: Operation[] = [];
    if (cut.feed > across) {
      over.push(`feed ${formatFeed(cut.feed, unit)} is above the ${formatFeed(across, unit)} of its axes`);
      patch.push(...setCut(index, { feed: across }));
    }
    if (cut.plunge > speed.z) {
      over.push(`plunge ${formatFeed(cut.plunge, unit)} is above the ${formatFeed(speed.z, unit)} of its Z axis`);
      patch.push(...setCut(index, { plunge: speed.z }));
    }
    if (over.length)
      remarks.push({
        ...about,
        id: `limit-${cut.id}`,
        weight: 'advice',
        text: `${bench.name} cannot follow: ${over.join(', and ')}. It would cut slower without saying so; the times here already reckon with that.`,
        remedies: [{ label: 'Use what the bench can do', patch }],
      });
    const turns = Math.min(bench.spindle.max, Math.max(bench.spindle.min, cut.speed));
    if (turns !== cut.speed)
      remarks.push({
        ...about,
        id: `spindle-${cut.id}`,
        weight: 'wrong',
        text: `The spindle of ${bench.name} turns ${bench.spindle.min} to ${bench.spindle.max} rpm, and this cut asks for ${cut.speed}.`,
        remedies: [{ label: `Use ${turns} rpm`, patch: setCut(index, { speed: turns }) }],
      });
  }
  if (stock.length > bench.travel.x || stock.width > bench.travel.y) {
    const turned = stock.width <= bench.travel.x && stock.length <= bench.travel.y;
    remarks.push({
      id: 'travel',
      stop: 'stock',
      weight: 'advice',
      text: `The stock is larger than ${bench.name} can reach (${formatLength(bench.travel.x, unit, 0)} by ${formatLength(bench.travel.y, unit, 0)})${turned ? '; turned a quarter it would fit' : ''}.`,
      remedies: [
        {
          label: 'Use only what the bench can reach',
          patch: [
            { op: 'replace', path: '/stock/length', value: Math.min(stock.length, bench.travel.x) },
            { op: 'replace', path: '/stock/width', value: Math.min(stock.width, bench.travel.y) },
          ],
        },
      ],
    });
  }
  return remarks;
}
