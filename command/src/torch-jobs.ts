import type { Shape } from '@kerbe/core/artwork/shape';
import { cutArtwork } from '@kerbe/core/cuts/cut-artwork';
import { CutSchema } from '@kerbe/core/cuts/cut-schema';
import { newCut } from '@kerbe/core/cuts/new-cut';
import { partsOf } from '@kerbe/core/cuts/parts-of';
import { newJob } from '@kerbe/core/document/new-job';
import type { Clipper } from '@kerbe/core/geometry/clipper';
import { type CutResult, timedCut } from '@kerbe/core/sequence/cut-result';
import { ToolSchema } from '@kerbe/core/tools/tool-schema';
import { usualBench } from './bench-limits.ts';

/** A sheet of the seeded jobs, mm. */
export const SHEET = { length: 220, width: 220 };

/** A plasma cut of some nested shapes strewn over a sheet, the same for the same seed, with its times. */
export async function torchJob(seed: number, clipper: Clipper): Promise<CutResult> {
  let state = (seed * 7919) % 2_147_483_647 || 1;
  const random = () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
  const shapes: Shape[] = [];
  const shape = (...loops: Float64Array[]) =>
    shapes.push({ name: '', rule: 'evenodd', outlines: loops.map((points) => ({ points, closed: true })) });
  const blob = (x: number, y: number, r: number) => {
    const n = 3 + Math.floor(9 * random());
    const first = 7 * random();
    return Float64Array.from({ length: 2 * n }, (_, k) => {
      const a = first + (2 * Math.PI * Math.floor(k / 2)) / n;
      return k % 2 ? y + r * Math.sin(a) : x + r * Math.cos(a);
    });
  };
  for (let row = 0; row < 4; row++)
    for (let column = 0; column < 4; column++) {
      if (random() < 0.25) continue;
      const [x, y] = [30 + 52 * column + 6 * random(), 30 + 52 * row + 6 * random()];
      const r = 12 + 12 * random();
      const holes = random() < 0.6 ? [blob(x, y, r * (0.15 + 0.25 * random()))] : [];
      shape(blob(x, y, r), ...holes);
    }
  if (shapes.length === 0) shape(blob(110, 110, 40));
  const nozzle = ToolSchema.parse({ id: 'n', name: 'N', kind: 'nozzle', diameter: 12, shank: 32, amps: 45, presets: [] }); // prettier-ignore
  const job = newJob('seeded', 'mm', [nozzle], usualBench('nozzle'));
  Object.assign(job.stock, SHEET, { corners: [3, 3, 3, 3] });
  const cut = CutSchema.parse({
    ...newCut(job, 'plasma', 'cut'),
    kerf: 0.8 + 1.4 * random(),
    lead: { kind: random() < 0.5 ? 'arc' : 'line', length: 1 + 5 * random() },
    targets: [{ item: 'art', shapes: 'all' }],
  });
  const [part] = await partsOf(job, cut, cutArtwork(shapes, clipper), clipper);
  return timedCut({ ...part, works: '', openOutlines: 0 }, job, {});
}
