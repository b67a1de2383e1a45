import type { CutJob } from '@kerbe/core/job/job';
import { expose, transfer } from 'comlink';
import { ArtworkError } from '@kerbe/core/artwork/artwork-error';
import { readFace } from '@kerbe/core/artwork/lettering';
import type { PlacedItem, Resources } from '@kerbe/core/artwork/place';
import type { Drawing } from '@kerbe/core/artwork/shape';
import { importArtwork } from '@kerbe/core/artwork/formats/formats';
import { carveField } from '@kerbe/core/carving/height-field';
import { marksAlong, type MetMark } from '@kerbe/core/carving/marks-along';
import { CarvedMoves } from '@kerbe/core/carving/section';
import { type Clipper, loadClipper } from '@kerbe/core/geometry/clipper';
import { type CutKindName, kindOf } from '@kerbe/core/cuts/kinds';
import { proposed } from '@kerbe/core/cuts/propose';
import type { BaseCut, Target } from '@kerbe/core/document/cut';
import { compute, ComputeCache, type JobResult, shapesOf } from '@kerbe/core/compute/compute';
import type { Face } from '@kerbe/core/document/item';
import { kerfFinding, kerfTaken } from '@kerbe/core/program/kerf-taken';
import type { Path } from '@kerbe/core/motion/path';
import { checkProgram } from '@kerbe/core/program/check';
import { type ReadProgram, readingProgram } from '@kerbe/core/program/read';
import { measureQuicker, outcomeOf, type Quicker } from '@kerbe/core/remarks/quicker';
import { thicknessAt } from '@kerbe/core/stock/stock';
import { buffersOf } from '../sheet/lines.ts';
import wasmUrl from 'clipper2-wasm/dist/es/clipper2z.wasm?url';
import frauncesUrl from '@expo-google-fonts/fraunces/600SemiBold/Fraunces_600SemiBold.ttf?url';
import josefinUrl from '@expo-google-fonts/josefin-sans/600SemiBold/JosefinSans_600SemiBold.ttf?url';
import rokkittUrl from '@expo-google-fonts/rokkitt/600SemiBold/Rokkitt_600SemiBold.ttf?url';
import {
  buffersIn,
  cutView,
  type CutView,
  type ForeignProgram,
  type ItemView,
  itemView,
  type JobView,
  marksView,
  pathView,
} from './job-view.ts';
import { keepView, keptView, type KeptView } from './kept-views.ts';
import { nearestAtDepth } from './nearest-at-depth.ts';
import { reliefOf, type Relief } from './relief.ts';

const FACE_URLS: Record<Face, string> = { fraunces: frauncesUrl, josefin: josefinUrl, rokkitt: rokkittUrl };

const cache = new ComputeCache();
/** Drawings that were read, or why one could not be. */
const drawings = new Map<string, Drawing | ArtworkError>();
const faces = new Map<Face, ReturnType<typeof readFace>>();
let clipper: Promise<Clipper> | undefined;
let running: AbortController | undefined;
/** The artwork that was sent last, and which sending that was; no thread begins where one before it left off. */
let sent: { turn: number; items: readonly PlacedItem[] } = { turn: Math.random(), items: [] };
/** How a program from elsewhere takes off the kerf of the job’s cuts, where that has to be told. */
/** Counts programs that were begun to be read, or given up. */
let reading = 0;

/** A program from elsewhere; nothing where it was given up. */
async function readInParts(text: string): Promise<ReadProgram | undefined> {
  const mine = ++reading;
  const parts = readingProgram(text);
  for (;;) {
    const { done, value } = parts.next();
    if (done) return value;
    await new Promise((resolve) => setTimeout(resolve, 0));
    if (mine !== reading) return undefined;
  }
}

function foreignKerf({ beside }: ReadProgram, laid: Path): string | undefined {
  const { job, result } = latest!;
  const made = result.cuts.find(({ kerf, leaves }) => kerf !== undefined && leaves.kind === 'kerf');
  if (!made || made.leaves.kind !== 'kerf') return undefined;
  const shapes = job.cuts.flatMap((cut) => shapesOf(cut, result.items));
  const { width } = made.leaves;
  const taken = kerfTaken(
    laid,
    shapes.flatMap(({ outlines }) => outlines),
    width,
    beside,
  );
  return kerfFinding(taken, made.kerf!, width, job.unit);
}

let latest: { job: CutJob; result: JobResult; moves: CarvedMoves } | undefined;

async function bytes(url: string): Promise<Uint8Array> {
  const response = await fetch(url);
  if (!response.ok) throw new Error(`${url} answered ${response.status}`);
  return new Uint8Array(await response.arrayBuffer());
}

/** Drawings are fetched one by one, which a browser keeps, unless there are more than this. */
const FEW = 8;

/** Numbers of lines that somebody draws on a sheet by hand, at most. */
const MOST_DRAWN = 12_000;

