import { readFileSync } from 'node:fs';
import { compute, type JobResult } from '@kerbe/core/compute/compute';
import type { Job } from '@kerbe/core/document/job';
import { bytesFromBase64, readJobFile } from '@kerbe/core/job/job-file';
import { programsFor } from '@kerbe/core/machines/programs';
import { timelineOf } from '@kerbe/core/program/timeline';
import { clipperFromDisk, resourcesFromDisk } from '../core-from-disk.ts';
import { routerBench } from '../kinds/router/bench-kind.ts';
import { routerState } from '../kinds/router/messages.ts';
import type { Hand } from '../kinds/router/stand-in/hands.ts';
import type { MadeAs } from '../kinds/router/stand-in/made-as.ts';
import { StandInRouter } from '../kinds/router/stand-in/router.ts';
import { BenchForTests } from './bench-for-tests.ts';
import type { ProgramOrder } from './commands.ts';
import type { KeptPrograms } from './kept-programs-for-tests.ts';
import { basisOf, bitShapeOf, orderOf } from './of-job.ts';

export { KeptPrograms, OPERATOR } from './kept-programs-for-tests.ts';

/** A runner and a simulated router. */
export class TestBench extends BenchForTests<Hand, StandInRouter> {
  constructor({ seed = 7, rate = 5, as }: { seed?: number; rate?: number; as?: MadeAs } = {}) {
    super((tell) => new StandInRouter(tell, seed, as), StandInRouter.HELLO, rate);
  }

  get router() {
    return this.machine;
  }

  /** Connects, homes, lays the stock, puts the bit in, and hangs it over the plate on the lower left corner. */
  async prepare(job: Job, bit: string, place: 'corner' | 'flat' | 'spoilboard' = 'corner'): Promise<void> {
    if (this.state.bench === 'off') await this.connect(job);
    if (this.state.bench === 'unhomed') {
      await this.tell({ command: 'home' });
      await this.idle();
    }
    this.hand({ hand: 'stock', length: job.stock.length, width: job.stock.width, corners: job.stock.corners });
    await this.fit(job, bit);
    await this.overPlate(place);
  }

  /** Puts a bit in and says so. */
  async fit(job: Job, id: string): Promise<void> {
    const bit = bitShapeOf(job.bits, id);
    this.hand({ hand: 'bit', ...bit });
    await this.tell({ command: 'bit-in', bit });
  }

  /** Lays the plate, tries the circuit, and brings the bit over the plate by looking. */
  async overPlate(place: 'corner' | 'flat' | 'spoilboard'): Promise<void> {
    this.hand({ hand: 'plate', place, corner: 'lower-left' });
    this.hand({ hand: 'clip', on: true });
    this.hand({ hand: 'tap', on: true });
    await this.until(() => this.state.circuit !== undefined, 'the circuit');
    this.hand({ hand: 'tap', on: false });
    await this.until(() => routerState(this.state.machine)?.touching === false, 'the circuit to open');
    const look = this.router.look() as {
      tip: Place;
      plate: { x0: number; x1: number; y0: number; y1: number; z1: number };
    };
    const { plate } = look;
    await this.step('z', -look.tip.z + Math.min(-5, plate.z1 + 45));
    await this.step('x', (plate.x0 + plate.x1) / 2 - look.tip.x);
    await this.step('y', (plate.y0 + plate.y1) / 2 - look.tip.y);
    const { tip } = this.router.look() as { tip: Place };
    await this.step('z', plate.z1 + 12 - tip.z);
  }

  async zero(job: Job, method: 'corner' | 'flat' | 'spoilboard' = 'corner', id = 'job'): Promise<void> {
    await this.tell({ command: 'zero', method, corner: 'lower-left', basis: basisOf(id, job) });
    await this.idle();
  }

  async clearPlate(job = 'job'): Promise<void> {
    this.hand({ hand: 'clip', on: false });
    this.hand({ hand: 'plate', place: 'away' });
    for (const { id } of routerBench.ticks) await this.tell({ command: 'tick', step: id, on: true, job });
  }

  /** Everything up to a zero on the lower left corner with the list ticked. */
  async setUp(job: Job, bit: string): Promise<void> {
    await this.prepare(job, bit);
    await this.zero(job);
    await this.clearPlate();
  }
}

interface Place {
  x: number;
  y: number;
  z: number;
}

const computed = new Map<string, Promise<{ job: Job; result: JobResult }>>();

/** A demo job with its result; computed once for the same key. Before a bench is made, since its clock is not real. */
export async function demoJob(
  name: string,
  change: (job: Job) => void = () => {},
  key = '',
): Promise<{ job: Job; result: JobResult }> {
  const make = async () => {
    const url = new URL(`../../../demo/jobs/${name}.kerbe.json`, import.meta.url);
    const { job, assets } = readJobFile(readFileSync(url, 'utf8'));
    change(job);
    const resources = await resourcesFromDisk((hash) => assets[hash] && bytesFromBase64(assets[hash].base64));
    const result = await compute(job, resources, await clipperFromDisk(), { unjudged: true });
    return { job, result };
  };
  const id = `${name} ${key}`;
  if (!computed.has(id) || (change.length && !key)) computed.set(id, make());
  return computed.get(id)!;
}

/** The programs of a job as orders, their texts kept by the bench. */
export function ordersOf(bench: { programs: KeptPrograms }, job: Job, result: JobResult, id = 'job'): ProgramOrder[] {
  return programsFor(job, result, { revision: '1', date: '2026-11-25' }).map((program) =>
    orderOf(
      id,
      job,
      result,
      program,
      '1',
      bench.programs.keep(program.text, timelineOf(program, result, job.bench.limits)),
    ),
  );
}
