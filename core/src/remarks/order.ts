import { orderParts } from '../sequence/order.ts';
import { titleOf } from '../cuts/title.ts';
import type { Remark } from '../cuts/remark.ts';
import type { Judged } from './judged.ts';

/** The rule about order, where the carver has put the cuts in an order of their own. */
export function judgeOrder({ job, cuts }: Judged): Remark[] {
  if (!job.ownOrder) return [];
  const late = cuts.findIndex((cut, i) => i > 0 && Math.floor(cut.rank) < Math.floor(cuts[i - 1].rank));
  if (late < 0) return [];
  const title = (index: number) => {
    const cut = job.cuts.find(({ id }) => id === cuts[index].cut)!;
    return titleOf(cut, job, cuts[index]);
  };
  const sorted = orderParts(cuts).map((part) => part.cut);
  const order = [...new Set(sorted)];
  return [
    {
      id: 'order',
      stop: 'cuts',
      weight: 'advice',
      text: `“${title(late)}” comes after “${title(late - 1)}”. Usual is to drill, then carve, then pocket, then cut out inside, then outside, so that the work is held longest.`,
      remedies: [
        {
          label: 'Put them in the usual order',
          patch: [
            { op: 'replace', path: '/cuts', value: order.map((id) => job.cuts.find((cut) => cut.id === id)!) },
            { op: 'replace', path: '/ownOrder', value: false },
          ],
        },
      ],
    },
  ];
}
