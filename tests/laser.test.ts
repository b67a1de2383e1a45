/* eslint max-lines: off -- one set of cases about one thing */
import { describe, expect, test } from 'vitest';
import { readFileSync } from 'node:fs';
import Coordinate from 'jsts/org/locationtech/jts/geom/Coordinate.js';
import GeometryFactory from 'jsts/org/locationtech/jts/geom/GeometryFactory.js';
import BufferOp from 'jsts/org/locationtech/jts/operation/buffer/BufferOp.js';
import { clipper } from '../core/src/geometry/clipper-for-tests.ts';
import { signedArea } from '../core/src/geometry/outline.ts';
import { machineKindOf } from '../core/src/machines/kinds.ts';
import type { LaserBench } from '../core/src/machines/laser/bench.ts';
import { BenchSchema } from '../core/src/machines/bench-schema.ts';
import { newJob } from '../core/src/document/new-job.ts';
import type { Shape } from '../core/src/artwork/shape.ts';
import { movesOf, PathBuilder } from '../core/src/motion/path.ts';
import { planMotion } from '../core/src/motion/plan.ts';
import { programCut } from '../core/src/machines/program-cut.ts';
import { writeProgram } from '../core/src/program/write.ts';
import { dryCuts } from '../core/src/sequence/dry-cuts.ts';
import { framingCut } from '../core/src/sequence/framing-cut.ts';
import { timedCut } from '../core/src/sequence/cut-result.ts';
import type { Beam } from '../core/src/tools/beam/fields.ts';
import { neverBurnt } from '../core/src/ways/never-burnt.ts';
import { runOut, shortestJump } from '../core/src/ways/scan-rows.ts';
import { cutArtwork } from '../core/src/cuts/cut-artwork.ts';
import type { CutPart } from '../core/src/cuts/cut-part.ts';
import { type CutKindName } from '../core/src/cuts/kinds.ts';
import type { LaserCutFacts } from '../core/src/cuts/laser-cut/facts.ts';
import type { LaserPictureFacts } from '../core/src/cuts/laser-picture/kind.ts';
import { keptSetting } from '../core/src/cuts/kept-setting.ts';
import { laserTestGrid } from '../core/src/cuts/laser-fill/test-grid.ts';
import { JobSchema } from '../core/src/job/job.ts';
import { ToolSchema } from '../core/src/tools/tool-schema.ts';
import { newCut } from '../core/src/cuts/new-cut.ts';
import { partsOf } from '../core/src/cuts/parts-of.ts';

const benches = JSON.parse(readFileSync(new URL('../demo/benches.json', import.meta.url), 'utf8')) as unknown[];
const bench = benches.map((one) => BenchSchema.parse(one)).find(({ kind }) => kind === 'laser') as LaserBench;
const beam: Beam = { id: 'b', name: 'Beam', kind: 'beam', diameter: 0.2, shank: 30, focus: 50, presets: [] };
const ring = (points: number[], closed = true) => ({ points: Float64Array.from(points), closed });
const square = (x: number, y: number, a: number) => ring([x, y, x + a, y, x + a, y + a, x, y + a]);
const disc = (x: number, y: number, r: number, n = 360) =>
  ring(Array.from({ length: 2 * n }, (_, i) => (i % 2 ? y + r * Math.sin((Math.PI * (i - 1)) / n) : x + r * Math.cos((Math.PI * i) / n)))); // prettier-ignore
const shapes = (...all: ReturnType<typeof ring>[]): Shape[] => all.map((one) => ({ name: '', rule: 'nonzero', outlines: [one] })); // prettier-ignore

function made(fields: object = {}, own: Partial<Beam> = {}, on: Partial<LaserBench> = {}) {
  const job = newJob('job', 'mm', [{ ...beam, ...own }], { ...bench, lag: 0, ...on } as LaserBench);
  job.stock.material = 'birch plywood';
  const cut = async (kind: CutKindName, drawn: Shape[]): Promise<CutPart[]> =>
    partsOf(job, { ...newCut(job, kind, 'c')!, ...fields }, cutArtwork(drawn, clipper), clipper);
  return { job, cut };
}

