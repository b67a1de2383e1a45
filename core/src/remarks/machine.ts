import { formatFeed, formatLength } from '../quantity/format.ts';
import type { Operation } from 'fast-json-patch';
import { approachOver } from '../program/approach.ts';
import { scaledArtwork } from '../artwork/artwork-scale.ts';
import { type Remark, setCut } from '../cuts/remark.ts';
import { toolKindOf } from '../tools/kinds.ts';
import { machineKindOf } from '../machines/kinds.ts';
import { cutsOf, type Judged } from './judged.ts';

const AND = new Intl.ListFormat('en', { type: 'conjunction' });
const OR = new Intl.ListFormat('en', { type: 'disjunction' });

/** Whether the machine of a job's bench holds a tool of it; one that is missing is another rule's matter. */
function holds({ bits, bench }: Judged['job'], id: string): boolean {
  const tool = bits.find((bit) => bit.id === id);
  return !tool || (machineKindOf(bench).tools as readonly string[]).includes(tool.kind);
}

/** All that a job's bench has no machine for, said once. */
function notHeld(judged: Judged): Remark[] {
  const { job } = judged;
  const parts = judged.cuts.filter(({ problem, bit }) => problem === undefined && !holds(job, bit));
  if (parts.length === 0) return [];
  const numbers = [...new Set(parts.map(({ cut }) => job.cuts.findIndex(({ id }) => id === cut) + 1))].sort(
    (a, b) => a - b,
  );
  const tools = [...new Set(parts.map(({ bit }) => toolKindOf(job.bits.find(({ id }) => id === bit)!).one))];
  const { bench } = job;
  return [
    {
      id: 'held',
      stop: 'cuts',
      weight: 'wrong',
      withholds: true,
      text: `${bench.name} is ${machineKindOf(bench).one}, and does not hold ${OR.format(tools)}, which cut${numbers.length === 1 ? '' : 's'} ${AND.format(numbers.map(String))} ${numbers.length === 1 ? 'takes' : 'take'}; give the job to another bench at Set-up, or take these cuts out.`,
      remedies: [],
    },
  ];
}

/** Rules about what the bench can do: speeds of its axes, its reach, and what its kind knows. */
export function judgeMachine(judged: Judged): Remark[] {
  const { job } = judged;
  const { bench, unit, stock } = job;
  const { speed } = bench.limits;
  const kind = machineKindOf(bench);
  const remarks: Remark[] = notHeld(judged);
  for (const { cut, index, result } of cutsOf(judged)) {
    // Of a cut that it cannot make at all its speeds are not the matter.
    if (result.problem || !holds(job, result.bit)) continue;
    const about = { stop: 'cuts', cut: cut.id } as const;
    const across = Math.min(speed.x, speed.y);
    const over: string[] = [];
    const patch: Operation[] = [];
    if (result.feed > across) {
      over.push(`feed ${formatFeed(result.feed, unit)} is above the ${formatFeed(across, unit)} of its axes`);
      patch.push(...setCut(index, { feed: across }));
    }
    if (result.plunge > speed.z) {
      over.push(`plunge ${formatFeed(result.plunge, unit)} is above the ${formatFeed(speed.z, unit)} of its Z axis`);
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
    remarks.push(...kind.judge(bench, { cut, index, result }));
  }
  remarks.push(...judgeReach(judged));
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

/** Room kept when artwork is made smaller for the reach, mm. */
const KEPT_FROM_THE_ENDS = 1;

/** Whether all moves fit between the ends of the axes, wherever zero may be set. */
function judgeReach(judged: Judged): Remark[] {
  const { job, cuts } = judged;
  const { bench, unit, stock } = job;
  const [least, most] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ];
  for (const { path } of cuts)
    for (let i = 0; i < path.xyz.length; i++) {
      least[i % 3] = Math.min(least[i % 3], path.xyz[i]);
      most[i % 3] = Math.max(most[i % 3], path.xyz[i]);
    }
  if (!(most[0] >= least[0])) return [];
  const remarks: Remark[] = [];
  const spans = { x: most[0] - least[0], y: most[1] - least[1] };
  const over = (['x', 'y'] as const).filter((axis) => spans[axis] > bench.travel[axis] + 1e-6);
  if (over.length) {
    const share = Math.min(...over.map((axis) => (bench.travel[axis] - KEPT_FROM_THE_ENDS) / spans[axis]));
    remarks.push({
      id: 'reach',
      stop: 'cuts',
      weight: 'wrong',
      text: `${over.map((axis) => `The bit would go ${formatLength(spans[axis], unit)} along ${axis.toUpperCase()}, and ${bench.name} reaches ${formatLength(bench.travel[axis], unit)}`).join('; ')}.`,
      remedies: share > 0.2 ? [{ label: 'Make the artwork small enough', patch: scaledArtwork(job, share) }] : [],
    });
  }
  const approach = Math.max(approachOver(job, cuts), most[2]);
  const high = approach - Math.min(0, least[2]);
  if (high > bench.travel.z)
    remarks.push({
      id: 'reach-z',
      stop: 'stock',
      weight: 'wrong',
      text: `From its deepest cut to its highest lift the bit would move ${formatLength(high, unit)}, and the Z axis of ${bench.name} reaches ${formatLength(bench.travel.z, unit)}.`,
      remedies:
        stock.lift === approach && stock.lift > 2 && high - stock.lift + 2 <= bench.travel.z
          ? [{ label: `Lift ${formatLength(2, unit)}`, patch: [{ op: 'replace', path: '/stock/lift', value: 2 }] }]
          : [],
    });
  return remarks;
}
