import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { ArtworkError } from '@kerbe/core/artwork/artwork-error';
import type { Drawing } from '@kerbe/core/artwork/shape';
import { drawingOf, LARGEST_DRAWING } from '@kerbe/core/artwork/svg';
import { readDrawing } from '@kerbe/core/artwork/svg-elements';
import { profileOf } from '@kerbe/core/bits/bit';
import { carvablesOf } from '@kerbe/core/ways/carvable';
import { cannotBeCut } from '@kerbe/core/ways/cannot-be-cut';
import { CutProblem } from '@kerbe/core/ways/cut-problem';
import { refitShapes } from '@kerbe/core/artwork/refit-shapes';
import { areaOf } from '@kerbe/core/artwork/united-shapes';
import type { CutPart } from '@kerbe/core/cuts/cut-part';
import { partsOf } from '@kerbe/core/cuts/parts-of';
import type { Cut } from '@kerbe/core/document/cut';
import type { Job } from '@kerbe/core/document/job';
import { measuredFit } from '@kerbe/core/cuts/inlay/fit-words';
import { missingTabs } from '@kerbe/core/cuts/missing-tabs';
import { newJob } from '@kerbe/core/document/new-job';
import { measurePath } from '@kerbe/core/motion/path';
import { planMotion } from '@kerbe/core/motion/plan';
import { pinchedWords } from '@kerbe/core/cuts/inlay/pinched-words';
import { betweenCuts } from '@kerbe/core/program/between-cuts';
import { type Dialect, DIALECTS } from '@kerbe/core/program/dialect';
import { clearingDetails, detailsOf } from '@kerbe/core/program/programs';
import { type Program, type ProgramCut, writeProgram } from '@kerbe/core/program/write';
import { formatLength } from '@kerbe/core/quantity/format';
import { orderParts } from '@kerbe/core/sequence/order';
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
  let compute_ms = 0;
  const remarks: string[] = [];
  const files: string[] = [];
  const all: CutPart[] = [];
  let minutes = 0;
  try {
    if (bytes.length > LARGEST_DRAWING) throw new ArtworkError('The drawing is larger than 8 MB; simplify its paths.');
    const root = readDrawing(bytes);
    const roles: (string | undefined)[] = order.kind === 'inlay' ? ['recess', 'part'] : [undefined];
    for (const role of roles) {
      const wanted = role ? ({ ...order.cut, role } as Cut) : order.cut;
      const started = performance.now();
      const drawn = drawingOf(root, clipper);
      const drawing = { ...drawn, shapes: refitShapes(drawn.shapes, order.refit).shapes };
      const job = jobFor(order, drawing, wanted);
      const parts = orderParts(
        await partsOf(
          job,
          wanted,
          {
            shapes: drawing.shapes,
            area: () => areaOf(drawing.shapes, clipper),
            carvables: () => carvablesOf(drawing.shapes, clipper),
          },
          clipper,
        ),
      );
      compute_ms += performance.now() - started;
      if (parts.every((part) => part.path.feed.length === 0))
        throw new CutProblem('Nothing is left to cut with these bits; choose a smaller bit.');
      all.push(...parts);
      remarks.push(...drawing.notes, ...remarksOn(parts, wanted, job, drawing));
      const file = role ? order.out.replace(/(\.[^./]*)?$/, `-${role}$1`) : order.out;
      files.push(file);
      const program = programOf(order, parts, wanted, job, role);
      minutes += program.minutes;
      fileOf(() => writeFileSync(file, program.text), file, 'written');
    }
  } catch (error) {
    if (error instanceof ArtworkError || cannotBeCut(error)) throw new Misuse(error.message);
    throw error;
  }
  const report: CutReport = {
    moves: 0,
    cut_mm: 0,
    link_mm: 0,
    lifts: 0,
    seconds: minutes * 60,
    compute_ms: Math.round(compute_ms * 10) / 10,
    deepest: 0,
    remarks: [...new Set(remarks)],
    files,
  };
  for (const { path } of all) {
    const { cut: length, link, lowest, lifts } = measurePath(path);
    report.moves += Math.max(0, path.feed.length - 1);
    report.cut_mm += length;
    report.link_mm += link;
    report.lifts += lifts;
    report.deepest = Math.max(report.deepest, -lowest);
  }
  for (const key of ['cut_mm', 'link_mm', 'seconds', 'deepest'] as const)
    report[key] = Math.round(report[key] * 1000) / 1000;
  return report;
}

