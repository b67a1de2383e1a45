import { afterEach, expect, test } from 'vitest';
import type { PlasmaFacts } from '@kerbe/core/cuts/plasma/facts';
import type { Job } from '@kerbe/core/document/job';
import type { Loops } from '@kerbe/core/geometry/clipper';
import { signedArea } from '@kerbe/core/geometry/outline';
import { NoVariant, PLAIN, type Variant, varied } from '@kerbe/core/machines/program-variant';
import { clipperFromDisk } from '../core-from-disk.ts';
import { cutOut, NOTHING_DAMAGED, partsOf, PlasmaBenchForTests } from './plasma-bench-for-tests.ts';
import { demoJob } from './test-bench.ts';

/** Arcs that are lost at moments by chance. `KERBE_ARCS=200` loses more of them; a failure names its seed, `KERBE_SEED` begins there. */
const ARCS = Number(process.env.KERBE_ARCS ?? 12);
const FIRST = Number(process.env.KERBE_SEED ?? 1);
/** A clock so much faster than the world's loses arcs some millimetres apart. */
const RATE = 5;

let bench: PlasmaBenchForTests;
afterEach(() => bench?.end());

const seeds = Array.from({ length: ARCS }, (_, k) => FIRST + k);
const clipper = await clipperFromDisk();
/** Bench and cut leave the kerf to the controller. */
function leftToController(job: Job): void {
  Object.assign(job.bench, { kerfBy: 'controller' });
  for (const cut of job.cuts) Object.assign(cut, { by: 'controller' });
}
const area = (loops: Loops) => loops.reduce((sum, loop) => sum + signedArea(loop), 0);

test.each(seeds)('arcs lost by chance, seed %i: what is left is cut, nothing is damaged', async (seed) => {
  let state = (seed * 7919 + 17) % 2_147_483_647;
  const dice = () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
  for (let k = 0; k < 5; k++) dice();
  const name = dice() < 0.5 ? 'comet-weathervane' : 'garden-markers';
  const { job, result } = dice() < 0.7 ? await demoJob(name) : await demoJob(name, leftToController, 'controller');
  const [cut] = result.cuts;
  const lying = dice() < 0.5 ? 0 : (dice() - 0.5) * 0.04;
  bench = new PlasmaBenchForTests({ rate: RATE, seed });
  await bench.setUp(job, lying, lying ? job.stock.length - 20 : undefined);
  const turn = bench.state.zero!.xy!.turn ?? 0;
  const stopped: Variant['stopped'] = [];
  /** What is left uncut of a part on purpose. */
  let left = false;
  await bench.run(bench.order(job, result, { turn }));
  const times = dice() < 0.5 ? 1 : 2;
  for (let k = 0; k < times; k++) {
    // In the order of moves, not of time: holes are as often hit as long sides.
    const until = dice() * bench.state.run!.lines;
    const from = bench.ended.length;
    await bench.until(() => bench.ended.length > from || (bench.state.run!.line >= until && bench.machine.state().arc === 'on'), 'a moment in the cut'); // prettier-ignore
    for (let more = Math.floor(dice() * 20); more > 0 && bench.machine.state().arc === 'on'; more--) await bench.pass(10); // prettier-ignore
    if (bench.machine.state().arc !== 'on') break;
    bench.hand({ hand: 'blow' });
    await bench.until(() => bench.state.bench === 'held:running', 'it to hold');
    await bench.tell({ command: 'stop' });
    await bench.until(() => bench.state.bench === 'ready', 'it to stand');
    const { line, at } = bench.ended.at(-1)!;
    stopped.push({ which: 0, line, at: at!, by: 'beside' });
    const notes = (['beside', 'next'] as const).map((by) => {
      stopped.at(-1)!.by = by;
      try {
        return varied(job, result, { ...PLAIN, turn, stopped }, clipper).notes;
      } catch (error) {
        expect(error).toBeInstanceOf(NoVariant);
        return undefined;
      }
    });
    const by = notes[0] ? 'beside' : 'next';
    // The last of all, of which nothing more can be cut.
    if (!notes[0] && !notes[1]) return;
    stopped.at(-1)!.by = by;
    left ||= by === 'next' || notes[0]!.at(-1)!.includes('filed');
    await bench.tickAll();
    await bench.run(bench.order(job, result, { turn, stopped }), `run-${k + 2}`);
  }
  if (bench.ended.at(-1)?.phase !== 'done') await bench.until(() => bench.ended.length > stopped.length, 'the end');
  expect([bench.ended.at(-1)!.phase, bench.ended.at(-1)!.why]).toEqual(['done', undefined]);
  const { minutes, plannedMinutes } = bench.ended.at(-1)!;
  expect(minutes).toBeLessThan(1.5 * plannedMinutes + 0.1);
  expect(bench.machine.damage).toEqual(NOTHING_DAMAGED);
  if (left || turn !== 0) return;
  const { kerf } = cut.facts as PlasmaFacts;
  const ideal = partsOf(result, job, clipper);
  const actual = clipper.intersection(cutOut(bench.machine, clipper), clipper.offset(ideal, kerf / 2));
  // Each seam may leave a nib or a nick, and corners leave a little without any.
  const most = 0.05 * times + 0.02;
  expect(area(clipper.difference(actual, clipper.offset(ideal, 0.05)))).toBeLessThan(most);
  expect(area(clipper.difference(clipper.offset(ideal, -0.05), actual))).toBeLessThan(most);
});
