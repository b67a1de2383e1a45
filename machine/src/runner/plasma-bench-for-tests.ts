import { shapesOf } from '@kerbe/core/compute/compute';
import type { JobResult } from '@kerbe/core/compute/compute';
import { cutArtwork } from '@kerbe/core/cuts/cut-artwork';
import { areaKept } from '@kerbe/core/cuts/plasma/area-kept';
import type { PlasmaCut } from '@kerbe/core/cuts/plasma/fields';
import type { Job } from '@kerbe/core/document/job';
import type { Clipper, Loops } from '@kerbe/core/geometry/clipper';
import { fromChart } from '@kerbe/core/tools/nozzle/chart';
import type { Nozzle } from '@kerbe/core/tools/nozzle/fields';
import { plasmaBench } from '../kinds/plasma/bench-kind.ts';
import type { Hand } from '../kinds/plasma/stand-in/hands.ts';
import { StandInPlasma } from '../kinds/plasma/stand-in/plasma-table.ts';
import { BenchForTests } from './bench-for-tests.ts';
import { basisOf, bitShapeOf } from './of-job.ts';

/** A runner and a simulated plasma table. */
export class PlasmaBenchForTests extends BenchForTests<Hand, StandInPlasma> {
  constructor({ seed = 7, rate = 5 }: { seed?: number; rate?: number } = {}) {
    super((tell) => new StandInPlasma(tell, seed), StandInPlasma.HELLO, rate);
  }

  /** Connects, homes, lays the sheet, clamps it, and puts the nozzle in. */
  async prepare(job: Job, turn = 0, drawn: number[][] = []): Promise<void> {
    if (this.state.bench === 'off') await this.connect(job);
    if (this.state.bench === 'unhomed') {
      await this.tell({ command: 'home' });
      await this.idle();
    }
    const { stock, cuts, bits } = job;
    const nozzle = bits.find(({ id }) => id === cuts[0].bit) as Nozzle;
    const { kerf, pierceHeight, cutHeight, volts, feed } = fromChart(nozzle, stock.material, stock.corners[0])!.row;
    this.hand({ hand: 'sheet', length: stock.length, width: stock.width, thickness: stock.corners[0], turn, drawn });
    this.hand({ hand: 'clamp', on: true });
    this.hand({ hand: 'fume', on: true });
    this.hand({ hand: 'nozzle', name: nozzle.name, kerf, pierceHeight, cutHeight, volts, feed });
    await this.tell({ command: 'nozzle-in', bit: bitShapeOf(bits, nozzle.id) });
  }

  /** Brings the pointer's spot over a place of the sheet, by looking. */
  async pointAt(x: number, y: number): Promise<void> {
    const { sheet, tip } = this.machine.look() as { sheet: { x: number; y: number; turn: number }; tip: { x: number; y: number } }; // prettier-ignore
    const [sin, cos] = [Math.sin(sheet.turn), Math.cos(sheet.turn)];
    await this.step('x', sheet.x + x * cos - y * sin - 45 - tip.x);
    await this.step('y', sheet.y + x * sin + y * cos - tip.y);
  }

  /** Zero by the pointer at the corner, the sheet felt for 40 mm inside it. */
  async zero(job: Job, edge?: number): Promise<void> {
    const basis = basisOf('job', job);
    await this.pointAt(0, 0);
    await this.tell({ command: 'point-zero', basis });
    await this.idle();
    if (edge !== undefined) {
      await this.pointAt(edge, 0);
      await this.tell({ command: 'point-edge', basis });
    }
    await this.pointAt(40 + 45, 40);
    await this.tell({ command: 'feel-sheet', basis });
    await this.idle();
  }

  async tickAll(): Promise<void> {
    for (const { id } of plasmaBench.ticks) await this.tell({ command: 'tick', step: id, on: true, job: 'job' });
  }

  async setUp(job: Job, turn = 0, edge?: number, drawn?: number[][]): Promise<void> {
    await this.prepare(job, turn, drawn);
    await this.zero(job, edge);
    await this.tickAll();
  }
}

/** What is left of the sheet, without what fell, by the kerfs that were really cut. */
export function cutOut({ sheet }: StandInPlasma, clipper: Clipper): Loops {
  const capsules = sheet!.kerfs.map(({ ax, ay, bx, by, width }) => {
    const r = width / 2;
    const angle = Math.atan2(by - ay, bx - ax);
    const n = 48;
    const points: number[] = [];
    for (let k = 0; k <= n; k++) points.push(bx + r * Math.cos(angle - Math.PI / 2 + (Math.PI * k) / n), by + r * Math.sin(angle - Math.PI / 2 + (Math.PI * k) / n)); // prettier-ignore
    for (let k = 0; k <= n; k++) points.push(ax + r * Math.cos(angle + Math.PI / 2 + (Math.PI * k) / n), ay + r * Math.sin(angle + Math.PI / 2 + (Math.PI * k) / n)); // prettier-ignore
    return Float64Array.from(points);
  });
  const whole = Float64Array.of(0, 0, sheet!.length, 0, sheet!.length, sheet!.width, 0, sheet!.width);
  return clipper.difference([whole], clipper.union(capsules, 'nonzero'));
}

/** What a job's parts are to be: what is enclosed by the lines of its kerfs, less half a kerf. */
export function partsOf(result: JobResult, job: Job, clipper: Clipper): Loops {
  const [cut] = job.cuts as PlasmaCut[];
  const shapes = shapesOf(cut, result.items);
  const artwork = cutArtwork(shapes, clipper);
  const { area } = areaKept(cut, artwork, clipper);
  return clipper.offset(clipper.offset(area, cut.kerf / 2), -cut.kerf / 2);
}

export const NOTHING_DAMAGED = { nozzleTouched: 0, piercedLow: 0, cutInAir: 0, ranIntoTipped: 0, kerfTwice: 0 };
