import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import type { Shape } from '../core/src/artwork/shape.ts';
import { cutArtwork } from '../core/src/cuts/cut-artwork.ts';
import type { LaserPictureFacts } from '../core/src/cuts/laser-picture/kind.ts';
import { newCut } from '../core/src/cuts/new-cut.ts';
import { partsOf } from '../core/src/cuts/parts-of.ts';
import { newJob } from '../core/src/document/new-job.ts';
import { clipper } from '../core/src/geometry/clipper-for-tests.ts';
import { BenchSchema } from '../core/src/machines/bench-schema.ts';
import type { Beam } from '../core/src/tools/beam/fields.ts';

const benches = JSON.parse(readFileSync(new URL('../demo/benches.json', import.meta.url), 'utf8')) as unknown[];
const bench = benches.map((one) => BenchSchema.parse(one)).find(({ kind }) => kind === 'laser')!;
const beam: Beam = { id: 'b', name: 'Beam', kind: 'beam', diameter: 0.1, shank: 30, focus: 50, presets: [] };

const grey = { width: 1500, height: 1000, greys: Uint8Array.from({ length: 1.5e6 }, (_, k) => ((k % 1500) * 7 + k) % 256) }; // prettier-ignore
/** The same picture in two places. */
const drawn = [0, 200].map((x): Shape => ({
  name: 'picture',
  rule: 'nonzero',
  outlines: [{ points: Float64Array.of(x, 0, x + 150, 0, x + 150, 100, x, 100), closed: true }],
  greys: { grey, map: [0.1, 0, 0, -0.1, x, 100] },
}));

async function burnt(fields: object): Promise<{ seen: LaserPictureFacts[]; facts: LaserPictureFacts }> {
  const job = newJob('job', 'mm', [beam], bench);
  job.stock.material = 'birch plywood';
  const seen: LaserPictureFacts[] = [];
  const artwork = {
    ...cutArtwork(drawn, clipper),
    show: (facts: unknown) => void seen.push(facts as LaserPictureFacts),
  };
  const usual = { lines: 10, dither: 'floyd-steinberg', white: 256 };
  const [part] = await partsOf(job, { ...newCut(job, 'laser-picture', 'c')!, ...usual, ...fields } as never, artwork, clipper); // prettier-ignore
  return { seen, facts: part.facts as LaserPictureFacts };
}

const mean = (dark: Uint8Array) => dark.reduce((sum, d) => sum + d, 0) / dark.length;

test('a picture is shown once before its path is laid, half as fine, and as dark as it will be burnt', async () => {
  const { seen, facts } = await burnt({});
  expect(seen).toHaveLength(1);
  seen[0].pictures.forEach(({ columns, rows, dark }, k) => {
    expect([columns, rows]).toEqual([750, 500]);
    // Of 255: what is rounded on the way.
    expect(Math.abs(mean(dark) - mean(facts.pictures[k].dark))).toBeLessThan(1);
  });
});

test('tones that are changed leave the sample as it is, in each place where the picture lies', async () => {
  const { facts: first } = await burnt({});
  expect((await burnt({ brightness: 30 })).facts.dark).toBeLessThan(first.dark - 0.05);
  const { facts: again } = await burnt({});
  again.pictures.forEach(({ dark, map }, k) => {
    expect(Buffer.compare(dark, first.pictures[k].dark)).toBe(0);
    expect(map).toEqual(first.pictures[k].map);
  });
  // Cut off otherwise, it is taken anew.
  expect((await burnt({ left: 50 })).facts.pictures[0].columns).toBe(750);
});
