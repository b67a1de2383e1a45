import { readFileSync } from 'node:fs';
import Delaunator from 'delaunator';
import { readFace, setLettering } from '@kerbe/core/artwork/lettering';
import { FACE_FILES } from '@kerbe/core/artwork/faces';
import { carveField } from '@kerbe/core/carving/height-field';
import { carvablesOf } from '@kerbe/core/cuts/carvable';
import { vCarve } from '@kerbe/core/cuts/v-carve';
import { lengthOf } from '@kerbe/core/geometry/outline';
import { compute, ComputeCache } from '@kerbe/core/job/compute';
import { bytesFromBase64, readJobFile } from '@kerbe/core/job/job-file';
import { clipperFromDisk, resourcesFromDisk } from '@kerbe/machine/core-from-disk';
import { createRequire } from 'node:module';
import { ROOT } from './paths.ts';

/** `./kerbe bench`: times and ratios, each against a reference in the same run. Medians of five. */
export async function bench(): Promise<void> {
  const clipper = await clipperFromDisk();
  const require = createRequire(import.meta.url);
  const font = readFace(readFileSync(require.resolve(FACE_FILES.fraunces)));
  const words = 'Fernhill Observatory opens at dusk ';
  const page = (letters: number) =>
    setLettering(font, {
      text: Array.from({ length: Math.ceil(letters / 30) }, () => words).join('\n'),
      capHeight: 12,
      tracking: 0,
      leading: 1.2,
      align: 'left',
    }).slice(0, letters);
  const rows: [string, string][] = [];
  for (const letters of [100, 400]) {
    const shapes = page(letters);
    const area = clipper.union(
      shapes.flatMap((shape) => shape.outlines.map((o) => o.points)),
      'nonzero',
    );
    const metres = area.reduce((sum, points) => sum + lengthOf({ points, closed: true }), 0) / 1000;
    const samples: number[] = [];
    for (const points of area)
      for (let i = 0, j = points.length - 2; i < points.length; j = i, i += 2) {
        const n = Math.max(1, Math.ceil(Math.hypot(points[i] - points[j], points[i + 1] - points[j + 1]) / 0.2));
        for (let k = 0; k < n; k++)
          samples.push(
            points[j] + ((points[i] - points[j]) * k) / n,
            points[j + 1] + ((points[i + 1] - points[j + 1]) * k) / n,
          );
      }
    const reference = await median(() => void new Delaunator(Float64Array.from(samples)));
    const settings = {
      bit: { flat: 0, slope: Math.tan(Math.PI / 6), radius: 6.35 },
      depthLimit: 8,
      floorStep: 0.5,
      feed: 1500,
      plunge: 1200,
      lift: 5,
      rapid: 2400,
    };
    const carve = await median(async () => void vCarve(await carvablesOf(shapes, clipper), settings, clipper));
    rows.push([
      `V-carve of ${letters} letters, ${metres.toFixed(1)} m of outline`,
      `${carve.toFixed(0)} ms, ${(carve / reference).toFixed(1)} × one Delaunay of it every 0.2 mm (${reference.toFixed(0)} ms)`,
    ]);
  }
  const file = readJobFile(readFileSync(`${ROOT}/demo/jobs/entrance-board.kerbe.json`, 'utf8'));
  const resources = resourcesFromDisk((hash) => file.assets[hash] && bytesFromBase64(file.assets[hash].base64));
  const cache = new ComputeCache();
  const started = performance.now();
  const result = await compute(file.job, resources, clipper, { cache });
  rows.push(['Entrance board, computed cold', `${(performance.now() - started).toFixed(0)} ms`]);
  const times: number[] = [];
  for (let i = 1; i <= 5; i++) {
    const job = structuredClone(file.job);
    for (const cut of job.cuts) if (cut.kind === 'v-carve') cut.depthLimit -= 0.1 * i;
    const t = performance.now();
    await compute(job, resources, clipper, { cache });
    times.push(performance.now() - t);
  }
  rows.push(['Entrance board, one number changed', `${times.sort((a, b) => a - b)[2].toFixed(0)} ms (wanted: 100 ms)`]);
  const t = performance.now();
  carveField(result.cuts, 620, 240, 0.25);
  rows.push(['Carving picture, 620 × 240 mm at 0.25 mm', `${(performance.now() - t).toFixed(0)} ms`]);
  const wide = Math.max(...rows.map(([name]) => name.length));
  for (const [name, value] of rows) console.log(`${name.padEnd(wide)}  ${value}`);
}

async function median(work: () => unknown): Promise<number> {
  const times: number[] = [];
  for (let i = 0; i < 5; i++) {
    const started = performance.now();
    await work();
    times.push(performance.now() - started);
  }
  return times.sort((a, b) => a - b)[2];
}
