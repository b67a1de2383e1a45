import type { JobResult } from '@kerbe/core/compute/compute';
import type { BaseTool } from '@kerbe/core/document/tool';
import { takenOut } from '@kerbe/core/tools/leaves';
import { toolKindOf } from '@kerbe/core/tools/kinds';
import { shapeInWords, toolShape } from '@kerbe/core/tools/tool-shape';
import type { LengthUnit } from '@kerbe/core/quantity/units';
import { degrees } from '@kerbe/core/quantity/units';
import { PLAIN, type Variant } from '@kerbe/core/machines/program-variant';
import type { Job } from '@kerbe/core/document/job';
import type { Program } from '@kerbe/core/program/write';
import { approachOver } from '@kerbe/core/program/approach';
import { zeroOf } from '@kerbe/core/stock/stock';
import { benchKindOf } from '../kinds/bench-kinds.ts';
import type { BenchFacts } from './bench-facts.ts';
import type { ProgramOrder } from './commands.ts';
import type { Basis, BitShape } from './zero.ts';

/** What the runner has to know of the bench that a job is for. */
export function benchFactsOf({ bench }: Pick<Job, 'bench'>): BenchFacts {
  return benchKindOf(bench).factsOf(bench);
}

/** What a zero of a job is a zero of, as the job stands now. */
export function basisOf(id: string, { name, stock, bench }: Pick<Job, 'name' | 'stock' | 'bench'>): Basis {
  const { x, y } = zeroOf(stock);
  return {
    job: { id, name },
    stock: { material: stock.material, length: stock.length, width: stock.width },
    fixture: stock.holdDown,
    placeXY: stock.zeroXY,
    placeZ: stock.zeroZ,
    at: { x, y },
    corners: stock.corners,
    ...benchKindOf(bench).basisOf(bench),
  };
}

/** A bit as the bench knows it; namesakes of one job are told apart by their numbers in the program. */
export function bitShapeOf(bits: readonly BaseTool[], id: string, unit: LengthUnit = 'mm'): BitShape {
  const k = bits.findIndex((bit) => bit.id === id);
  const { name, diameter } = bits[k];
  const { turns, conducts, spring } = toolKindOf(bits[k]);
  const { flat = 0, slope = 0 } = takenOut(toolKindOf(bits[k]).leaves(bits[k])) ?? {};
  const pointed = slope > 0;
  const angle = pointed ? Math.round(2e6 * degrees(Math.atan(slope))) / 1e6 : undefined;
  const twin = bits.some((bit) => bit.id !== id && bit.name === name);
  return {
    id,
    name: twin ? `${name} (T${k + 1})`.slice(0, 80) : name,
    diameter,
    angle,
    tip: pointed ? 2 * flat : 0,
    turns,
    conducts,
    spring: spring?.(bits[k]) ?? null,
    shape: toolShape(bits[k]),
    words: shapeInWords(bits[k], unit),
  };
}

/** A job's program as the runner is to check and run it. */
export function orderOf(
  id: string,
  job: Job,
  result: Pick<JobResult, 'cuts'>,
  program: Program,
  revision: string,
  hash: string,
  { turn, dry }: Pick<Variant, 'turn' | 'dry'> = PLAIN,
): ProgramOrder {
  const made = new Map(result.cuts.map((cut) => [cut.id, cut]));
  return {
    hash,
    job: job.name,
    jobId: id,
    revision,
    basis: basisOf(id, job),
    bench: benchFactsOf(job),
    plannedMinutes: program.minutes,
    limits: job.bench.limits,
    approach: approachOver(job, result.cuts) - zeroOf(job.stock).z,
    switchedOnBy: benchKindOf(job.bench).switchedOnBy(job.bench),
    turn,
    dry,
    cuts: program.cuts.map((cut) => {
      const { bit, plunge } = made.get(cut.id)!;
      return { title: cut.title, from: cut.from, to: cut.to, bit: bitShapeOf(job.bits, bit, job.unit), plunge };
    }),
  };
}
