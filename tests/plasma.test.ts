import { describe, expect, test } from 'vitest';
import { linksAcross, lowOverFreed } from '../command/src/freed-travel.ts';
import { searchLinks } from '../command/src/long-search.ts';
import { SHEET, torchJob } from '../command/src/torch-jobs.ts';
import { contains } from '../core/src/geometry/outline.ts';
import { kerfLoops } from '../core/src/ways/kerf-loops.ts';
import { scrapBetween } from '../core/src/ways/scrap-between.ts';
import { PathBuilder } from '../core/src/motion/path.ts';
import { fromChart } from '../core/src/tools/nozzle/chart.ts';
import { readChart } from '../core/src/tools/nozzle/chart-csv.ts';
import type { CutResult } from '../core/src/sequence/cut-result.ts';
import { fromStroke } from '../core/src/sequence/taken-up.ts';
import { turnedCuts } from '../core/src/sequence/turned-cuts.ts';
import { clipperFromDisk } from '../machine/src/core-from-disk.ts';
import { areaOf, buffered } from './reference.ts';

const clipper = await clipperFromDisk();

// Reference: JTS’s buffer (jsts), which shares no code with the library that the offsets come from.
test('kerfs of 40 polygons enclose what another geometry library has them enclose', () => {
  let seed = 7;
  const random = () => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647;
  for (let k = 0; k < 40; k++) {
    const n = 5 + Math.floor(8 * random());
    const points = new Float64Array(2 * n);
    for (let i = 0; i < n; i++) {
      const r = 30 + 60 * random();
      points.set([200 + r * Math.cos((2 * Math.PI * i) / n), 200 + r * Math.sin((2 * Math.PI * i) / n)], 2 * i);
    }
    const kerf = 0.5 + 3 * random();
    for (const side of ['outside', 'inside'] as const) {
      const loops = kerfLoops([points], { side, offset: kerf / 2, keptOnRight: true }, clipper);
      const sum = loops.reduce((all, { area }) => all + area, 0);
      const wanted = buffered(areaOf(points), side === 'outside' ? kerf / 2 : -kerf / 2).getArea();
      expect(Math.abs(sum - wanted) / wanted).toBeLessThan(2e-4);
    }
  }
});

describe('over freed pieces', () => {
  // `./kerbe bench torch` has 500 of them.
  test('12 seeded jobs: never low over one, links as short as a long search finds without that rule, nearly', async () => {
    let [ours, best] = [0, 0];
    for (let seed = 1001; seed <= 1012; seed++) {
      const made = await torchJob(seed, clipper);
      expect(lowOverFreed(made, SHEET, 35), `job ${seed}`).toBe(0);
      if (seed > 1002) continue;
      ours += linksAcross(made.path);
      best += searchLinks(made.path, false, 100_000).best;
    }
    expect(ours).toBeLessThan(1.2 * best);
  });

  test('scrap between parts whose kerfs run together comes free with the last of them, and is kept off', () => {
    const disc = (x: number, y: number) => Float64Array.from({ length: 120 }, (_, k) => (k % 2 ? y + 10 * Math.sin((Math.PI * (k - 1)) / 60) : x + 10 * Math.cos((Math.PI * k) / 60))); // prettier-ignore
    const between = (apart: number, ...ways: number[][]) => {
      const discs = [disc(0, 0), disc(apart, 0), disc(apart, apart), disc(0, apart)];
      const loops = kerfLoops(discs, { side: 'outside', offset: 1, keptOnRight: true }, clipper);
      return scrapBetween(loops.map((loop, k) => ({ loop, ways: k === 0 ? ways : [] })), 1, clipper); // prettier-ignore
    };
    const [scrap, ...more] = between(23);
    expect([more.length, scrap.by.length]).toEqual([0, 4]);
    expect(contains(scrap.points, 11.5, 11.5)).toBe(true);
    // 12 mm from the middle of a disc its kerf ends.
    const from = (far: number) => far / Math.SQRT2;
    expect([contains(scrap.points, from(11.9), from(11.9)), contains(scrap.points, from(12.1), from(12.1))]).toEqual([
      false,
      true,
    ]);
    // Webs of 0.4 mm burn away; those of 0.6 mm hold it, unless a way in goes through them.
    expect(between(24.4)).toHaveLength(1);
    expect(between(24.6)).toEqual([]);
    expect(
      between(24.6, [12.3, -8, 12.3, 4], [-8, 12.3, 4, 12.3], [12.3, 20, 12.3, 32], [20, 12.3, 32, 12.3]),
    ).toHaveLength(1);
  });

  test('what is kept between holes whose kerfs run together comes free with the last of them', () => {
    // Three narrow diamonds that touch tip to tip, across an opening of a plate.
    const upper = [20, 50, 20, 90, 230, 90, 230, 50, 195, 60, 160, 50, 125, 60, 90, 50, 55, 60];
    const lower = upper.map((v, k) => (k % 2 ? 100 - v : v));
    const loops = [
      Float64Array.of(0, 0, 250, 0, 250, 100, 0, 100),
      ...[upper, lower].map((hole) => Float64Array.from(hole)),
    ];
    const between = (area: Float64Array[]) => {
      const kept = kerfLoops(
        clipper.union(area, 'evenodd'),
        { side: 'outside', offset: 1, keptOnRight: true },
        clipper,
      );
      return scrapBetween(
        kept.map((loop) => ({ loop, ways: [] })),
        1,
        clipper,
      );
    };
    const [diamond, ...more] = between(loops);
    expect(more).toEqual([]);
    expect(contains(diamond.points, 125, 50)).toBe(true);
    expect(diamond.by.map(({ scrapInside }) => scrapInside)).toEqual([true, true]);
    expect(between(loops.slice(0, 2))).toEqual([]);
  });

  test('the look sees a way over one', () => {
    const builder = new PathBuilder();
    const square = [60, 60, 100, 60, 100, 100, 60, 100, 60, 60];
    builder.rapid(60, 60, 10);
    builder.to(60, 60, 1.5, 1500);
    for (let i = 2; i < square.length; i += 2) builder.to(square[i], square[i + 1], 1.5, 2000);
    builder.rapid(60, 60, 10);
    builder.rapid(150, 150, 10);
    expect(lowOverFreed({ path: builder.done(), radius: 1 }, SHEET, 35)).toBe(1);
  });
});

