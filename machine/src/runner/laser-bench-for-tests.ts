import type { Job } from '@kerbe/core/document/job';
import { laserBench } from '../kinds/laser/bench-kind.ts';
import type { Hand } from '../kinds/laser/stand-in/hands.ts';
import { StandInLaser } from '../kinds/laser/stand-in/laser.ts';
import type { MadeAs } from '../kinds/laser/stand-in/made-as.ts';
import { BenchForTests } from './bench-for-tests.ts';
import { basisOf, bitShapeOf } from './of-job.ts';

/** A runner and a simulated laser. */
export class LaserBenchForTests extends BenchForTests<Hand, StandInLaser> {
  constructor({ seed = 7, rate = 5, as }: { seed?: number; rate?: number; as?: MadeAs } = {}) {
    super((tell) => new StandInLaser(tell, seed, as), StandInLaser.HELLO, rate);
  }

  /** Connects, homes, lays the stock, puts the lens in and focuses it, closes the lid and turns the key. */
  async prepare(job: Job, turn = 0): Promise<void> {
    if (this.state.bench === 'off') await this.connect(job);
    if (this.state.bench === 'unhomed') {
      await this.tell({ command: 'home' });
      await this.idle();
    }
    const { stock, cuts, bits } = job;
    const beam = bits.find(({ id }) => id === cuts[0].bit)!;
    const { material, length, width, corners } = stock;
    this.hand({ hand: 'lay', material, length, width, thickness: corners[0], turn });
    this.hand({ hand: 'beam', name: beam.name, spot: beam.diameter });
    this.hand({ hand: 'focus' });
    this.hand({ hand: 'exhaust', on: true });
    this.hand({ hand: 'lid', open: false });
    this.hand({ hand: 'key', on: true });
    await this.tell({ command: 'beam-in', bit: bitShapeOf(bits, beam.id) });
  }

  /** Brings the pointer's spot over a place of the stock, by looking. */
  async pointAt(x: number, y: number): Promise<void> {
    const { stock, tip } = this.machine.look() as Record<'stock' | 'tip', { x: number; y: number; turn: number }>;
    const [sin, cos] = [Math.sin(stock.turn), Math.cos(stock.turn)];
    const spot = (this.state.facts as { spot?: { x: number; y: number } }).spot!;
    await this.step('x', stock.x + x * cos - y * sin - spot.x - tip.x);
    await this.step('y', stock.y + x * sin + y * cos - spot.y - tip.y);
  }

  /** Zero by the pointer at the corner, and the height by the gauge. */
  async zero(job: Job, edge?: number): Promise<void> {
    const basis = basisOf('job', job);
    await this.pointAt(0, 0);
    await this.tell({ command: 'point-zero', basis });
    await this.idle();
    if (edge !== undefined) {
      await this.pointAt(edge, 0);
      await this.tell({ command: 'point-edge', basis });
    }
    await this.tell({ command: 'focused', basis });
  }

  async tickAll(): Promise<void> {
    for (const { id } of laserBench.ticks) await this.tell({ command: 'tick', step: id, on: true, job: 'job' });
  }

  async setUp(job: Job, turn = 0, edge?: number): Promise<void> {
    await this.prepare(job, turn);
    await this.zero(job, edge);
    await this.tickAll();
  }
}