/** Its program, as text. */
function written(part: CutPart, { job }: ReturnType<typeof made>): string {
  const dialect = machineKindOf(job.bench).dialect(job.bench);
  const result = timedCut({ ...part, works: '', openOutlines: 0 }, job, dialect.post);
  const heading = { job: 'job', revision: '1', date: '', stock: '', zero: '', bench: '', unit: 'mm' as const, lift: 5, approach: 0, park: null }; // prettier-ignore
  return writeProgram(heading, [programCut(result, job, { before: 0, after: 0 }, { title: 'cut' })], { x: 0, y: 0, z: 0 }, dialect).text; // prettier-ignore
}

describe('cut through', () => {
  test('half a kerf outside outer lines and inside inner ones: the area of JSTS’s buffer, inner ones first', async () => {
    const [part] = await made({ kerf: 0.3 }).cut('laser-cut', shapes(square(10, 10, 40), disc(30, 30, 8)));
    const { xyz, rapid } = part.path;
    const loops: number[][] = [];
    for (let i = 0; i < rapid.length; i++) {
      if (rapid[i]) loops.push([]);
      loops.at(-1)!.push(xyz[3 * i], xyz[3 * i + 1]);
    }
    expect(loops).toHaveLength(2);
    const areas = loops.map((points) => Math.abs(signedArea(Float64Array.from(points))));
    const buffered = (points: Float64Array, by: number): number => {
      const around = Array.from({ length: points.length / 2 + 1 }, (_, k) => new Coordinate(points[(2 * k) % points.length], points[(2 * k + 1) % points.length])); // prettier-ignore
      const factory = new GeometryFactory();
      return BufferOp.bufferOp(factory.createPolygon(factory.createLinearRing(around)), by, 64).getArea();
    };
    // The disc first. A chord of the way may lie 2 µm beside the arc it stands for.
    expect(Math.abs(areas[0] - buffered(disc(30, 30, 8).points, -0.15))).toBeLessThan(2 * Math.PI * 8 * 0.003);
    expect(Math.abs(areas[1] - buffered(square(10, 10, 40).points, 0.15))).toBeLessThan(160 * 0.003);
  });

  test.each([1, 2, 3, 4])(
    'open lines in %i passes: from each only over to the next, whichever end that is',
    async (passes) => {
      const lines = [0, 1, 2, 3, 4].map((k) => ring([12, 9 + 3 * k, 52 + k, 9 + 3 * k], false));
      const [part] = await made({ passes }).cut('laser-cut', shapes(...lines));
      const { xyz, rapid } = part.path;
      let [over, cut] = [0, 0];
      for (let i = 1; i < rapid.length; i++) {
        const way = Math.hypot(xyz[3 * i] - xyz[3 * i - 3], xyz[3 * i + 1] - xyz[3 * i - 2]);
        if (rapid[i]) over += way;
        else cut += way;
      }
      expect(cut).toBeCloseTo(passes * (5 * 40 + 10), 6);
      // There and back it is always on the same side; else on the one and the other, where lines end up to 1 mm further.
      expect(over).toBeLessThanOrEqual(4 * Math.hypot(3, passes % 2) + 1e-9);
    },
  );

  test('as often as it has passes, at its power, at one height, and no power between', async () => {
    const [part] = await made({ passes: 3, power: 65, overburn: 0 }).cut('laser-cut', shapes(square(10, 10, 20), square(50, 10, 20))); // prettier-ignore
    const { xyz, rapid, power } = part.path;
    let cut = 0;
    for (let i = 1; i < rapid.length; i++) {
      expect(xyz[3 * i + 2]).toBe(0);
      expect(power[i]).toBeCloseTo(rapid[i] ? 0 : 0.65, 6);
      if (!rapid[i]) cut += Math.hypot(xyz[3 * i] - xyz[3 * i - 3], xyz[3 * i + 1] - xyz[3 * i - 2]);
    }
    const once = 4 * 20 + 2 * Math.PI * (beam.diameter / 2);
    expect(Math.abs(cut - 2 * 3 * once)).toBeLessThan(0.05);
  });

  test('a hole nearer to an edge than it is wide is found, one further in is not', async () => {
    const holes = async (x: number) => {
      const [part] = await made().cut('laser-cut', shapes(square(0, 0, 50), disc(x, 25, 2)));
      return (part.facts as LaserCutFacts).nearEdge;
    };
    expect(await holes(6.05)).toEqual([]);
    const [near] = await holes(5);
    expect(near.web).toBeCloseTo(3, 1);
    expect(near.wide).toBeCloseTo(4, 1);
    // Between two holes, too.
    const [part] = await made().cut('laser-cut', shapes(square(0, 0, 50), disc(20, 25, 2), disc(25, 25, 2)));
    expect((part.facts as LaserCutFacts).nearEdge).toHaveLength(2);
  });

  test('PVC is refused by its name, and why', async () => {
    const it = made();
    for (const material of ['PVC', 'black pvc sheet', 'P.V.C.', 'vinyl film', 'Polyvinyl chloride']) {
      it.job.stock.material = material;
      for (const kind of ['laser-cut', 'laser-score', 'laser-fill', 'laser-picture'] as const)
        await expect(it.cut(kind, shapes(square(0, 0, 10)))).rejects.toThrow(/is not burnt here.*hydrogen chloride/);
    }
    for (const material of ['birch plywood', 'acrylic', 'card', 'leather'])
      expect(neverBurnt(material)).toBeUndefined();
  });
});

