import { describe, expect, test } from 'vitest';
import { newJob } from '../../document/new-job.ts';
import { clipper } from '../../geometry/clipper-for-tests.ts';
import { contains, signedArea } from '../../geometry/outline.ts';
import { strokeStarts } from '../../motion/piercing.ts';
import { ToolSchema } from '../../tools/tool-schema.ts';
import type { Nozzle } from '../../tools/nozzle/fields.ts';
import { cutArtwork } from '../cut-artwork.ts';
import { CutSchema } from '../cut-schema.ts';
import { newCut } from '../new-cut.ts';
import { partsOf } from '../parts-of.ts';
import type { CutPart, SeenPart } from '../cut-part.ts';
import type { PlasmaFacts } from './facts.ts';
import type { PlasmaCut } from './fields.ts';
import { plasmaKind } from './kind.ts';

const nozzle = ToolSchema.parse({
  id: 'n',
  name: 'N',
  kind: 'nozzle',
  diameter: 12,
  shank: 32,
  amps: 45,
  presets: [],
}) as Nozzle;
const bench = {
  id: 'b',
  kind: 'plasma',
  name: 'Table',
  link: 'file' as const,
  pins: 'none' as const,
  travel: { x: 1200, y: 900, z: 150 },
  limits: { speed: { x: 15000, y: 13500, z: 5000 }, acceleration: { x: 1200, y: 960, z: 900 }, cornerStep: 600 },
  park: null,
  bitChangeMinutes: 0,
};
const square = (x: number, y: number, side: number) =>
  Float64Array.of(x, y, x + side, y, x + side, y + side, x, y + side);
const circle = (x: number, y: number, r: number, n = 180) =>
  Float64Array.from({ length: 2 * n }, (_, k) => {
    const a = (2 * Math.PI * Math.floor(k / 2)) / n;
    return k % 2 ? y + r * Math.sin(a) : x + r * Math.cos(a);
  });
const shape = (...loops: Float64Array[]) => ({
  name: '',
  rule: 'evenodd' as const,
  outlines: loops.map((points) => ({ points, closed: true })),
});
const line = (...points: number[]) => ({
  name: '',
  rule: 'evenodd' as const,
  outlines: [{ points: Float64Array.from(points), closed: false }],
});

async function burn(
  shapes: ReturnType<typeof shape>[],
  fields: Partial<PlasmaCut> = {},
  thick = 3,
): Promise<CutPart<PlasmaFacts>> {
  const job = newJob('t', 'mm', [nozzle], bench);
  Object.assign(job.stock, { length: 400, width: 380, corners: [thick, thick, thick, thick] });
  const cut = CutSchema.parse({
    ...newCut(job, 'plasma', 'c'),
    kerf: 2,
    feed: 3000,
    out: 2,
    overburn: 2,
    small: 10,
    slower: 50,
    ...fields,
    targets: [{ item: 'a', shapes: 'all' }],
  });
  const [part] = await partsOf(job, cut, cutArtwork(shapes, clipper), clipper);
  return part as CutPart<PlasmaFacts>;
}

/** The strokes of a part: what is gone along with power on, x and y in turn, each from its pierce. */
function strokesOf({ path }: CutPart): number[][] {
  const out: number[][] = [];
  path.power.forEach((power, k) => {
    if (power === 0) return;
    if (path.power[k - 1] === 0) out.push([path.xyz[3 * k - 3], path.xyz[3 * k - 2]]);
    out.at(-1)!.push(path.xyz[3 * k], path.xyz[3 * k + 1]);
  });
  return out;
}
/** Of the loop in a stroke, without leads: what is enclosed by its points that lie on it, signed. */
const turnOf = (stroke: number[]) => Math.sign(signedArea(Float64Array.from(stroke)));

describe('kerf', () => {
  test('is taken off once: a part and its hole have their size, here or by the controller', async () => {
    const frame = [shape(square(50, 50, 100), square(80, 80, 40))];
    const here = strokesOf(await burn(frame, { lead: { kind: 'none', length: 1 }, out: 0, overburn: 0 }));
    const box = (stroke: number[]) => {
      const xs = stroke.filter((_, k) => k % 2 === 0);
      return [Math.min(...xs), Math.max(...xs)];
    };
    // Half a kerf of 2 mm inside the hole and outside the part; the hole first.
    expect(here.map(box).map((b) => b.map((v) => Math.round(v * 1000) / 1000))).toEqual([
      [81, 119],
      [49, 151],
    ]);
    const there = strokesOf(
      await burn(frame, { by: 'controller', lead: { kind: 'none', length: 1 }, out: 0, overburn: 0 }),
    );
    expect(there.map(box)).toEqual([
      [80, 120],
      [50, 150],
    ]);
  });
});

