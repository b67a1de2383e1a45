import { expect, test } from 'vitest';
import { readFileSync } from 'node:fs';
import { compute, ComputeCache } from '@kerbe/core/compute/compute';
import { readJobFile } from '@kerbe/core/job/job-file';
import { clipperFromDisk, resourcesFromDisk } from '@kerbe/machine/core-from-disk';

/** Lettering with a V-carving that leaves floors. */
function lettered(text: string, align: 'left' | 'centre', depthLimit: number) {
  const { job } = readJobFile(readFileSync('demo/jobs/entrance-board.kerbe.json', 'utf8'));
  job.artwork = [
    { kind: 'lettering', id: 'l', name: 'L', x: 200, y: 200, rotation: 7, text, face: 'rokkitt', capHeight: 40, tracking: 0, leading: 1.2, align }, // prettier-ignore
  ];
  const carving = job.cuts.find(({ kind }) => kind === 'v-carve')!;
  job.cuts = [{ ...carving, targets: [{ item: 'l', shapes: 'all' }], depthLimit } as typeof carving];
  return job;
}

test('what is kept of letters that stood there before changes nothing of what comes out', async () => {
  const clipper = await clipperFromDisk();
  const resources = await resourcesFromDisk(() => undefined);
  const cache = new ComputeCache();
  for (const [text, align, limit] of [
    ['Moon', 'centre', 2],
    ['Moons', 'centre', 2],
    ['Moons M', 'left', 2],
    ['Moons M', 'left', 3],
    ['noon', 'left', 2],
  ] as const) {
    const job = lettered(text, align, limit);
    const [kept] = (await compute(job, resources, clipper, { cache })).cuts;
    const [anew] = (await compute(job, resources, clipper)).cuts;
    expect(kept.path.xyz, text).toEqual(anew.path.xyz);
    expect(kept.facts, text).toEqual(anew.facts);
  }
});