describe('lines of a scan', () => {
  test('run-out is v²/2a, along an axis and aslant', () => {
    const limits = { speed: { x: 20_000, y: 18000, z: 1 }, acceleration: { x: 1000, y: 800, z: 1 }, cornerStep: 100 };
    expect(runOut(0, 6000, limits)).toBeCloseTo(100 ** 2 / 2000, 9);
    expect(runOut(Math.PI / 2, 6000, limits)).toBeCloseTo(100 ** 2 / 1600, 9);
    // Both axes push at 45°: √2 times as hard as the weaker.
    expect(runOut(Math.PI / 4, 6000, limits)).toBeCloseTo(100 ** 2 / (1600 * Math.SQRT2), 9);
    // No faster than the axes are.
    expect(runOut(0, 60_000, limits)).toBeCloseTo((20_000 / 60) ** 2 / 2000, 6);
    // Jumping is sooner from where both take the same: at the feed, or to a stand, over, and up to the feed again.
    const gap = shortestJump(0, 6000, limits);
    const rest = gap - 2 * 5;
    const over = rest > 333.333 ** 2 / 1000 ? rest / 333.333 + 333.333 / 1000 : 2 * Math.sqrt(rest / 1000);
    expect(0.2 + over).toBeCloseTo(gap / 100, 3);
  });

  test('the head goes at its feed wherever the beam is on', async () => {
    for (const angle of [0, 30, 90]) {
      const it = made({ lines: 2, angle, feed: 6000 });
      for (const part of await it.cut('laser-fill', shapes(square(5, 5, 30), disc(60, 20, 10)))) {
        const { path } = part;
        const { at } = planMotion(path, it.job.bench.limits);
        let checked = 0;
        for (const [point, { ends, power }] of path.shades!) {
          expect((at[point] - at[point - 1]) * 6000).toBeCloseTo(ends.at(-1)!, 6);
          expect([path.power[point - 1], path.power[point + 1]]).toEqual([0, 0]);
          expect(power[0]).toBeGreaterThan(0);
          checked++;
        }
        expect(checked).toBeGreaterThan(20);
      }
    }
  });

  test('an area is filled to half a spot from its line, lines as far apart as asked', async () => {
    const it = made({ lines: 4 }, { diameter: 0.2 });
    const [{ path }] = await it.cut('laser-fill', shapes(square(10, 20, 30)));
    const lines = [...path.shades!].map(([point]) => [
      path.xyz[3 * point - 3],
      path.xyz[3 * point],
      path.xyz[3 * point + 1],
    ]);
    expect(lines).toHaveLength(119);
    lines.forEach(([from, to, y], k) => {
      expect(Math.min(from, to)).toBeCloseTo(10.1, 6);
      expect(Math.max(from, to)).toBeCloseTo(39.9, 6);
      expect(y).toBeCloseTo(lines[0][2] + k * 0.25, 6);
      // To and fro.
      expect(Math.sign(to - from)).toBe(k % 2 ? -1 : 1);
    });
    const one = await made({ lines: 4, ways: 'one' }).cut('laser-fill', shapes(square(10, 20, 30)));
    for (const [point] of one[0].path.shades!) expect(one[0].path.xyz[3 * point]).toBeGreaterThan(one[0].path.xyz[3 * point - 3]); // prettier-ignore
  });

  test('a beam that comes late is told so much earlier, whichever way the line is burnt', async () => {
    const late = made({ lines: 1, feed: 6000 }, {}, { lag: 0.002 });
    const [{ path }] = await late.cut('laser-fill', shapes(square(10, 10, 20)));
    [...path.shades!].forEach(([point], k) => {
      const [from, to] = [path.xyz[3 * point - 3], path.xyz[3 * point]];
      // 100 mm/s for 2 ms: 0.2 mm against the way.
      expect(from).toBeCloseTo(k % 2 ? 29.9 + 0.2 : 10.1 - 0.2, 6);
      expect(to).toBeCloseTo(k % 2 ? 10.1 + 0.2 : 29.9 - 0.2, 6);
    });
  });

  test('wide empty stretches are jumped over, narrow ones gone along', async () => {
    const gap = shortestJump(0, 6000, bench.limits);
    const lines = async (far: number) => {
      const it = made({ lines: 1, feed: 6000 });
      const [part] = await it.cut('laser-fill', shapes(square(0, 0, 10), square(10.2 + far, 0, 10)));
      return (part.facts as { jumps: number; lines: number }).jumps;
    };
    expect(await lines(gap - 0.5)).toBe(0);
    expect(await lines(gap + 0.5)).toBeGreaterThan(5);
  });
});