/** Drawings by their hashes; those that the server does not have are left out. */
function fetched(hashes: readonly string[]): Promise<[hash: string, data: Uint8Array][]>[] {
  if (hashes.length > FEW) return [bundle(hashes)];
  return hashes.map(async (hash): Promise<[string, Uint8Array][]> => {
    const data = await bytes(`/api/assets/${hash}`).catch(() => undefined);
    return data ? [[hash, data]] : [];
  });
}

/** Many drawings in one answer: of each its length, four bytes with the lowest first, and its bytes. */
async function bundle(hashes: readonly string[]): Promise<[string, Uint8Array][]> {
  const response = await fetch('/api/assets/bundle', {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ hashes }),
  }).catch(() => undefined);
  if (!response?.ok) return [];
  const all = new Uint8Array(await response.arrayBuffer());
  const view = new DataView(all.buffer);
  const out: [string, Uint8Array][] = [];
  let at = 0;
  for (const hash of hashes) {
    const length = view.getUint32(at, true);
    at += 4;
    if (length > 0) out.push([hash, all.slice(at, at + length)]);
    at += length;
  }
  return out;
}

async function gather(job: CutJob, library: Clipper): Promise<Resources> {
  const wanted = job.artwork.flatMap((item) =>
    item.kind === 'drawing' && !drawings.has(item.asset) ? [item.asset] : [],
  );
  const letters = job.artwork.flatMap((item) =>
    item.kind === 'lettering' && !faces.has(item.face) ? [item.face] : [],
  );
  await Promise.all([
    ...fetched([...new Set(wanted)]).map(async (fetching) => {
      for (const [hash, data] of await fetching) drawings.set(hash, readOnce(data, library));
    }),
    ...[...new Set(letters)].map(async (face) => void faces.set(face, readFace(await bytes(FACE_URLS[face])))),
  ]);
  return {
    drawing(hash) {
      const drawing = drawings.get(hash);
      if (drawing instanceof ArtworkError) throw drawing;
      return drawing;
    },
    face: (name) => faces.get(name),
    clipper: library,
  };
}

function readOnce(data: Uint8Array, library: Clipper): Drawing | ArtworkError {
  try {
    return importArtwork(data, library);
  } catch (error) {
    if (error instanceof ArtworkError) return error;
    throw error;
  }
}

/** What took less, ms, is as soon computed anew. */
const WORTH_KEEPING = 150;
/** A result is kept when nothing else was computed for so long, ms. */
const KEEP_AFTER = 1500;
let keeping: ReturnType<typeof setTimeout> | undefined;

