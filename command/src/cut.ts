import { OwnFault } from '@kerbe/core/schema/own-fault';
import { Told } from '@kerbe/core/schema/told';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { parseArtwork } from '@kerbe/core/artwork/formats/formats';
import type { Drawing } from '@kerbe/core/artwork/shape';
import { compute, type JobResult } from '@kerbe/core/compute/compute';
import type { CutJob } from '@kerbe/core/job/job';
import { type Cut, kindOf } from '@kerbe/core/cuts/kinds';
import { newJob } from '@kerbe/core/document/new-job';
import { type Clipper } from '@kerbe/core/geometry/clipper';
import { measurePath, movesOf } from '@kerbe/core/motion/path';
import { strokeStarts } from '@kerbe/core/motion/piercing';
import { approachOver } from '@kerbe/core/program/approach';
import { betweenCuts } from '@kerbe/core/program/between-cuts';
import { machineKindOf } from '@kerbe/core/machines/kinds';
import type { Dialect } from '@kerbe/core/program/dialect';
import { programCut } from '@kerbe/core/machines/program-cut';
import { clearingDetails, detailsOf } from '@kerbe/core/machines/programs';
import { type Program, writeProgram } from '@kerbe/core/program/write';
import { formatLength } from '@kerbe/core/quantity/format';
import type { CutResult } from '@kerbe/core/sequence/cut-result';
import { clipperFromDisk } from '@kerbe/machine/core-from-disk';
import { usualBench } from './bench-limits.ts';
import { type CutOrder, readCutOptions } from './cut-options.ts';
import { fileOf, Misuse } from './misuse.ts';

/** What `./kerbe cut` prints: lengths in mm, times in seconds unless the name says otherwise. */
export interface CutReport {
  moves: number;
  cut_mm: number;
  link_mm: number;
  lifts: number;
  /** How often it pierces, of cuts that do. */
  pierces?: number;
  seconds: number;
  compute_ms: number;
  deepest: number;
  remarks: string[];
  files: string[];
}

/** `./kerbe cut KIND ART.svg … --out FILE`: one cut of a whole drawing, without a job. Prints one JSON object. */
export async function cut(args: string[]): Promise<void> {
  console.log(JSON.stringify(await cutToFiles(readCutOptions(args))));
}

/** Cuts a drawing and writes its program; an inlay writes two. @throws {Misuse} with one sentence. */
export async function cutToFiles(order: CutOrder): Promise<CutReport> {
  if (!existsSync(order.art)) throw new Misuse(`There is no file ${order.art}.`);
  const bytes = fileOf(() => readFileSync(order.art), order.art, 'read');
  const clipper = await clipperFromDisk();
  const report: CutReport = {
    moves: 0,
    cut_mm: 0,
    link_mm: 0,
    lifts: 0,
    seconds: 0,
    compute_ms: 0,
    deepest: 0,
    remarks: [],
    files: [],
  };
  const remarks = new Set<string>();
  for (const wanted of [order.cut, ...(kindOf<Cut>(order.cut).beside?.(order.cut) ?? [])]) {
    const { job, result, drawing, milliseconds } = await computed(order, wanted, bytes, clipper);
    report.compute_ms += milliseconds;
    for (const said of [...drawing.notes, ...notesOn(result.cuts, wanted, job)]) remarks.add(said);
    const half = kindOf(wanted).half?.(wanted);
    const file = half ? order.out.replace(/(\.[^./]*)?$/, `-${half}$1`) : order.out;
    const program = programOf(order, result.cuts, wanted, job, half);
    fileOf(() => writeFileSync(file, program.text), file, 'written');
    report.files.push(file);
    report.seconds += program.minutes * 60;
    for (const { path, pierce } of result.cuts) {
      const { cut: length, link, lowest, lifts } = measurePath(path);
      report.moves += movesOf(path);
      report.cut_mm += length;
      report.link_mm += link;
      report.lifts += lifts;
      if (pierce) report.pierces = (report.pierces ?? 0) + strokeStarts(path).length;
      report.deepest = Math.max(report.deepest, -lowest);
    }
  }
  for (const key of ['cut_mm', 'link_mm', 'seconds', 'compute_ms', 'deepest'] as const)
    report[key] = Math.round(report[key] * 1000) / 1000;
  return { ...report, remarks: [...remarks] };
}

interface Computed {
  job: CutJob;
  result: JobResult;
  drawing: Drawing;
  /** From the parsed outlines to ordered paths. */
  milliseconds: number;
}

