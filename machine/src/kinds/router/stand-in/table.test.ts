import { beforeEach, describe, expect, test } from 'vitest';
import { Axes } from '../../../stand-in/axes.ts';
import { PLATE, SPOILBOARD_TOP, Table } from './table.ts';
import { type FittedBit, Workpiece } from './workpiece.ts';

const SETTER = new Table().setter!;

const mill: FittedBit = { name: 'mill', diameter: 6, tipDiameter: 0, length: 40 };
const vee: FittedBit = { name: 'vee', diameter: 12, halfAngle: Math.PI / 6, tipDiameter: 0, length: 40 };

describe('a piece of stock', () => {
  const piece = new Workpiece({ x: 100, y: 50 }, 80, 40, [18, 20, 22, 20]);
  test('its surface lies between its corners', () => {
    expect(piece.surface(0, 0)).toBe(18);
    expect(piece.surface(80, 0)).toBe(20);
    expect(piece.surface(80, 40)).toBe(22);
    expect(piece.surface(0, 40)).toBe(20);
    expect(piece.surface(40, 20)).toBe(20);
  });
  test('beside it nothing stands over the bit', () => {
    expect(piece.over(mill, -4, 10, 5)).toBe(0);
    expect(piece.over(mill, 10, 44, 5)).toBe(0);
    expect(piece.over(mill, 40, 20, 15)).toBeCloseTo(5, 0);
  });
  test('the whole bit is met, not its middle', () => {
    // 2 mm beside the board a mill of 6 mm stands in it with its edge; a V-bit only where its cone is as wide.
    expect(piece.over(mill, -2, 20, 15)).toBeGreaterThan(3.5);
    expect(piece.over(vee, -2, 20, 15)).toBeCloseTo(19 - 15 - 2 / Math.tan(Math.PI / 6), 0);
    expect(piece.over(vee, -3, 20, 15)).toBe(0);
  });
  test('an end mill leaves a flat slot as wide as itself', () => {
    const own = new Workpiece({ x: 0, y: 0 }, 80, 40, [20, 20, 20, 20]);
    own.cut(mill, { x: 10, y: 20, z: 16 }, { x: 60, y: 20, z: 16 });
    const row = (y: number) => own.heights[Math.floor(y / own.cell) * own.columns + Math.floor(30 / own.cell)];
    expect(row(20)).toBe(16);
    expect(row(22.6)).toBe(16);
    expect(row(23.4)).toBe(20);
    expect(row(17.4)).toBe(16);
  });
  test('a V-bit leaves walls at half its angle: 60° rises 1/tan 30° = 1.73 mm a mm', () => {
    const own = new Workpiece({ x: 0, y: 0 }, 80, 40, [20, 20, 20, 20]);
    own.cut(vee, { x: 10, y: 20, z: 15 }, { x: 60, y: 20, z: 15 });
    const at = (y: number) => own.heights[Math.floor(y / own.cell) * own.columns + Math.floor(30 / own.cell)];
    expect(at(21.25)).toBeCloseTo(15 + 1.25 * Math.sqrt(3), 2);
    expect(at(22.25)).toBeCloseTo(15 + 2.25 * Math.sqrt(3), 2);
    expect(at(23.5)).toBe(20);
  });
  test('over the stock a bit cuts nothing', () => {
    const own = new Workpiece({ x: 0, y: 0 }, 20, 20, [20, 20, 20, 20]);
    own.cut(mill, { x: 0, y: 10, z: 20 }, { x: 20, y: 10, z: 20 });
    expect(Math.min(...own.heights)).toBe(20);
  });
});

