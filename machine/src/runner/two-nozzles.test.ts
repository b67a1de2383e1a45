import { afterEach, expect, test } from 'vitest';
import type { PlasmaCut } from '@kerbe/core/cuts/plasma/fields';
import type { Job } from '@kerbe/core/document/job';
import { PLAIN, type Variant, varied } from '@kerbe/core/machines/program-variant';
import { fromChart } from '@kerbe/core/tools/nozzle/chart';
import type { Nozzle } from '@kerbe/core/tools/nozzle/fields';
import { clipperFromDisk } from '../core-from-disk.ts';
import { NOTHING_DAMAGED, PlasmaBenchForTests } from './plasma-bench-for-tests.ts';
import { bitShapeOf } from './of-job.ts';
import { demoJob } from './test-bench.ts';

let bench: PlasmaBenchForTests;
afterEach(() => bench?.end());
const clipper = await clipperFromDisk();

/** Letters with the fine nozzle first, the plates round them with a coarser one. */
function byTwoNozzles(job: Job): void {
  const [markers] = job.cuts as PlasmaCut[];
  const coarse = job.bits.find(({ id }) => id === 'n45') as Nozzle;
  const { kerf, feed, pierceHeight, pierceDelay, cutHeight } = fromChart(coarse, job.stock.material, job.stock.corners[0])!.row; // prettier-ignore
  const [plates, ...words] = markers.targets;
  const letters: PlasmaCut = { ...markers, id: 'letters', targets: words, side: 'inside' };
  const round: PlasmaCut = { ...markers, id: 'plates', targets: [plates], side: 'outside', bit: 'n45', kerf, feed, pierceHeight, pierceDelay, cutHeight }; // prettier-ignore
  job.cuts = [letters, round];
}

test.each([0, 1])('a program a nozzle, and the arc lost in program %i of two', async (broken) => {
  const { job, result } = await demoJob('garden-markers', byTwoNozzles, 'two nozzles');
  expect(result.cuts.map(({ bit }) => bit)).toEqual(['n30f', 'n45']);
  bench = new PlasmaBenchForTests({ rate: 60, seed: 3 });
  await bench.setUp(job);
  for (const which of [0, 1]) {
    if (which === 1) {
      const { kerf, pierceHeight, cutHeight, volts, feed } = fromChart(job.bits.find(({ id }) => id === 'n45') as Nozzle, job.stock.material, job.stock.corners[0])!.row; // prettier-ignore
      bench.hand({ hand: 'nozzle', name: 'Nozzle 45 A', kerf, pierceHeight, cutHeight, volts, feed });
      await bench.tell({ command: 'nozzle-in', bit: bitShapeOf(job.bits, 'n45') });
      await bench.zero(job);
      await bench.tickAll();
    }
    const stopped: Variant['stopped'] = [];
    const order = bench.order(job, result, {}, which);
    await bench.run(order, `run-${which}`);
    if (which === broken) {
      const half = bench.state.run!.lines / 2;
      await bench.until(() => bench.state.run!.line >= half && bench.machine.state().arc === 'on', 'the middle');
      bench.hand({ hand: 'blow' });
      await bench.until(() => bench.state.bench === 'held:running', 'it to hold');
      await bench.tell({ command: 'stop' });
      await bench.until(() => bench.state.bench === 'ready', 'it to stand');
      const { line, at } = bench.ended.at(-1)!;
      stopped.push({ which, line, at: at!, by: 'beside' });
      const left = varied(job, result, { ...PLAIN, stopped }, clipper);
      // Of its own program only, by its own nozzle.
      expect(left.cuts.map(({ id }) => id)).toEqual([result.cuts[which].id]);
      await bench.tickAll();
      await bench.run(bench.order(job, result, { stopped }), 'run-again');
    }
    const runs = bench.ended.length;
    await bench.until(() => bench.ended.length > runs, 'the end');
    expect([bench.ended.at(-1)!.phase, bench.ended.at(-1)!.why]).toEqual(['done', undefined]);
  }
  expect(bench.machine.damage).toEqual(NOTHING_DAMAGED);
  const { pieces } = bench.machine.look() as { pieces: { minX: number; maxX: number }[] };
  expect(pieces.filter(({ minX, maxX }) => Math.abs(maxX - minX - 120) < 2)).toHaveLength(3);
});