/** A job of one cut, computed. @throws {Misuse} for what cannot be cut. */
async function computed(order: CutOrder, wanted: Cut, bytes: Uint8Array, clipper: Clipper): Promise<Computed> {
  try {
    const outlines = parseArtwork(bytes);
    const started = performance.now();
    const drawing = outlines(clipper);
    const job = jobFor(order, drawing, wanted);
    let milliseconds = 0;
    const result = await compute(job, { drawing: () => drawing, face: () => undefined, clipper }, clipper, {
      unjudged: true,
      laid: () => (milliseconds = performance.now() - started),
    });
    const fault = result.cuts.find(({ ownFault }) => ownFault);
    if (fault) throw new OwnFault(fault.problem);
    const problem = [...result.items, ...result.cuts].find((made) => made.problem !== undefined)?.problem;
    if (problem !== undefined) throw new Misuse(problem);
    if (result.cuts.every((part) => part.path.feed.length === 0))
      throw new Misuse('Nothing is left to cut with these bits; choose a smaller bit.');
    const deepest = Math.max(...result.cuts.map(({ depth }) => depth));
    if (deepest > order.thickness + job.stock.spoilboard)
      throw new Misuse(
        `A depth of ${formatLength(deepest, order.unit)} goes through the stock and right through the spoilboard; make it less.`,
      );
    return { job, result, drawing, milliseconds };
  } catch (error) {
    if (error instanceof Told && !(error instanceof OwnFault)) throw new Misuse(error.message);
    throw error;
  }
}

function jobFor(order: CutOrder, drawing: Drawing, wanted: Cut): CutJob {
  const job: CutJob = newJob(order.art, order.unit, order.bits, { ...usualBench(order.bits[0].kind), lag: 0 });
  const { thickness } = order;
  Object.assign(job.stock, {
    length: drawing.width,
    width: drawing.height,
    corners: [thickness, thickness, thickness, thickness],
    lift: order.lift,
    zeroXY: order.zero,
  });
  job.artwork = [
    {
      kind: 'drawing',
      id: wanted.targets[0].item,
      name: order.art,
      asset: '',
      x: 0,
      y: 0,
      rotation: 0,
      scaleX: 1,
      scaleY: 1,
      closeOpen: false,
      refit: order.refit,
    },
  ];
  job.cuts = [wanted];
  return job;
}

function programOf(
  order: CutOrder,
  parts: readonly CutResult[],
  wanted: Cut,
  job: CutJob,
  half: string | undefined,
): Program {
  const made = parts.filter((part) => part.path.feed.length > 0);
  const { length, width } = job.stock;
  const zero = order.zero === 'centre' ? { x: length / 2, y: width / 2, z: 0 } : { x: 0, y: 0, z: 0 };
  // No bench is named here: nobody knows where it parks, or how high it goes.
  const dialect: Dialect = {
    ...machineKindOf(job.bench).dialect(job.bench),
    arcs: order.arcs ? 'centre' : 'none',
    park: 'stay',
  };
  const approach = approachOver(job, made);
  const beside = betweenCuts(made, approach, dialect, job.bench.limits);
  const cuts = made.map((part, k) =>
    programCut(part, job, beside[k], {
      title: part.id === wanted.id ? [order.kind, half].filter(Boolean).join(' ') : `clear for ${order.kind}`,
      details: part.clearing ? clearingDetails(part.clearing, order.unit) : detailsOf(wanted, job, part.tabs.length),
    }),
  );
  return writeProgram(
    {
      job: order.art.split('/').at(-1)!,
      revision: 'file',
      date: new Date().toISOString().slice(0, 10),
      stock: `page ${formatLength(length, order.unit)} × ${formatLength(width, order.unit)}`,
      zero: `${order.zero === 'centre' ? 'centre' : 'lower left corner'} of the page, top of the stock`,
      bench: job.bench.name,
      unit: order.unit,
      lift: order.lift,
      approach,
      park: null,
    },
    cuts,
    zero,
    dialect,
  );
}

/** What a carver should know of a cut made without a job. */
function notesOn(parts: readonly CutResult[], wanted: Cut, job: CutJob): string[] {
  const out: string[] = [];
  const { openOutlines: open } = parts[0];
  const kind = kindOf(wanted);
  if (open > 0 && kind.closedOnly)
    out.push(
      open === 1
        ? 'One outline is open and left out; close it to cut it.'
        : `${open} outlines are open and left out; close them to cut them.`,
    );
  for (const part of parts) out.push(...(kind.notes?.(wanted, part, job.bits[0], job.unit) ?? []));
  return out;
}