describe('pictures', () => {
  const picture = (width: number, height: number, grey: (x: number, y: number) => number, size = 0.1): Shape[] => {
    const greys = Uint8Array.from({ length: width * height }, (_, k) => grey(k % width, Math.floor(k / width)));
    return [
      {
        name: 'picture',
        rule: 'nonzero',
        outlines: [square(0, 0, width * size)],
        greys: { grey: { width, height, greys }, map: [size, 0, 0, -size, 0, height * size] },
      },
    ];
  };

  test('dots where the program burns, each at its place', async () => {
    const it = made({ lines: 10, feed: 3000, power: 50, dither: 'threshold' });
    const dark = (x: number, y: number) => (x * 7 + y * 13) % 5 < 2;
    const [part] = await it.cut(
      'laser-picture',
      picture(40, 30, (x, y) => (dark(x, y) ? 0 : 255)),
    );
    const burnt = new Set<string>();
    let [x, y, on, feed] = [0, 0, 0, false];
    for (const line of written(part, it).split('\n')) {
      const word = (letter: string) => new RegExp(`(?<![A-Z(])${letter}(-?[\\d.]+)`).exec(line)?.[1];
      if (line.startsWith('(') || !/[XYSG]/.test(line)) continue;
      if (word('G') !== undefined) feed = word('G') === '1';
      if (word('S') !== undefined) on = Number(word('S'));
      const to = [Number(word('X') ?? x), Number(word('Y') ?? y)];
      if (feed && on > 0)
        for (let u = Math.min(x, to[0]) + 0.05; u < Math.max(x, to[0]); u += 0.1)
          burnt.add(`${Math.round((u - 0.05) * 10)} ${Math.round(29.5 - 10 * to[1])}`);
      if (on > 0) expect([on, feed]).toEqual([500, true]);
      [x, y] = to;
    }
    for (let row = 0; row < 30; row++) for (let c = 0; c < 40; c++) expect(burnt.has(`${c} ${row}`)).toBe(dark(c, row));
  });

  test('greys by power: black has all of it, near-white none', async () => {
    const it = made({ lines: 10, feed: 3000, power: 80, dither: 'none', least: 10, white: 250 });
    const [part] = await it.cut(
      'laser-picture',
      picture(3, 1, (x) => [0, 128, 252][x]),
    );
    const [{ power, ends }] = part.path.shades!.values();
    expect([...ends].map((end) => Number(end.toFixed(6)))).toEqual([0.1, 0.2]);
    expect(power[0]).toBeCloseTo(0.8, 6);
    expect(power[1]).toBeCloseTo(0.08 + (0.72 * 127) / 255, 6);
    expect((part.facts as LaserPictureFacts).dark).toBeCloseTo((255 + 127) / 255 / 3, 6);
  });

  test('what cannot be burnt is said', async () => {
    const none = made();
    await expect(none.cut('laser-picture', shapes(square(0, 0, 10)))).rejects.toThrow(/No picture is chosen/);
    await expect(
      none.cut(
        'laser-picture',
        picture(5, 5, () => 255),
      ),
    ).rejects.toThrow(/as light as what is left blank/);
    const cutOff = made({ left: 60, right: 40 });
    await expect(
      cutOff.cut(
        'laser-picture',
        picture(5, 5, () => 0),
      ),
    ).rejects.toThrow(/nothing is left of the picture/);
    const fine = made({ lines: 100 });
    await expect(
      fine.cut(
        'laser-picture',
        picture(10, 10, () => 0, 10),
      ),
    ).rejects.toThrow(/100 million dots/);
  });

  test('more changes of power than any program should have are refused before they are written', () => {
    const builder = new PathBuilder();
    const half = 8_000_001;
    const shade = { ends: new Float64Array(half), power: new Float32Array(half) };
    builder.rapid(0, 0, 0);
    builder.shaded(1, 0, 0, 1000, shade);
    expect(() => builder.shaded(2, 0, 0, 1000, shade)).toThrow(/more than 16 million times; make the picture smaller/);
  });

  test('a stretch is a move of its own in what is counted', async () => {
    const it = made({ lines: 10, dither: 'threshold' });
    const [{ path }] = await it.cut(
      'laser-picture',
      picture(4, 1, (x) => (x % 2 ? 255 : 0)),
    );
    // In, three stretches, out.
    expect(movesOf(path)).toBe(5);
  });
});