// Common practice (handbook §6): the swirl squares the right-hand edge, so outsides run clockwise and insides counter-clockwise.
describe('direction', () => {
  test.each([
    ['right', -1, 1],
    ['left', 1, -1],
  ] as const)('square edge on the %s', async (swirl, outside, inside) => {
    const strokes = strokesOf(await burn([shape(square(50, 50, 100), square(80, 80, 40))], { swirl }));
    expect(strokes.map(turnOf)).toEqual([inside, outside]);
  });
});

describe('leads', () => {
  test('begin in the scrap: outside a part, inside a hole, and an arc of 4 mm meets the loop 4 mm beside', async () => {
    const part = await burn([shape(square(50, 50, 100), square(80, 80, 40))], { lead: { kind: 'arc', length: 4 } });
    const [hole, outside] = part.facts!.pierces;
    expect(contains(square(80, 80, 40), hole.x, hole.y)).toBe(true);
    expect(contains(square(50, 50, 100), outside.x, outside.y)).toBe(false);
    const off = Math.max(50 - outside.x, outside.x - 150, 50 - outside.y, outside.y - 150);
    // 4 mm from the kerf's middle, which is 1 mm from the part.
    expect(off).toBeCloseTo(5, 6);
    expect(part.facts).toMatchObject({ shorter: 0, noLead: 0 });
  });

  test('never in a part, over a kerf, over another lead or beside the sheet, in 60 seeded jobs', async () => {
    let seed = 3;
    const rng = () => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647;
    for (let k = 0; k < 60; k++) {
      const shapes = [];
      const kept: Float64Array[] = [];
      for (let cell = 0; cell < 9; cell++) {
        const [x, y] = [20 + 60 * (cell % 3) + 10 * rng(), 20 + 60 * Math.floor(cell / 3) + 10 * rng()];
        const side = 20 + 34 * rng();
        const outer = rng() < 0.5 ? square(x, y, side) : circle(x + side / 2, y + side / 2, side / 2, 40);
        kept.push(outer);
        shapes.push(rng() < 0.5 ? shape(outer) : shape(outer, circle(x + side / 2, y + side / 2, side * (0.1 + 0.3 * rng()), 30))); // prettier-ignore
      }
      const kerf = 0.8 + 1.5 * rng();
      const part = await burn(shapes, { kerf, lead: { kind: rng() < 0.5 ? 'arc' : 'line', length: 1 + 7 * rng() } });
      const strokes = strokesOf(part);
      const { pierces } = part.facts!;
      for (const [i, { x, y }] of pierces.entries()) {
        expect(x > 0 && y > 0 && x < 400 && y < 400).toBe(true);
        for (const [j, other] of strokes.entries()) {
          if (i === j) continue;
          const nearest = Math.min(...distances(other, x, y));
          expect(nearest, `pierce ${i} of job ${k} beside stroke ${j}`).toBeGreaterThan(0.9 * kerf);
        }
      }
    }
  });

  test('keep clear of open lines as of loops', async () => {
    // Lines 3.5 mm beside each side but one: the usual lead of 4 mm would cross them.
    const beside = [line(96.5, 90, 96.5, 210), line(203.5, 90, 203.5, 210), line(90, 96.5, 210, 96.5)];
    const part = await burn([shape(square(100, 100, 100)), ...beside], { lead: { kind: 'arc', length: 4 } });
    const loop = strokesOf(part).find((stroke) => stroke.length > 8)!;
    expect(loop[1]).toBeGreaterThan(201);
    const all = [...beside, line(90, 203.5, 210, 203.5)];
    const shut = await burn([shape(square(100, 100, 100)), ...all], { lead: { kind: 'arc', length: 4 } });
    expect(shut.facts!.shorter + shut.facts!.noLead).toBe(1);
    const [x, y] = strokesOf(shut).find((stroke) => stroke.length > 8)!;
    for (const { outlines } of all) expect(Math.min(...distances([...outlines[0].points], x, y))).toBeGreaterThan(1.99);
  });

  test('shrink where there is no room, and say so', async () => {
    // Two parts 5 mm apart, in the middle of a row.
    const near = [shape(square(20, 20, 40)), shape(square(65, 20, 40)), shape(circle(200, 200, 2.5))];
    const part = await burn(near, { side: 'outside', lead: { kind: 'arc', length: 4 } });
    expect(part.facts!.noLead).toBe(0);
    const holes = await burn([shape(square(100, 100, 100), circle(150, 150, 4))], { lead: { kind: 'arc', length: 6 } });
    expect(holes.facts).toMatchObject({ shorter: 1, noLead: 0 });
    const none = await burn([shape(square(100, 100, 100), circle(150, 150, 1.2))], {
      lead: { kind: 'arc', length: 6 },
    });
    expect(none.facts!.noLead).toBe(1);
  });

  test('start where they are put by hand', async () => {
    const part = await burn([shape(square(100, 100, 100))], { start: [{ x: 210, y: 130 }] });
    expect(part.facts!.starts[0].x).toBeCloseTo(201, 6);
    expect(part.facts!.starts[0].y).toBeCloseTo(130, 6);
    // Moved, they are written to a hundredth; the others stay where they were.
    const two = await burn([shape(square(20, 20, 50), circle(45, 45, 10))]);
    const [first, second] = plasmaKind.handles!({} as PlasmaCut, two as unknown as SeenPart<PlasmaFacts>);
    const [kept] = two.facts!.starts;
    expect([first.x, first.y]).toEqual([kept.x, kept.y]);
    const start = [
      { x: Math.round(kept.x * 100) / 100, y: Math.round(kept.y * 100) / 100 },
      { x: 12.35, y: 67.89 },
    ];
    expect(second.put({ x: 12.3456, y: 67.8912 })).toEqual({ start });
    expect(second.put(undefined)).toEqual({ start: [] });
  });
});

