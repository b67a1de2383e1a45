import { describe, expect, test } from 'vitest';
import { readFileSync } from 'node:fs';
import { clipper } from '../../geometry/clipper-for-tests.ts';
import { readJobFile } from '../../job/job-file.ts';
import type { Path } from '../../motion/path.ts';
import { measurePath } from '../../motion/path.ts';
import type { DragPoint } from '../../tools/drag/fields.ts';
import { cutArtwork } from '../cut-artwork.ts';
import type { CutPart } from '../cut-part.ts';
import { newCut } from '../new-cut.ts';
import { partsOf } from '../parts-of.ts';
import type { DragFacts } from './facts.ts';
import type { DragCut } from './fields.ts';

const demo = readJobFile(
  readFileSync(new URL('../../../../demo/jobs/night-light.kerbe.json', import.meta.url), 'utf8'),
).job;
const point: DragPoint = { id: 'p', name: 'Diamond', kind: 'drag', diameter: 6, shank: 6, angle: 90, width: 0.3, travel: 5, force: 5, standOut: null, presets: [] }; // prettier-ignore
const outline = (closed: boolean, ...points: number[]) => ({ points: Float64Array.from(points), closed });
const rectangle = (x: number, y: number, w: number, h: number) => outline(true, x, y, x + w, y, x + w, y + h, x, y + h);
const disc = (x: number, y: number, r: number, n = 720) =>
  outline(true, ...Array.from({ length: 2 * n }, (_, i) => (i % 2 ? y + r * Math.sin((Math.PI * (i - 1)) / n) : x + r * Math.cos((Math.PI * i) / n)))); // prettier-ignore

async function drawn(
  outlines: ReturnType<typeof outline>[],
  fields: Partial<DragCut> = {},
  own: Partial<DragPoint> = {},
): Promise<CutPart<DragFacts>> {
  const job = { ...demo, bits: [{ ...point, ...own }] };
  const cut = { ...newCut(job, 'drag', 'c')!, ...fields };
  const shapes = outlines.map((one) => ({ name: '', rule: 'nonzero' as const, outlines: [one] }));
  return (await partsOf(job, cut, cutArtwork(shapes, clipper), clipper))[0] as CutPart<DragFacts>;
}

/** Moves that draw, from end to end. */
function strokes({ xyz, rapid }: Path): [number, number, number, number][] {
  const out: [number, number, number, number][] = [];
  for (let i = 1; i < rapid.length; i++)
    if (!rapid[i] && (xyz[3 * i] !== xyz[3 * i - 3] || xyz[3 * i + 1] !== xyz[3 * i - 2]))
      out.push([xyz[3 * i - 3], xyz[3 * i - 2], xyz[3 * i], xyz[3 * i + 1]]);
  return out;
}
const long = ([ax, ay, bx, by]: [number, number, number, number]) => Math.hypot(bx - ax, by - ay);
const sum = (all: [number, number, number, number][]) => all.reduce((total, one) => total + long(one), 0);
/** Of them those along a direction, radians. */
const along = (path: Path, angle: number) =>
  strokes(path).filter((s) => Math.abs(Math.sin(Math.atan2(s[3] - s[1], s[2] - s[0]) - angle)) < 1e-6);