test('what would burn into what is kept is not made, whatever made it', async () => {
  // An offset that is a tenth short, as a fault of ours would be.
  const short = { ...clipper, offset: (...[loops, by, ...more]: Parameters<typeof clipper.offset>) => clipper.offset(loops, 0.9 * by, ...more) }; // prettier-ignore
  const { job } = made();
  for (const [kind, fields] of [['laser-cut', { kerf: 0.4 }], ['laser-fill', {}]] as const) {
    const cut = { ...newCut(job, kind, 'c')!, ...fields };
    const own = { ...job, bits: [{ ...beam, diameter: 0.4 }] };
    const art = cutArtwork(shapes(square(10, 10, 40)), clipper);
    await expect(partsOf(own, cut, art, short)).rejects.toThrow(/would cut 0\.02 mm past the outline/);
    await expect(partsOf(own, cut, art, clipper)).resolves.toHaveLength(1);
  }
}); // prettier-ignore

test('power in the controller’s own number, whatever that is', async () => {
  const lines = async (full: number) => {
    const it = made({ power: 80 }, {}, { full });
    const [part] = await it.cut('laser-score', shapes(ring([0, 0, 10, 0], false)));
    return written(part, it)
      .split('\n')
      .filter((line) => /S[\d.]+/.test(line) && !line.startsWith('('));
  };
  expect(await lines(1000)).toEqual(['M4 S0', expect.stringMatching(/^G1 X10 F1500 S800$/), 'S0']);
  expect(await lines(255)).toEqual(['M4 S0', expect.stringMatching(/S204$/), 'S0']);
  expect(await lines(100)).toEqual(['M4 S0', expect.stringMatching(/S80$/), 'S0']);
  expect(await lines(1)).toEqual(['M4 S0', expect.stringMatching(/S0.8$/), 'S0']);
});

test('a program ends with the beam off, its heading says the power, and a dry run makes none ready', async () => {
  const it = made({ power: 80 });
  const [part] = await it.cut('laser-score', shapes(ring([0, 0, 10, 0], false)));
  expect(part.power).toBeCloseTo(0.8, 9);
  const text = written(part, it);
  expect(text).toContain('80 % power');
  const words = text.split('\n').filter((line) => /^[MS]/.test(line));
  expect(words).toEqual(['M8', 'M4 S0', 'S0', 'M5', 'M9', 'M30']);
  const result = timedCut({ ...part, works: '', openOutlines: 0 }, it.job, {});
  const dry = written(dryCuts([result], { x: 0, y: 0 })[0], it);
  expect(dry).not.toMatch(/^(M3|M4|M8)\b/m);
  expect(dry).not.toMatch(/S[1-9]/);
});