function jobFor(order: CutOrder, drawing: Drawing, wanted: Cut): Job {
  const job = newJob(order.art, order.unit, order.bits, usualBench());
  const { thickness } = order;
  Object.assign(job.stock, {
    length: drawing.width,
    width: drawing.height,
    corners: [thickness, thickness, thickness, thickness],
    lift: order.lift,
    zeroXY: order.zero,
  });
  job.cuts = [wanted];
  if ('depth' in wanted && wanted.depth > thickness + job.stock.spoilboard)
    throw new CutProblem(
      `A depth of ${formatLength(wanted.depth, order.unit)} goes through the stock and right through the spoilboard; make it less.`,
    );
  return job;
}

function programOf(
  order: CutOrder,
  parts: readonly CutPart[],
  wanted: Cut,
  job: Job,
  role: string | undefined,
): Program {
  const { limits } = job.bench;
  const made = parts.filter((part) => part.path.feed.length > 0);
  const { length, width } = job.stock;
  const zero = order.zero === 'centre' ? { x: length / 2, y: width / 2, z: 0 } : { x: 0, y: 0, z: 0 };
  // No bench is named here: nobody knows where it parks, or how high it goes.
  const dialect: Dialect = { ...DIALECTS.plain, arcs: order.arcs ? 'centre' : 'none', park: 'stay' };
  const beside = betweenCuts(made, order.lift, dialect, limits);
  const cuts = made.map((part, k): ProgramCut => ({
    id: part.id,
    title: part.id === wanted.id ? `${order.kind}${role ? ` ${role}` : ''}` : `clear for ${order.kind}`,
    bit: {
      number: job.bits.findIndex((bit) => bit.id === part.bit) + 1,
      name: job.bits.find((b) => b.id === part.bit)!.name,
    },
    path: part.path,
    depth: -measurePath(part.path).lowest,
    feed: part.feed,
    plunge: part.plunge,
    speed: part.speed,
    minutes: planMotion(part.path, limits, part.dwells).minutes,
    dwells: part.dwells,
    slope: part.carving ? profileOf(job.bits.find((bit) => bit.id === part.bit)!).slope : 0,
    details: part.clearing ? clearingDetails(part.clearing, order.unit) : detailsOf(wanted, job, part.tabs.length),
    beside: beside[k],
  }));
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
      approach: order.lift,
      park: null,
    },
    cuts,
    zero,
    dialect,
  );
}

/** What a carver should know of a cut made without a job. */
function remarksOn(parts: readonly CutPart[], wanted: Cut, job: Job, drawing: Drawing): string[] {
  const { unit } = job;
  const out: string[] = [];
  const open = drawing.shapes.reduce((sum, shape) => sum + shape.outlines.filter((o) => !o.closed).length, 0);
  if (open > 0 && wanted.kind !== 'drill')
    out.push(`${open === 1 ? 'One outline is' : `${open} outlines are`} open and left out; close them to cut them.`);
  for (const part of parts) {
    if (part.carving && part.carving.tooNarrow > 0.5)
      out.push(
        `${formatLength(part.carving.tooNarrow, unit)} of thin line is narrower than the tip and stays blank; choose a finer tip.`,
      );
    if (part.carving && part.carving.floorArea > 1)
      out.push(
        `The widest strokes would come to a point at ${formatLength(part.carving.fullDepth, unit)}; the depth limit or the bit leaves a flat floor of ${(part.carving.floorArea / 100).toFixed(2)} cm².`,
      );
    if (part.lost > 0 && wanted.kind === 'drill') out.push(`${part.lost} outlines are neither circles nor points.`);
    else if (part.lost > 0) out.push(`The bit does not fit into ${part.lost} of the outlines, which are left out.`);
    if (part.left > 1)
      out.push(
        `${(part.left / 100).toFixed(2)} cm² in corners and narrow places stays; inner corners have a radius of ${formatLength(profileOf(job.bits[0]).radius, unit, 2)}.`,
      );
    const missing = missingTabs(wanted, part);
    if (missing > 0)
      out.push(
        `${missing} of the tabs have no place where they would stand, and are left out; make them shorter or fewer.`,
      );
    if (part.noLead > 0) out.push(`${part.noLead} outlines have no room for the lead, and are entered straight.`);
    if (part.pinched) out.push(pinchedWords(part.pinched));
    if (part.gap) out.push(`Part and recess fit with ${measuredFit(part.gap, unit)}, all round.`);
  }
  return out;
}