describe('a point drawn over the work', () => {
  test('down at once, along at one height, up just clear of the stock; the spindle is asked for nothing', async () => {
    const part = await drawn([rectangle(10, 10, 30, 20), outline(false, 60, 10, 80, 10)], { pressed: 2.5, rise: 0.8 });
    const { xyz, rapid, power } = part.path;
    for (let i = 1; i < rapid.length; i++) {
      const [z, before] = [xyz[3 * i + 2], xyz[3 * i - 1]];
      const across = xyz[3 * i] !== xyz[3 * i - 3] || xyz[3 * i + 1] !== xyz[3 * i - 2];
      expect(rapid[i] ? z >= -2.5 : z === -2.5).toBe(true);
      if (across) expect([z, before]).toEqual(rapid[i] ? [0.8, 0.8] : [-2.5, -2.5]);
      expect(power[i]).toBe(rapid[i] ? 0 : 1);
    }
    expect(sum(strokes(part.path))).toBeCloseTo(100 + 20, 9);
    expect(part.speed).toBe(0);
    expect(part.facts).toMatchObject({ runs: 2, width: 0.3, across: null, overlap: null, nose: null });
  });
  test('passes go there and back without a lift', async () => {
    const once = await drawn([outline(false, 0, 0, 20, 0)]);
    const thrice = await drawn([outline(false, 0, 0, 20, 0)], { passes: 3 });
    expect(sum(strokes(thrice.path))).toBeCloseTo(3 * sum(strokes(once.path)), 9);
    expect(measurePath(thrice.path).lifts).toBe(0);
  });
  test('lines that cross are one figure: a lattice with as few lifts as its ends ask for', async () => {
    const bars = [0, 1, 2, 3].flatMap((k) => [
      outline(false, 0, 5 * k, 15, 5 * k),
      outline(false, 5 * k, 0, 5 * k, 15),
    ]);
    const part = await drawn(bars);
    expect(sum(strokes(part.path))).toBeCloseTo(8 * 15, 9);
    // Two places with three lines on each of four sides: eight odd ones, four runs.
    expect(part.facts!.runs).toBe(4);
  });
});

describe('filled with lines', () => {
  test.each([0, 90])('a rectangle at %d°: rows a step apart, each as long as the inside', async (angle) => {
    const [w, h, step] = [40, 24, 0.7];
    const { path } = await drawn([rectangle(5, 5, w, h)], { pattern: 'hatch', angle, step });
    const [a, b] = angle === 0 ? [w, h] : [h, w];
    const rows = along(path, (angle * Math.PI) / 180);
    // Inside by half a line: b − 0.3 of height hold so many rows.
    const count = Math.floor((b - 0.3) / step) + 1;
    expect(rows).toHaveLength(count);
    expect(sum(rows)).toBeCloseTo(count * (a - 0.3), 4);
    const at = rows.map(([x, y]) => (angle === 0 ? y : x)).sort((p, q) => p - q);
    for (let k = 1; k < count; k++) expect(at[k] - at[k - 1]).toBeCloseTo(step, 6);
    // As far from the one side as from the other.
    expect(at[0] - 5).toBeCloseTo(5 + b - at[count - 1], 4);
  });
  test('a disc at any angle: chords of its inside, 2·√(r² − v²)', async () => {
    const [r, step] = [9, 0.8];
    for (const angle of [0, 37, -62]) {
      const { path } = await drawn([disc(30, 30, r)], { pattern: 'hatch', angle, step });
      const inside = r - 0.15;
      const count = Math.floor((2 * inside) / step) + 1;
      let chords = 0;
      for (let k = 0; k < count; k++)
        chords += 2 * Math.sqrt(Math.max(0, inside ** 2 - ((k - (count - 1) / 2) * step) ** 2));
      expect(Math.abs(sum(along(path, (angle * Math.PI) / 180)) / chords - 1)).toBeLessThan(0.001);
    }
  });
  test.each([1.28, 1.05, 0.9, 0.61, 0.47])(
    'rings that lie side by side leave nothing blank in a bar %d mm high',
    async (high) => {
      for (const fill of ['textured', 'solid'] as const) {
        const { path } = await drawn([rectangle(5, 4, 30, high)], { pattern: 'rings', step: 0.25, fill });
        const over = (x: number) =>
          strokes(path)
            .filter(([ax, , bx]) => (ax - x) * (bx - x) < 0)
            .map(([, ay, , by]) => ay + by)
            .map((y) => y / 2)
            .sort((a, b) => a - b);
        for (const x of [8, 20, 31]) {
          const lines = [4 - 0.15, ...over(x), 4 + high + 0.15];
          for (let k = 1; k < lines.length; k++) expect(lines[k] - lines[k - 1]).toBeLessThan(0.3 + 1e-6);
        }
      }
    },
  );
  test('rings that are further apart than a line is wide keep their stripes', async () => {
    const { facts } = await drawn([rectangle(5, 4, 30, 1.28)], { pattern: 'rings', step: 0.45, fill: 'textured' });
    expect(facts!.runs).toBe(1);
  });
  test('crossed lines are both; solid draws the edge, too', async () => {
    const one = await drawn([rectangle(0, 0, 20, 12)], { pattern: 'hatch', angle: 0, step: 0.25 });
    const both = await drawn([rectangle(0, 0, 20, 12)], { pattern: 'cross', angle: 0, step: 0.25 });
    expect(sum(along(both.path, 0))).toBeGreaterThanOrEqual(sum(along(one.path, 0)) - 1e-6);
    expect(along(both.path, Math.PI / 2).filter((s) => long(s) > 11)).toHaveLength(Math.floor(19.7 / 0.25) + 1);
    const solid = await drawn([rectangle(0, 0, 20, 12)], { pattern: 'hatch', angle: 45, step: 0.25, fill: 'solid' });
    const edge = along(solid.path, 0);
    expect(sum(edge)).toBeGreaterThan(2 * 19.7 - 0.01);
    expect(solid.facts!.overlap).toBeCloseTo((0.3 - 0.25) / 0.3, 9);
  });
  test('lines across a stroke: as many as are told, whatever the pattern', async () => {
    // A bar 4.3 mm wide holds rows 1 mm apart at 0.15, 1.15, … 4.15 mm: five.
    const bar = rectangle(0, 0, 80, 4.3);
    const hatch = await drawn([bar], { pattern: 'hatch', angle: 0, step: 1 });
    expect(hatch.facts!.across).toEqual({ least: 5, usual: 5, most: 5 });
    const rings = await drawn([bar], { pattern: 'rings', step: 1 });
    expect(rings.facts!.across!.usual).toBeGreaterThanOrEqual(4);
    expect(rings.facts!.across!.usual).toBeLessThanOrEqual(6);
  });
});

