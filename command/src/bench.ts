import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import Delaunator from 'delaunator';
import { importSvg } from '@kerbe/core/artwork/svg';
import { carveField } from '@kerbe/core/carving/height-field';
import { checkWalls } from '@kerbe/core/carving/wall-check';
import { carvablesOf } from '@kerbe/core/cuts/carvable';
import { vCarve } from '@kerbe/core/cuts/v-carve';
import type { Loops } from '@kerbe/core/geometry/clipper';
import { hardOutlines } from '@kerbe/core/geometry/hard-outlines';
import { lengthOf } from '@kerbe/core/geometry/outline';
import { areaOf } from '@kerbe/core/artwork/united-shapes';
import { compute, ComputeCache } from '@kerbe/core/job/compute';
import { FACES } from '@kerbe/core/job/job';
import { bytesFromBase64, readJobFile } from '@kerbe/core/job/job-file';
import type { Path } from '@kerbe/core/motion/path';
import type { Track } from '@kerbe/core/motion/track';
import { orderTracks } from '@kerbe/core/sequence/order-tracks';
import { clipperFromDisk, resourcesFromDisk } from '@kerbe/machine/core-from-disk';
import { letterPage } from './bench-page.ts';
import type { CutReport } from './cut.ts';
import { ROOT } from './paths.ts';

const ROUNDS = 5;