describe('holes, islands and tabs', () => {
  test('a hole is cut past its start; small ones and tight arcs slower, and at one height', async () => {
    const part = await burn([shape(square(100, 100, 100), circle(150, 150, 4.5), circle(130, 130, 9))], {
      overburn: 3,
    });
    const { path, pierce } = part;
    const feeds = strokesOf(part).map((_, k) => {
      const start = strokeStarts(path)[k];
      return Math.min(...[...path.feed.subarray(start + 2, start + 20)]);
    });
    expect(feeds.filter((feed) => feed === 1500)).toHaveLength(1);
    expect(pierce!.level).toHaveLength(1);
    // By its last point, where the arc goes out.
    const [end] = pierce!.level;
    expect([path.power[end], path.power[end + 1]]).toEqual([1, 0]);
    // 2·π·(9 − 1) round, its lead of 2 mm or so, and 3 mm more.
    const lengths = strokesOf(part).map((stroke) => {
      let sum = 0;
      for (let i = 2; i < stroke.length; i += 2)
        sum += Math.hypot(stroke[i] - stroke[i - 2], stroke[i + 1] - stroke[i - 1]);
      return sum;
    });
    expect(Math.min(...lengths.map((length) => Math.abs(length - (16 * Math.PI + 3 + 2 * Math.PI))))).toBeLessThan(0.6);
  });

  // Common practice (handbook §6): small holes in 3/8 in plate will not come out, in 10 gauge (0.1345 in) they will.
  test('a hole of 6 mm is small for 3/8 in plate and none too small for 10 gauge', async () => {
    const plate = [shape(square(100, 100, 100), circle(150, 150, 3))];
    expect((await burn(plate, { kerf: 1.5 }, 9.525)).facts!.tooSmall).toHaveLength(1);
    expect((await burn(plate, { kerf: 1.5 }, 3.416)).facts!.tooSmall).toEqual([]);
    const marked = await burn(plate, { kerf: 1.5, tooSmall: 'mark' }, 9.525);
    expect(marked.facts!.pierces[0].x).toBeCloseTo(150, 5);
    expect(strokesOf(marked)[0].every((v) => Math.abs(v - 150) < 1e-5)).toBe(true);
    expect((await burn(plate, { kerf: 1.5, tooSmall: 'leave' }, 9.525)).facts!.pierces).toHaveLength(1);
  });

  test('the middle of an O drops out, and bars of 3 mm hold it', async () => {
    const letter = [shape(square(100, 100, 100)), shape(circle(150, 150, 30), circle(150, 150, 15))];
    expect((await burn(letter)).facts!.islands).toHaveLength(1);
    const tied = await burn(letter, { bridge: 3 });
    expect(tied.facts!.islands).toEqual([]);
    expect(tied.facts!.pierces).toHaveLength(3);
    // Half a ring is cut out on each side of the bars.
    const sizes = strokesOf(tied).map((stroke) => Math.abs(signedArea(Float64Array.from(stroke)))).sort((a, b) => a - b); // prettier-ignore
    for (const half of sizes.slice(0, 2)) {
      expect(half).toBeLessThan((Math.PI * (30 ** 2 - 15 ** 2)) / 2 - 3 * 15);
      expect(half).toBeGreaterThan((Math.PI * (29 ** 2 - 16 ** 2)) / 2 - 3 * 15 - 40);
    }
    // Alone as a hole it is the same.
    expect((await burn([letter[1]], { side: 'inside' })).facts!.islands).toHaveLength(1);
    expect((await burn([letter[1]], { side: 'inside', bridge: 3 })).facts!.islands).toEqual([]);
  });

  test('tabs leave their length uncut, each piece pierced anew in the scrap', async () => {
    const part = await burn([shape(square(100, 100, 100))], { tabs: 4, tab: 1 });
    expect(part.facts!.pierces).toHaveLength(4);
    const around = strokesOf(part).flatMap((stroke) => stroke.slice(-2));
    expect(around).toHaveLength(8);
  });

  test('what lies inside comes first, however deep', async () => {
    const part = await burn([shape(square(20, 20, 300)), shape(square(60, 60, 200)), shape(square(100, 100, 100)), shape(circle(150, 150, 20))]); // prettier-ignore
    expect(strokesOf(part).map((stroke) => Math.round(Math.abs(signedArea(Float64Array.from(stroke))) / 1000))).toEqual([1, 10, 39, 91]); // prettier-ignore
  });

  test('open lines are followed as drawn, either way; points are left out and told', async () => {
    const part = await burn([line(10, 10, 90, 10), line(95, 10, 180, 10), line(50, 50, 50, 50)]);
    expect(part.facts).toMatchObject({ empty: 1, noLead: 0 });
    expect(strokesOf(part)).toEqual(
      [
        [10, 10, 90, 10],
        [95, 10, 180, 10],
      ].map(([x, y, ...rest]) => [x, y, x, y, ...rest]),
    );
    // From the end that is nearer.
    const back = await burn([line(180, 10, 120, 15, 95, 10), line(10, 10, 90, 10)]);
    expect(strokesOf(back)[1]).toEqual([95, 10, 95, 10, 120, 15, 180, 10]);
  });
});