test('framed by its box and by its hull: once round, with nothing on', async () => {
  const it = made({ kerf: 0 });
  const [part] = await it.cut('laser-cut', shapes(disc(0, 0, 5), square(20, 3, 4)));
  const result = timedCut({ ...part, works: '', openOutlines: 0 }, it.job, {});
  const corners = (frame: 'box' | 'hull') => {
    const [{ path }] = framingCut([result], frame, it.job.bench.limits.speed);
    expect(path.power.every((power) => power === 0)).toBe(true);
    const at = Array.from(path.power, (_, i) => [path.xyz[3 * i], path.xyz[3 * i + 1]]);
    expect(at.at(-1)).toEqual(at[0]);
    return at.slice(0, -1);
  };
  const rounded = corners('box').map((at) => at.map((v) => Number(v.toFixed(3))));
  expect(rounded).toEqual([[-5, -5], [24, -5], [24, 7], [-5, 7]]); // prettier-ignore
  const hull = corners('hull');
  // The hull of a disc and a square to its right: shorter than the box's half, and all of it outside both.
  expect(hull).toContainEqual([24, 3]);
  expect(hull).toContainEqual([24, 7]);
  expect(hull.length).toBeGreaterThan(100);
});

test('no height is written for a tool that stays at one', async () => {
  const it = made();
  const [part] = await it.cut('laser-cut', shapes(square(0, 0, 10)));
  expect(written(part, it)).not.toMatch(/^[^(].*Z/m);
});

test('a test grid lies about what the beam is set to, and its best square’s setting is kept', () => {
  const settings = { material: 'birch plywood', thickness: 3, cutPower: 90, cutFeed: 480, cutPasses: 2, scorePower: 30, scoreFeed: 2400, fillPower: 35, fillFeed: 6000, fillLines: 0 }; // prettier-ignore
  const own = { ...beam, presets: [settings] };
  const grid = laserTestGrid(own, bench, 'birch plywood', 3.1, 'mm');
  expect(grid.powers).toEqual([14, 25, 35, 49, 70]);
  expect(grid.feeds).toEqual([3000, 4500, 6000, 7500, 9000]);
  expect(grid.lines).toEqual([2.5, 4, 5, 6.5, 7.5]);
  const job = grid.job('a'.repeat(64));
  expect(JobSchema.parse(job).cuts).toHaveLength(31);
  const best = job.cuts.find(({ id }) => id === 'p49-f4500')!;
  const stock = { material: 'birch plywood', corners: [3.1, 3.1, 3.1, 3.1] as [number, number, number, number] };
  expect(keptSetting(own, best, stock)).toEqual([{ ...settings, fillPower: 49, fillFeed: 4500 }]);
  // So many lines as its width suggests need no word; others have one, and a new engraving takes them.
  const finer = keptSetting(
    own,
    job.cuts.find(({ id }) => id === 'l7-5')!,
    stock,
  );
  expect(finer).toEqual([{ ...settings, fillLines: 7.5 }]);
  const engraved = newCut(
    { ...newJob('j', 'mm', [{ ...own, presets: finer } as Beam], bench), stock: { ...job.stock } },
    'laser-fill',
    'c',
  );
  expect(engraved).toMatchObject({ lines: 7.5, power: 35 });
  // Of another thickness, and another material, in rows of their own; without any row, too.
  const thick = keptSetting(own, best, { ...stock, corners: [6, 6.1, 6, 5.9] });
  expect(thick).toEqual([settings, { ...settings, thickness: 6.1, fillPower: 49, fillFeed: 4500 }]);
  expect(keptSetting(own, best, { ...stock, material: 'card' })[1]).toMatchObject({ material: 'card', fillPower: 49 });
  const [first] = keptSetting(beam, best, stock);
  expect(ToolSchema.parse({ ...beam, presets: [first] }).presets).toEqual([first]);
});
