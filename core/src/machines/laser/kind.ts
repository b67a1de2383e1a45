import type { Dialect } from '../../program/dialect.ts';
import type { MachineKind } from '../machine-kind.ts';
import { type LaserBench, LaserBenchSchema, spotOf } from './bench.ts';
import { laserPost } from './post.ts';

/** A beam over a bed. */
export const laserKind: MachineKind<LaserBench> = {
  one: 'a laser',
  words: { tool: 'beam', bed: 'bed', down: 'coming down' },
  schema: LaserBenchSchema,
  tools: ['beam'],
  dialect: dialectOf,
  pointer: spotOf,
  judge: () => [],
};

function dialectOf(bench: LaserBench): Dialect {
  return {
    label: 'one program for each beam, its power in every move',
    decimals: 3,
    bits: 'one-each',
    arcs: 'centre',
    drilling: 'moves',
    numbers: 0,
    comment: 'brackets',
    park: 'place',
    post: laserPost(bench),
  };
}
