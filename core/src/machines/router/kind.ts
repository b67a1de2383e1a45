import { type Remark, setCut } from '../../cuts/remark.ts';
import type { MachineKind, MadeCut } from '../machine-kind.ts';
import { dialectOf, type RouterBench, RouterBenchSchema } from './bench.ts';

/** A spindle over a table. */
export const routerKind: MachineKind<RouterBench> = {
  one: 'a router',
  words: { tool: 'bit', bed: 'spoilboard', down: 'plunging' },
  schema: RouterBenchSchema,
  tools: ['v', 'end', 'drill', 'drag'],
  dialect: dialectOf,
  judge: judgeSpindle,
};

function judgeSpindle({ name, spindle }: RouterBench, { cut, index, result }: MadeCut): Remark[] {
  if (!result.turns) return [];
  const turns = Math.min(spindle.max, Math.max(spindle.min, result.speed));
  if (turns === result.speed) return [];
  return [
    {
      stop: 'cuts',
      cut: cut.id,
      id: `spindle-${cut.id}`,
      weight: 'wrong',
      text: `The spindle of ${name} turns ${spindle.min} to ${spindle.max} rpm, and this cut asks for ${result.speed}.`,
      remedies: [{ label: `Use ${turns} rpm`, patch: setCut(index, { speed: turns }) }],
    },
  ];
}