test('scrap that two parts enclose is kept off once the second of them is cut', async () => {
  // A bar in the opening of a U, in gaps of 3 mm in which two kerfs of 2 mm meet; small parts in the scrap between.
  const u = shape(Float64Array.of(20, 20, 35, 20, 35, 245, 305, 245, 305, 20, 320, 20, 320, 260, 20, 260));
  const bar = shape(Float64Array.of(38, 20, 302, 20, 302, 35, 38, 35));
  const small = [150, 180, 210].map((y) => shape(circle(170, y, 5)));
  const { path } = await burn([u, bar, ...small], {
    start: [
      { x: 19, y: 30 },
      { x: 50, y: 19 },
    ],
  });
  const lit = (k: number) => k > 0 && path.power[k] > 0 && path.power[k - 1] === 0;
  const pierced = Array.from(path.power.keys()).filter(lit);
  expect(pierced.map((k) => path.xyz[3 * k + 1] > 100)).toEqual([false, false, true, true, true]);
  // From one small part to the next the torch goes over the scrap, which may have tipped.
  for (const k of [3, 4]) {
    const heights = path.xyz.filter((_, i) => i % 3 === 2 && i > 3 * pierced[k - 1] && i < 3 * pierced[k]);
    expect(Math.max(...heights)).toBeGreaterThan(30);
  }
});

describe('bad input', () => {
  test.each([
    ['nothing but points', [line(5, 5, 5, 5)], {}, /points, or lines whose points lie in one place/],
    [
      'a kerf wider than a slot',
      [shape(square(100, 100, 1.5))],
      { side: 'inside' },
      /kerf of 2 mm is wider than all that is chosen/,
    ],
    [
      'cutting higher than it pierces',
      [shape(square(100, 100, 50))],
      { cutHeight: 5, pierceHeight: 3 },
      /pierce at least as high as it cuts/,
    ],
    ['links lower than it pierces', [shape(square(100, 100, 50))], { rise: 2 }, /make the rise at least 3.8 mm/],
  ] as const)('%s', async (_, shapes, fields, says) => {
    await expect(burn([...shapes], fields)).rejects.toThrow(says);
  });

  test('parts that overlap, and slots that close, are told', async () => {
    const over = await burn([shape(square(50, 50, 60)), shape(square(90, 60, 60))]);
    expect(over.facts!.overlaps).toBe(1);
    expect((await burn([shape(square(50, 50, 60)), shape(square(60, 60, 20))])).facts!.overlaps).toBe(0);
    const slot = await burn([shape(square(50, 50, 60), Float64Array.of(60, 60, 100, 60, 100, 61, 60, 61))]);
    expect(slot.facts!.closes).toBe(true);
    // Drawn twice it is drawn once.
    expect((await burn([shape(square(50, 50, 60)), shape(square(50, 50, 60))])).facts!.pierces).toHaveLength(1);
  });
});

/** Distances of a place from every move of a stroke, mm. */
function distances(stroke: readonly number[], x: number, y: number): number[] {
  const out: number[] = [];
  for (let i = 2; i < stroke.length; i += 2) {
    const [ax, ay] = [stroke[i - 2], stroke[i - 1]];
    const [dx, dy] = [stroke[i] - ax, stroke[i + 1] - ay];
    const l2 = dx * dx + dy * dy;
    const t = l2 > 0 ? Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / l2)) : 0;
    out.push(Math.hypot(x - ax - t * dx, y - ay - t * dy));
  }
  return out;
}