const api = {
  /** What a job came to when it was computed last, so that it is seen at once. */
  async kept(job: CutJob): Promise<KeptView | undefined> {
    const found = await keptView(job);
    return (
      found && transfer(found, [...found.items.flatMap(({ lines }) => buffersOf(lines)), ...buffersIn(found.view)])
    );
  },

  /** Computes a job; one that is still being computed is given up. Undefined where this one was given up itself. */
  async compute(
    job: CutJob,
    progress: (share: number, doing: string) => void,
    placed: (items: ItemView[], turn: number) => void,
    have: number,
    early: (cut: string, marks: CutView['marks']) => void,
  ): Promise<JobView | undefined> {
    running?.abort();
    const mine = new AbortController();
    running = mine;
    const started = performance.now();
    try {
      clipper ??= bytes(wasmUrl).then(loadClipper);
      const library = await clipper;
      const resources = await gather(job, library);
      const result = await compute(job, resources, library, {
        cache,
        signal: mine.signal,
        progress,
        early: ({ id }, marks) => early(id, marksView(marks)),
        // The sheet shows what was typed or moved before the cuts are worked out; what it has is not sent again.
        placed(items) {
          if (
            have === sent.turn &&
            items.length === sent.items.length &&
            items.every((item, k) => item === sent.items[k])
          )
            return;
          sent = { turn: sent.turn + 1, items };
          placed(items.map(itemView), sent.turn);
        },
      });
      latest = { job, result, moves: new CarvedMoves(result.cuts) };
      const view: JobView = {
        cuts: result.cuts.map((part) => {
          const cut = job.cuts.find(({ id }) => id === part.cut);
          return cutView(part, cut && kindOf(cut));
        }),
        minutes: result.minutes,
        besideMinutes: result.beside.reduce((sum, { before, after }) => sum + before + after, 0),
        bitChanges: result.bitChanges,
        bits: result.bits,
        remarks: result.remarks,
        left: result.left,
        milliseconds: performance.now() - started,
      };
      clearTimeout(keeping);
      if (view.milliseconds > WORTH_KEEPING) {
        // Copied now, since what is handed over is gone; and not while one number after the other is changed.
        const copy = structuredClone(view);
        const items = sent.items.map(itemView);
        keeping = setTimeout(() => void keepView(job, items, copy), KEEP_AFTER);
      }
      return transfer(view, buffersIn(view));
    } catch (error) {
      if (mine.signal.aborted) return undefined;
      throw error;
    } finally {
      if (running === mine) running = undefined;
    }
  },

  /** Ways to be done sooner, each measured; given up when the job is computed anew or cancelled. */
  async quicker(progress: (share: number) => void): Promise<Quicker[]> {
    if (!latest) return [];
    const { job, result } = latest;
    running?.abort();
    const mine = new AbortController();
    running = mine;
    try {
      const library = await clipper!;
      const resources = await gather(job, library);
      return await measureQuicker(
        job,
        outcomeOf(result),
        async (changed) =>
          mine.signal.aborted
            ? undefined
            : outcomeOf(await compute(changed, resources, library, { cache, signal: mine.signal, unjudged: true })),
        progress,
      );
    } catch (error) {
      if (mine.signal.aborted) return [];
      throw error;
    } finally {
      if (running === mine) running = undefined;
    }
  },

  cancel(): void {
    running?.abort();
  },

  /**
   * Reads a drawing ahead, while the server takes it in: the sheet has it as soon as the job has.
   * @returns why it cannot be used, in one sentence; nothing where it can.
   */
  async readAhead(file: Blob): Promise<string | undefined> {
    const data = new Uint8Array(await file.arrayBuffer());
    const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', data));
    const hash = Array.from(digest, (byte) => byte.toString(16).padStart(2, '0')).join('');
    clipper ??= bytes(wasmUrl).then(loadClipper);
    const library = await clipper;
    const drawing = drawings.get(hash) ?? readOnce(data, library);
    drawings.set(hash, drawing);
    return drawing instanceof ArtworkError ? drawing.message : undefined;
  },

  /** What a new cut of a kind would work on by itself, and why; nothing where nothing suits. */
  propose(
    kind: CutKindName,
    bit: string,
    cuts: readonly BaseCut[],
  ): { targets: Target[]; shapes: number; why: string } | undefined {
    const tool = latest?.job.bits.find(({ id }) => id === bit);
    if (!latest || !tool) return undefined;
    for (const proposal of kindOf({ kind }).proposes(tool)) {
      const found = proposed(proposal, latest.result.items, cuts);
      if (found.shapes > 0) return { ...found, why: proposal.why };
    }
    return undefined;
  },

  /** Heights along a line over the work, mm from the top of the thickest corner, the stock's thickness there, and the marks that it meets. Undefined before anything was computed. */
  section(
    x0: number,
    y0: number,
    x1: number,
    y1: number,
    count: number,
  ): { heights: Float64Array; thickness: Float64Array; marks: MetMark[] } | undefined {
    if (!latest) return undefined;
    const { stock } = latest.job;
    const heights = latest.moves.along(x0, y0, x1, y1, count);
    const thickness = Float64Array.from({ length: count }, (_, i) => {
      const t = i / Math.max(1, count - 1);
      return thicknessAt(stock, x0 + (x1 - x0) * t, y0 + (y1 - y0) * t);
    });
    return { heights, thickness, marks: marksAlong(latest.result.cuts, x0, y0, x1, y1) };
  },

  /** The place on a cut's deepest way that is nearest to a point of the sheet. */
  nearestOn(cut: string, x: number, y: number): { x: number; y: number } | undefined {
    const path = latest?.result.cuts.find((part) => part.id === cut)?.path;
    return path && nearestAtDepth(path, x, y);
  },

  /** What the cuts are made from, x and y in turn, mm; nothing where that is more than anyone draws by hand. */
  drawn(): number[][] {
    if (!latest) return [];
    const { job, result } = latest;
    const lines = job.cuts
      .flatMap((cut) => shapesOf(cut, result.items))
      .flatMap(({ outlines }) =>
        outlines.map(({ points, closed }) =>
          [...points, ...(closed ? points.slice(0, 2) : [])].map((v) => Math.round(v * 100) / 100),
        ),
      );
    return lines.reduce((sum, { length }) => sum + length, 0) > MOST_DRAWN ? [] : lines;
  },

  /** Gives up a program that is being read. */
  stopReading(): void {
    reading++;
  },

  /** A program from elsewhere on this job's sheet; nothing where another is read, or this one was given up. @throws with one sentence where it holds no moves. */
  async foreign(name: string, text: string): Promise<ForeignProgram | undefined> {
    if (!latest) return undefined;
    const read = await readInParts(text);
    if (!read || !latest) return undefined;
    const { path, minutes, deepest, findings } = checkProgram(read, latest.job);
    const kerf = foreignKerf(read, path);
    if (kerf) findings.push(kerf);
    return {
      name,
      lines: text.split('\n').length,
      minutes,
      deepest,
      bits: read.bits.map(({ number }) => number),
      findings,
      notes: read.notes,
      whole: read.whole,
      ...pathView(path),
    };
  },

  /** The carved piece as triangles, on a grid of about `most` cells. */
  relief(most: number): Relief | undefined {
    if (!latest) return undefined;
    const { stock } = latest.job;
    const cell = Math.max(0.25, Math.sqrt((stock.length * stock.width) / most));
    return reliefOf(carveField(latest.result.cuts, stock.length, stock.width, cell), latest.job, latest.result.cuts);
  },
};

export type ComputeWorker = typeof api;

expose(api);