describe('a nozzle’s chart', () => {
  const row = (material: string, thickness: number, kerf: number, feed: number) => ({ material, thickness, kerf, feed, pierceHeight: 4, pierceDelay: thickness / 10, cutHeight: 1.5, volts: 100 + thickness }); // prettier-ignore
  const nozzle = { presets: [row('steel', 4, 1.6, 2000), row('steel', 2, 1.2, 4000), row('brass', 3, 2, 1000)] };

  test('a row of its thickness; between two what lies evenly; beyond them the nearest; of another material told', () => {
    expect(fromChart(nozzle, 'steel', 2.01)).toMatchObject({ by: 'row', row: { kerf: 1.2 } });
    expect(fromChart(nozzle, 'steel', 3)).toMatchObject({ by: 'between', of: [2, 4], row: { kerf: 1.4, feed: 3000, pierceDelay: 0.3 } }); // prettier-ignore
    expect(fromChart(nozzle, 'steel', 6)).toMatchObject({ by: 'beyond', row: { kerf: 1.6 } });
    expect(fromChart(nozzle, 'steel', 1)).toMatchObject({ by: 'beyond', row: { kerf: 1.2 } });
    expect(fromChart(nozzle, 'zinc', 3)).toMatchObject({ by: 'other', row: { material: 'brass' } });
    expect(fromChart({ presets: [] }, 'steel', 3)).toBeUndefined();
  });

  const HEAD = 'Material,Thickness,Kerf (in),Speed,Pierce height,Pierce delay,Cut height,Volts';
  test('comes from CSV, in any order of its columns, with units in cells or heads', () => {
    expect(readChart(`${HEAD}\nsteel,10 ga,0.06,2700 mm/min,3.8,0.4,1.5,117`, 'mm')).toEqual([
      expect.objectContaining({ material: 'steel', kerf: 0.06 * 25.4, feed: 2700, volts: 117 }),
    ]);
    const [first] = readChart('volts;cut height;delay;pierce height;speed;kerf;thickness;material\n100;1.5;0.3;3.8;2000;1.2;3;steel', 'mm'); // prettier-ignore
    expect(first).toMatchObject({ material: 'steel', thickness: 3, kerf: 1.2 });
  });
  test.each([
    ['', /holds no chart/],
    [HEAD, /holds no chart/],
    ['Material,Kerf\nsteel,1', /No column is called “thickness”/],
    [`${HEAD}\n,3,0.05,2000,3,0.4,1.5,117`, /Row 2 names no material/],
    [`${HEAD}\nsteel,3,wide,2000,3,0.4,1.5,117`, /Row 2: “wide”/],
    [`${HEAD}\nsteel,3,0,2000,3,0.4,1.5,117`, /Row 2: The kerf must be more than 0/],
    [`${HEAD}\n${Array(51).fill('steel,3,0.05,2000,3,0.4,1.5,117').join('\n')}`, /at most 50 rows, and this has 51/],
  ])('what is none is said: %#', (text, says) => {
    expect(() => readChart(text, 'mm')).toThrow(says);
  });
});

test('turned about a place, every point lies where a rotation has it', async () => {
  const made = await torchJob(7, clipper);
  const about = { x: 12, y: 34 };
  const turn = 0.0873;
  const [turned] = turnedCuts([made], turn, about);
  for (let i = 0; i < made.path.xyz.length; i += 300) {
    const [x, y] = [made.path.xyz[i] - about.x, made.path.xyz[i + 1] - about.y];
    expect(turned.path.xyz[i]).toBeCloseTo(about.x + Math.hypot(x, y) * Math.cos(Math.atan2(y, x) + turn), 9);
    expect(turned.path.xyz[i + 1]).toBeCloseTo(about.y + Math.hypot(x, y) * Math.sin(Math.atan2(y, x) + turn), 9);
    expect(turned.path.xyz[i + 2]).toBe(made.path.xyz[i + 2]);
  }
  const [corner] = turnedCuts([{ ...made, path: { ...made.path, xyz: Float64Array.of(100, 0, 0) } }], 0.1, {
    x: 0,
    y: 0,
  });
  expect([...corner.path.xyz].map((v) => Math.round(v * 100) / 100)).toEqual([99.5, 9.98, 0]);
});

test('from a stroke on, over two cuts', async () => {
  const [a, b] = [await torchJob(3, clipper), await torchJob(4, clipper)];
  const strokes = ({ path }: CutResult) => path.power.reduce((n, power, k) => n + Number(power > 0 && path.power[k - 1] === 0), 0); // prettier-ignore
  const rest = fromStroke([a, b], strokes(a) + 1);
  expect(rest).toHaveLength(1);
  expect(strokes(rest[0])).toBe(strokes(b) - 1);
  expect(rest[0].pierce!.touches).toHaveLength(strokes(b) - 1);
  expect(fromStroke([a, b], strokes(a) + strokes(b))).toEqual([]);
  // From the first of the second on it is the whole second, come to from as high.
  expect(fromStroke([a, b], strokes(a))[0].path.xyz).toEqual(b.path.xyz);
});