describe('what a line’s width changes', () => {
  test('a narrow wedge and a small eye close up; a wide one does not', async () => {
    const wedge = await drawn([outline(true, 0, 0, 10, 0, 10, 1.2)]);
    expect(wedge.facts!.closed.length).toBeGreaterThan(0);
    const eye = await drawn([disc(5, 5, 0.14, 90)]);
    expect(eye.facts!.closed).toHaveLength(1);
    const wide = await drawn([rectangle(0, 0, 10, 10)]);
    expect(wide.facts!.closed).toHaveLength(0);
  });
  test('shapes are drawn larger about their own middles, by as much as is typed', async () => {
    const part = await drawn([rectangle(0, 0, 10, 4), rectangle(20, 0, 10, 4)], { larger: 10 });
    const x = strokes(part.path).flatMap(([ax, , bx]) => [ax, bx]);
    expect([Math.min(...x), Math.max(...x)]).toEqual([-0.5, 30.5]);
    expect(sum(strokes(part.path))).toBeCloseTo(2 * 28 * 1.1, 6);
  });
});

describe('what cannot be drawn gets a sentence', () => {
  test.each<[object, Partial<DragPoint>, RegExp]>([
    [{ pressed: 5.5 }, {}, /pressed 5.5 mm, and its spring gives 5 mm; press it less/],
    [{ pattern: 'hatch' }, { width: 4.9 }, /narrower than the line/],
    [{}, { standOut: 3.1 }, /stands 3.1 mm out of its nose, and is itself only 3 mm high/],
  ])('%j %j', async (fields, own, sentence) => {
    await expect(drawn([rectangle(0, 0, 4, 4)], fields, own)).rejects.toThrow(sentence);
  });
  test('nothing, open lines to be filled, and points', async () => {
    await expect(drawn([])).rejects.toThrow(/No lines are chosen/);
    await expect(drawn([outline(false, 0, 0, 9, 9)], { pattern: 'rings' })).rejects.toThrow(/open; close them/);
    await expect(drawn([outline(false, 3, 3)])).rejects.toThrow(/points; choose lines/);
  });
});