/** `./kerbe bench`: times and accuracy, each against a reference in the same run. Prints a table. */
export async function bench(): Promise<void> {
  const folder = mkdtempSync(`${tmpdir()}/kerbe-bench-`);
  try {
    await cutting(folder);
    await accuracy();
    await wholeJobs();
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

function row(what: string, value: string, wanted = ''): void {
  console.log(`${what.padEnd(58)} ${value}${wanted ? `  (wanted: ${wanted})` : ''}`);
}

/** Cuts of whole pages, each in a fresh process; the reference is one Delaunay triangulation of the same outline. */
async function cutting(folder: string): Promise<void> {
  const clipper = await clipperFromDisk();
  const growth: number[] = [];
  for (const [letters, differ, most] of [
    [400, false, 2],
    [400, true, 3.5],
    [4000, false, 0],
  ] as const) {
    const file = `${folder}/page.svg`;
    writeFileSync(file, letterPage(letters, { differ }));
    const { area } = areaOf(importSvg(readFileSync(file)).shapes, clipper);
    const metres = area.reduce((sum, points) => sum + lengthOf({ points, closed: true }), 0) / 1000;
    const samples = sampled(area, 0.2);
    const reference = median(() => {
      const t = performance.now();
      new Delaunator(samples);
      return performance.now() - t;
    });
    const cut = (args: string) => {
      const { stdout, stderr } = spawnSync(`${ROOT}/kerbe`, ['cut', ...args.split(' '), '--out', `${folder}/out.nc`], {
        encoding: 'utf8',
      });
      if (!stdout) throw new Error(stderr);
      return JSON.parse(stdout) as CutReport;
    };
    const times = Array.from({ length: ROUNDS }, () => cut(`v-carve ${file} --bit v60:12.7 --max-depth 8`).compute_ms);
    const carve = times.sort((a, b) => a - b)[ROUNDS >> 1];
    growth.push(carve);
    row(
      `V-carve, ${letters} letters${differ ? ' that all differ' : ''}, ${metres.toFixed(1)} m of outline`,
      `${carve.toFixed(0)} ms = ${(carve / reference).toFixed(1)} × one Delaunay every 0.2 mm (${reference.toFixed(0)} ms)`,
      most ? `at most ${most} ×` : '',
    );
    if (letters !== 400 || differ) continue;
    const pocket = median(() => cut(`pocket ${file} --bit end:0.8 --depth 2 --depth-per-pass 1`).compute_ms);
    const profile = cut(`profile ${file} --bit end:1 --depth 2 --depth-per-pass 1`);
    const arcs = lines(`${folder}/out.nc`);
    cut(`profile ${file} --bit end:1 --depth 2 --depth-per-pass 1 --no-arcs`);
    const straight = lines(`${folder}/out.nc`);
    row('Pocket of that page, 0.8 mm bit', `${pocket.toFixed(0)} ms`, 'under 1000 ms');
    row('Profile of that page, 1 mm bit', `${profile.compute_ms.toFixed(0)} ms`, 'under 1000 ms');
    row(
      'Lines of that program with arcs against without',
      `${arcs} to ${straight} = ${(arcs / straight).toFixed(2)}`,
      'under 0.33',
    );
  }
  row(
    'Growth from 400 to 4,000 letters',
    `${(growth[2] / growth[0]).toFixed(1)} ×`,
    `n log n is ${((10 * Math.log(4000)) / Math.log(400)).toFixed(1)} ×`,
  );
}

const lines = (file: string) => readFileSync(file, 'utf8').split('\n').length;

/** Walls of lettering and of outlines that try the method, against the ideal depth. */
async function accuracy(): Promise<void> {
  const clipper = await clipperFromDisk();
  const bit = { flat: 0, slope: Math.tan(Math.PI / 6), radius: 40 };
  const settings = { bit, depthLimit: 100, floorStep: 0.5, feed: 1500, plunge: 1200, lift: 5, rapid: 2400 };
  const report = (name: string, path: Path, outline: Loops, every: number) => {
    const found = checkWalls(path, bit, outline, every);
    row(
      `Walls: ${name}`,
      `cut outside ${(found.gouge * 1000).toFixed(1)} µm, short ${(found.standing999 * 1000).toFixed(1)} µm at 99.9 % of ${found.places}`,
    );
  };
  console.log('Wanted of walls: at most 10 µm cut outside, at most 20 µm short at 99.9 %');
  for (const face of FACES) {
    const { shapes } = importSvg(new TextEncoder().encode(letterPage(60, { face })));
    const { path } = vCarve(await carvablesOf(shapes, clipper), settings, clipper);
    report(`60 letters, ${face}`, path, areaOf(shapes, clipper).area, 0.05);
  }
  for (const { name, loops, rule } of hardOutlines()) {
    const shape = { name, rule, outlines: loops.map((points) => ({ points, closed: true })) };
    const { path } = vCarve(await carvablesOf([shape], clipper), settings, clipper);
    report(name, path, clipper.union(loops, rule), 0.03);
  }
}

/** The demo jobs as a user has them: computing, changing a number, links, and the carving picture. */
async function wholeJobs(): Promise<void> {
  const clipper = await clipperFromDisk();
  for (const name of JSON.parse(readFileSync(`${ROOT}/demo/jobs.json`, 'utf8')) as string[]) {
    const file = readJobFile(readFileSync(`${ROOT}/demo/jobs/${name}.kerbe.json`, 'utf8'));
    const resources = resourcesFromDisk((hash) => file.assets[hash] && bytesFromBase64(file.assets[hash].base64));
    const cache = new ComputeCache();
    const started = performance.now();
    const result = await compute(file.job, resources, clipper, { cache });
    const cold = performance.now() - started;
    const times: number[] = [];
    for (let i = 1; i <= ROUNDS; i++) {
      const job = structuredClone(file.job);
      for (const cut of job.cuts) {
        if (cut.kind === 'v-carve') cut.depthLimit -= 0.1 * i;
        else if (cut.kind === 'pocket') cut.depth -= 0.1 * i;
      }
      const t = performance.now();
      await compute(job, resources, clipper, { cache });
      times.push(performance.now() - t);
    }
    row(
      `${file.job.name}: computed, then with a number changed`,
      `${cold.toFixed(0)} ms, ${times.sort((a, b) => a - b)[ROUNDS >> 1].toFixed(0)} ms`,
      '100 ms',
    );
    const lifts = result.cuts.reduce((sum, cut) => sum + cut.lifts, 0);
    const [ours, best] = result.cuts.reduce(
      ([a, b], { path }) => {
        const [now, least] = linkLengths(path);
        return [a + now, b + least];
      },
      [0, 0],
    );
    row(
      `${file.job.name}: links`,
      `${ours.toFixed(0)} mm, ${(ours / Math.max(1, best)).toFixed(2)} × the best of 400 searches (${best.toFixed(0)} mm); ${lifts} lifts`,
      'at most 1.15 ×',
    );
  }
  const path = manyMoves(200_000);
  const t = performance.now();
  carveField([{ path, profile: { flat: 0, slope: Math.tan(Math.PI / 6), radius: 3 } }], 600, 400, 0.1);
  row(
    'Carving picture, 600 × 400 mm at 0.1 mm, 200,000 moves',
    `${((performance.now() - t) / 1000).toFixed(1)} s`,
    'under 5 s',
  );
}

/** Length of the links over the sheet, as laid and as the best of many searches from other beginnings. */
function linkLengths({ xyz, feed }: Path): [number, number] {
  const tracks: Track[] = [];
  let points: number[] = [];
  for (let i = 0; i < feed.length; i++) {
    if (feed[i] === 0) {
      if (points.length >= 3) tracks.push(track(points));
      points = [];
    } else points.push(xyz[3 * i], xyz[3 * i + 1], xyz[3 * i + 2]);
  }
  const lengthOf = (order: readonly { track: number; reversed: boolean }[]) => {
    let total = 0;
    for (let k = 1; k < order.length; k++) {
      const a = end(tracks[order[k - 1].track], !order[k - 1].reversed);
      const b = end(tracks[order[k].track], order[k].reversed);
      total += Math.hypot(a[0] - b[0], a[1] - b[1]);
    }
    return total;
  };
  const now = lengthOf(tracks.map((_, track) => ({ track, reversed: false })));
  let best = now;
  for (let k = 0; k < 400 && tracks.length > 2; k++) {
    const from = tracks[(k * 7919) % tracks.length].xyz;
    best = Math.min(best, lengthOf(orderTracks(tracks, { x: from[0] + (k % 5), y: from[1] - (k % 3) })));
  }
  return [now, best];
}

const track = (points: number[]): Track => ({ xyz: Float64Array.from(points), closed: false, ring: 0, oneWay: false });
const end = ({ xyz }: Track, last: boolean) => (last ? xyz.subarray(xyz.length - 3) : xyz);

function manyMoves(count: number): Path {
  const xyz = new Float64Array(3 * count);
  const feed = new Float64Array(count).fill(1000);
  for (let i = 0; i < count; i++) {
    const row = Math.floor(i / 1000);
    xyz[3 * i] = (i % 1000) * 0.6;
    xyz[3 * i + 1] = row * 2 + Math.sin(i / 20);
    xyz[3 * i + 2] = -2 - Math.cos(i / 13);
  }
  return { xyz, feed };
}

function sampled(loops: Loops, every: number): Float64Array {
  const out: number[] = [];
  for (const points of loops)
    for (let i = 0, j = points.length - 2; i < points.length; j = i, i += 2) {
      const n = Math.max(1, Math.ceil(Math.hypot(points[i] - points[j], points[i + 1] - points[j + 1]) / every));
      for (let k = 0; k < n; k++)
        out.push(
          points[j] + ((points[i] - points[j]) * k) / n,
          points[j + 1] + ((points[i + 1] - points[j + 1]) * k) / n,
        );
    }
  return Float64Array.from(out);
}

function median(measure: () => number): number {
  return Array.from({ length: ROUNDS }, measure).sort((a, b) => a - b)[ROUNDS >> 1];
}
