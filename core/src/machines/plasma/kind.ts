import { type Remark, setCut } from '../../cuts/remark.ts';
import type { Dialect } from '../../program/dialect.ts';
import type { MachineKind, MadeCut } from '../machine-kind.ts';
import { type PlasmaBench, PlasmaBenchSchema } from './bench.ts';
import { plasmaPost } from './post.ts';

/** A torch over a grate. */
export const plasmaKind: MachineKind<PlasmaBench> = {
  one: 'a plasma table',
  words: { tool: 'torch', bed: 'grate', down: 'coming down' },
  schema: PlasmaBenchSchema,
  tools: ['nozzle'],
  dialect: dialectOf,
  pointer: ({ pointer }) => pointer ?? undefined,
  judge: judgeKerf,
};

function dialectOf(bench: PlasmaBench): Dialect {
  return {
    label: 'one program a nozzle, the sheet felt for at each pierce',
    decimals: 3,
    bits: 'one-each',
    arcs: 'centre',
    drilling: 'moves',
    numbers: 0,
    comment: 'brackets',
    park: 'place',
    post: plasmaPost(bench),
  };
}

/** The kerf is taken off once: by whom, the bench says. */
function judgeKerf({ name, kerfBy }: PlasmaBench, { cut, index, result }: MadeCut): Remark[] {
  if (result.kerf === undefined || result.kerf === kerfBy) return [];
  const twice = result.kerf === 'here';
  return [
    {
      stop: 'cuts',
      cut: cut.id,
      id: `kerf-${cut.id}`,
      weight: 'wrong',
      text: twice
        ? `The controller of ${name} takes the kerf off itself, and this cut has taken it off already: parts would come out a kerf too large, and holes too small.`
        : `The controller of ${name} takes no kerf off, and this cut leaves that to it: parts would come out a kerf too small, and holes too large.`,
      remedies: [
        {
          label: twice ? 'Leave the kerf to the controller' : 'Take the kerf off here',
          patch: setCut(index, { by: kerfBy }),
        },
      ],
    },
  ];
}
