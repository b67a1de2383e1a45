import { describe, expect, test } from 'vitest';
import { type Item, ItemSchema } from '../document/item.ts';
import { type PlacedItem, placeItem, type Resources } from './place.ts';
import { roundPlaces } from './round-places.ts';
import { clipper } from '../geometry/clipper-for-tests.ts';
import { importSvg } from './svg.ts';

const svg = (inside: string) =>
  new TextEncoder().encode(
    `<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="20mm" viewBox="0 0 40 20">${inside}</svg>`,
  );
const HASH = 'a'.repeat(64);
const place = (inside: string, change: Record<string, unknown> = {}): PlacedItem => {
  const resources: Resources = {
    drawing: (hash) => (hash === HASH ? importSvg(svg(inside), clipper) : undefined),
    face: () => undefined,
    clipper,
  };
  const item: Item = ItemSchema.parse({
    id: 'art',
    kind: 'drawing',
    name: 'Art',
    asset: HASH,
    x: 0,
    y: 0,
    rotation: 0,
    scaleX: 1,
    scaleY: 1,
    closeOpen: false,
    ...change,
  });
  return placeItem(item, resources);
};
/** A box 10 × 6 whose lower left corner lies at (5, 4), y up. */
const BOX = '<rect x="5" y="10" width="10" height="6"/>';

describe('a drawing on the sheet', () => {
  test('as it comes: mm from its page’s lower left corner, y up', () => {
    expect(place(BOX).bounds).toEqual({ minX: 5, minY: 4, maxX: 15, maxY: 10 });
  });
  test('moved, and made larger about the page’s corner', () => {
    expect(place(BOX, { x: 100, y: 50, scaleX: 2, scaleY: 3 }).bounds).toEqual({
      minX: 110,
      minY: 62,
      maxX: 130,
      maxY: 80,
    });
  });
  test('a quarter turn counter-clockwise: (x, y) goes to (−y, x)', () => {
    const { minX, minY, maxX, maxY } = place(BOX, { rotation: 90 }).bounds!;
    expect([minX, minY, maxX, maxY].map((v) => Math.round(v * 1e9) / 1e9)).toEqual([-10, 5, -4, 15]);
  });
  test('it turns before it is moved, so that its own corner stays where it was put', () => {
    const { minX, minY } = place('<rect x="0" y="0" width="40" height="20"/>', { x: 7, y: 9, rotation: 180 }).bounds!;
    expect([minX, minY].map((v) => Math.round(v * 1e9) / 1e9)).toEqual([-33, -11]);
  });
  test('open outlines stay open until their ends are to be joined', () => {
    const line = '<path d="M5 5H20V15"/>';
    expect(place(line).shapes[0].outlines[0].closed).toBe(false);
    expect(place(line, { closeOpen: true }).shapes[0].outlines[0].closed).toBe(true);
    // Two points have no inside, whatever is asked.
    expect(
      place('<path d="M5 5H20"/><rect width="3" height="3"/>', { closeOpen: true }).shapes[0].outlines[0].closed,
    ).toBe(false);
  });
  test('nodes are counted as drawn: a rectangle four, a circle its two arcs, curves and lines one each', () => {
    expect(place(BOX).nodes).toEqual({ drawn: 4, now: 4, off: 0 });
    expect(place('<circle cx="10" cy="10" r="5"/>').nodes.drawn).toBe(2);
    expect(place('<path d="M0 0C5 0 10 5 10 10L0 10z"/>').nodes.drawn).toBe(3);
  });
  test('refitting is in millimetres of the sheet, after scaling', () => {
    const points = Array.from({ length: 400 }, (_, i) => {
      const a = (2 * Math.PI * i) / 400;
      const r = 8 + 0.01 * Math.sin(i * 12.9898);
      return `${(20 + r * Math.cos(a)).toFixed(4)} ${(10 + r * Math.sin(a)).toFixed(4)}`;
    });
    const wobbly = `<path d="M${points.join('L')}z"/>`;
    const small = place(wobbly, { refit: 0.03 });
    expect(small.nodes.drawn).toBe(400);
    expect(small.nodes.now).toBeLessThan(40);
    expect(small.nodes.off).toBeLessThanOrEqual(0.03);
    // Ten times as large the wobble is 0.1 mm, and three hundredths do not smooth it.
    expect(place(wobbly, { refit: 0.03, scaleX: 10, scaleY: 10 }).nodes.now).toBeGreaterThan(small.nodes.now * 3);
  });
  test('a file that is missing is said in a sentence, and nothing is thrown', () => {
    const { problem, shapes } = place(BOX, { asset: 'b'.repeat(64) });
    expect(problem).toMatch(/import it again\.$/);
    expect(shapes).toEqual([]);
  });
});

describe('round places', () => {
  const places = (inside: string) => roundPlaces(importSvg(svg(inside), clipper).shapes);
  test('centres and diameters of circles', () => {
    const { places: found, others } = places('<circle cx="10" cy="10" r="2.5"/><circle cx="30" cy="5" r="1"/>');
    expect(others).toBe(0);
    expect(found.map(({ x, y, diameter }) => [x, y, diameter].map((v) => Math.round(v * 1e3) / 1e3))).toEqual([
      [10, 10, 5],
      [30, 15, 2],
    ]);
  });
  test('squares, ellipses and stars are none; specks stand for points', () => {
    expect(places(BOX)).toEqual({ places: [], others: 1 });
    expect(places('<ellipse cx="10" cy="10" rx="5" ry="4"/>').others).toBe(1);
    expect(places('<rect x="10" y="10" width="0.1" height="0.1"/>').places).toHaveLength(1);
  });
});