describe('what a bit touches', () => {
  let table: Table;
  beforeEach(() => {
    table = new Table();
    table.piece = new Workpiece({ x: 100, y: 50 }, 200, 120, [18, 18, 18, 18]);
  });
  test('away, there is no plate', () => {
    expect(table.plateBox()).toBeUndefined();
  });
  test.each([
    ['lower-left', 100, 50],
    ['lower-right', 300, 50],
    ['upper-right', 300, 170],
    ['upper-left', 100, 170],
  ] as const)('on the %s corner its sides stand out by their own thickness', (corner, x, y) => {
    table.plate = 'corner';
    table.plateCorner = corner;
    const box = table.plateBox()!;
    expect(box.z1).toBe(SPOILBOARD_TOP + 18 + PLATE.thickness);
    expect(corner.endsWith('right') ? box.x1 - x : x - box.x0).toBe(PLATE.side);
    expect(corner.startsWith('upper') ? box.y1 - y : y - box.y0).toBe(PLATE.side);
    expect([box.x1 - box.x0, box.y1 - box.y0]).toEqual([PLATE.size, PLATE.size]);
  });
  test('flat it lies on the middle of the stock, for the board beside it on the board', () => {
    table.plate = 'flat';
    expect(table.plateBox()).toMatchObject({ x0: 180, y0: 90, z0: SPOILBOARD_TOP + 18 });
    table.plate = 'spoilboard';
    expect(table.plateBox()!.z1).toBe(SPOILBOARD_TOP + PLATE.thickness);
    expect(table.plateBox()!.x1).toBeLessThan(100);
  });
  test('the plate tells of a touch only with the clip on', () => {
    table.plate = 'flat';
    const tip = { x: 200, y: 110, z: SPOILBOARD_TOP + 18 + PLATE.thickness };
    expect(table.contact(mill, tip)).toBe(false);
    table.clip = true;
    expect(table.contact(mill, tip)).toBe(true);
    expect(table.contact(mill, { ...tip, z: tip.z + 0.01 })).toBe(false);
  });
  test('at the plate’s side the bit’s own radius decides, for a V-bit the radius at that height', () => {
    table.plate = 'flat';
    table.clip = true;
    const z = SPOILBOARD_TOP + 18 + PLATE.thickness - 6;
    const side = 180;
    expect(table.contact(mill, { x: side - 2.99, y: 110, z })).toBe(true);
    expect(table.contact(mill, { x: side - 3.01, y: 110, z })).toBe(false);
    const r = 6 * Math.tan(Math.PI / 6);
    expect(table.contact(vee, { x: side - r + 0.01, y: 110, z })).toBe(true);
    expect(table.contact(vee, { x: side - r - 0.01, y: 110, z })).toBe(false);
  });
  test('the tool setter needs no clip', () => {
    expect(table.contact(mill, { x: SETTER.x, y: SETTER.y, z: SPOILBOARD_TOP + SETTER.height })).toBe(true);
    expect(table.contact(mill, { x: SETTER.x, y: SETTER.y, z: SPOILBOARD_TOP + SETTER.height + 0.1 })).toBe(false);
    expect(table.contact(mill, { x: SETTER.x - 13, y: SETTER.y, z: SPOILBOARD_TOP })).toBe(false);
  });
  test('stock, plate and board block a bit that may not cut', () => {
    expect(table.blocked(mill, { x: 200, y: 110, z: SPOILBOARD_TOP + 10 })).toBe('stock');
    expect(table.blocked(mill, { x: 200, y: 110, z: SPOILBOARD_TOP + 19 })).toBeUndefined();
    table.plate = 'flat';
    expect(table.blocked(mill, { x: 200, y: 110, z: SPOILBOARD_TOP + 25 })).toBe('plate');
    table.piece = undefined;
    table.plate = 'away';
    expect(table.blocked(mill, { x: 200, y: 110, z: SPOILBOARD_TOP - 1 })).toBe('spoilboard');
  });
  test('a tapped plate closes the circuit only with the clip on', () => {
    table.tapped = true;
    expect(table.touching).toBe(false);
    table.clip = true;
    expect(table.touching).toBe(true);
  });
});

describe('axes', () => {
  const limits = {
    speed: { x: 100, y: 90, z: 40 },
    acceleration: { x: 400, y: 320, z: 250 },
    cornerStep: 400 / 60,
  };
  /** Seconds until all that was added is done, stepped finely. */
  const run = (axes: Axes, step = 0.001) => {
    let time = 0;
    for (; axes.queued > 0 && time < 1000; time += step) axes.advance(step, () => undefined);
    return time;
  };
  // Closed formulas of constant acceleration: t = L/v + v/a where the speed is reached, else 2·√(L/a).
  test.each([
    ['a long move reaches its feed', 200, 3000, 200 / 50 + 50 / 400],
    ['a short one does not', 1, 6000, 2 * Math.sqrt(1 / 400)],
    ['a rapid move is as fast as the axis', 300, 0, 300 / 100 + 100 / 400],
  ])('%s', (_, length, feed, seconds) => {
    const axes = new Axes(limits);
    axes.add({ x: length, y: 0, z: 0 }, feed, 1);
    expect(run(axes)).toBeCloseTo(seconds, 2);
    expect(axes.position).toEqual({ x: length, y: 0, z: 0 });
  });
  test('along a slope the weaker axis decides', () => {
    const axes = new Axes(limits);
    axes.add({ x: 30, y: 0, z: -40 }, 0, 1);
    // Z takes 40 mm/s, so 50 along the slope; and 250 mm/s², so 312.5.
    expect(run(axes)).toBeCloseTo(50 / 50 + 50 / 312.5, 2);
  });
  test('straight on there is no slowing down between two moves, back again there is', () => {
    const straight = new Axes(limits);
    straight.add({ x: 50, y: 0, z: 0 }, 3000, 1);
    straight.add({ x: 100, y: 0, z: 0 }, 3000, 2);
    expect(run(straight)).toBeCloseTo(100 / 50 + 50 / 400, 2);
    const back = new Axes(limits);
    back.add({ x: 50, y: 0, z: 0 }, 3000, 1);
    back.add({ x: 0, y: 0, z: 0 }, 3000, 2);
    expect(run(back)).toBeGreaterThan(100 / 50 + 50 / 400 + 0.08);
  });
  test('the same motion takes the same time however finely it is stepped', () => {
    const times = [0.0005, 0.01, 0.25].map((step) => {
      const axes = new Axes(limits);
      for (let k = 1; k <= 40; k++) axes.add({ x: 5 * k, y: (k % 2) * 3, z: 0 }, 2400, k);
      let left = 0;
      let used = 0;
      while (axes.queued > 0) {
        left = axes.advance(step, () => undefined);
        used += step - left;
      }
      return used;
    });
    expect(times[1]).toBeCloseTo(times[0], 3);
    expect(times[2]).toBeCloseTo(times[0], 3);
  });
  test('a listener that returns a place stops the axes there and forgets the rest', () => {
    const axes = new Axes(limits);
    axes.add({ x: 100, y: 0, z: 0 }, 3000, 1);
    axes.add({ x: 200, y: 0, z: 0 }, 3000, 2);
    axes.advance(10, (_, to) => (to.x > 20 ? { x: 20, y: 0, z: 0 } : undefined));
    expect(axes.position).toEqual({ x: 20, y: 0, z: 0 });
    expect(axes.queued).toBe(0);
  });
  test('a move of no length is no move', () => {
    const axes = new Axes(limits);
    axes.add({ x: 0, y: 0, z: 0 }, 100, 1);
    expect(axes.queued).toBe(0);
  });
});
