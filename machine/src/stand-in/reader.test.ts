import { describe, expect, test } from 'vitest';
import { Interpreter } from '@kerbe/core/program/interpreter';
import { type Order, Reader } from './reader.ts';

const read = (...lines: string[]): Order[] => {
  const reader = new Reader();
  return lines.flatMap((line) => reader.read(line));
};
const ends = (orders: Order[]) => orders.flatMap((order) => (order.order === 'go' ? [order.to] : []));

// NISTIR 6556, table 4: two words of one modal group may not share a block; §3.5 and §3.6: what each word needs.
describe('what is not obeyed', () => {
  test.each([
    ['G0 G1 X1', /of one modal group/],
    ['G90 G91', /of one modal group/],
    ['G20 G21', /of one modal group/],
    ['G17 G18', /of one modal group/],
    ['G54 G55', /of one modal group/],
    ['M3 M5', /of one modal group/],
    ['M0 M30', /of one modal group/],
    ['G4 P1 G53 G0 X1', /of one modal group/],
    ['G0 X1 X2', /twice/],
    ['G4 P1 X3', /uses the word X/],
    ['G0 X1 I3', /uses the word I/],
    ['G1 X1 F100 R5', /uses the word R/],
    ['G0 X1 Q2', /uses the word Q/],
    ['G2 X1 Y1 I1 K2 F100', /uses the word K/],
    ['P3', /uses the word P/],
    ['G41 X3', /G41 is not known/],
    ['M7.5', /M7.5 is not known/],
    ['G0 A4', /word A is not known/],
    ['G43 H1', /G43 is not known/],
    ['G1 X4', /feed F is needed/],
    ['G4', /needs a time P/],
    ['G4 P-1', /needs a time P/],
    ['F-3', /feed F is negative/],
    ['S-3', /speed S is negative/],
    ['T1.5', /not a whole number/],
    ['G53 G2 X4 I2 F100', /G53 goes with G0 or G1/],
    ['G10 L3 P1 X0', /needs L2 or L20/],
    ['G10 L2 P9 X0', /needs P1 to P6/],
    ['G0', /names no axis/],
    ['G38.2 X0.1 F50', /at least 0.254/],
    ['G0 X(1', /not closed/],
    ['X1 N4', /line number/],
    ['hello', /cannot be read/],
    ['G81 X1 Z-1 F100', /needs Z and R/],
    ['G83 X1 Z-1 R1 F100', /needs a peck Q/],
    ['G81 X1 Z1 R-1 F100', /below its Z/],
  ])('%s', (line, why) => {
    expect(() => read(line)).toThrow(why);
  });
  test('a refused block changes nothing', () => {
    const reader = new Reader();
    reader.read('G21 G90 G1 X5 F100');
    expect(() => reader.read('G20 G91 G55 X1 R3')).toThrow();
    expect(reader.at).toEqual({ x: 5, y: 0, z: 0 });
    expect(ends(reader.read('X7'))).toEqual([{ x: 7, y: 0, z: 0 }]);
  });
});

describe('the order of a block, NISTIR 6556 table 8', () => {
  test('the feed counts in the units from before the block, lengths in its own', () => {
    const orders = read('G21', 'G1 G20 X1 F100', 'X2', 'G1 X3 F10');
    expect(orders.map((order) => order.order === 'go' && [Number(order.to.x.toFixed(9)), order.feed])).toEqual([
      [25.4, 100],
      [50.8, 100],
      [76.2, 254],
    ]);
  });
  test('spindle, dwell, motion, stop: in this order however they are written', () => {
    expect(read('M0 X5 G1 F100 M3 S9000').map(({ order }) => order)).toEqual(['spindle', 'go', 'wait']);
    expect(read('M6 T3 M3 S100').map(({ order }) => order)).toEqual(['change', 'spindle']);
  });
  test.each(['M0', 'M1', 'M60'])('%s waits', (word) => {
    expect(read(word)).toEqual([{ order: 'wait' }]);
  });
  test('M30 stops the spindle and goes back to G54, G90 and G1; units stay', () => {
    const reader = new Reader();
    reader.systems[1] = { x: 100, y: 0, z: 0 };
    for (const line of ['G20 G91 G55', 'M30']) reader.read(line);
    expect(reader.system).toBe(0);
    expect(ends(reader.read('F10 X1'))).toEqual([{ x: 25.4, y: 0, z: 0 }]);
  });
  test('G10 L2 and L20, G53, G28', () => {
    const reader = new Reader();
    reader.read('G10 L2 P2 X10 Y20');
    expect(ends(reader.read('G55 G0 X1 Y1'))).toEqual([{ x: 11, y: 21, z: 0 }]);
    reader.read('G10 L20 P2 X0');
    expect(ends(reader.read('X5'))).toEqual([{ x: 16, y: 21, z: 0 }]);
    expect(ends(reader.read('G53 G0 X3'))).toEqual([{ x: 3, y: 21, z: 0 }]);
    expect(ends(reader.read('G28'))).toEqual([{ x: 0, y: 0, z: 0 }]);
  });
});

describe('arcs', () => {
  test('every chord lies on the circle, the height goes along evenly, in all three planes', () => {
    for (const [plane, line, along] of [
      ['G17', 'G2 X10 Y10 Z3 I0 J10 F100', (p: { x: number; y: number; z: number }) => Math.hypot(p.x, p.y - 10)],
      ['G18', 'G3 X10 Z10 Y3 I10 K0 F100', (p: { x: number; y: number; z: number }) => Math.hypot(p.x - 10, p.z)],
      ['G19', 'G2 Y10 Z10 X3 J0 K10 F100', (p: { x: number; y: number; z: number }) => Math.hypot(p.y, p.z - 10)],
    ] as const) {
      const places = ends(read('G21 G90', plane, line));
      expect(places.length).toBeGreaterThan(20);
      for (const place of places) expect(along(place)).toBeCloseTo(10, 9);
    }
  });
  // Quarter and three quarters of a circle of radius 10: lengths π/2·r and 3π/2·r.
  test.each([
    ['G2 X10 Y10 R10', Math.PI / 2],
    ['G2 X10 Y10 R-10', (3 * Math.PI) / 2],
    ['G3 X10 Y10 R10', Math.PI / 2],
    ['G3 X10 Y10 R-10', (3 * Math.PI) / 2],
    ['G2 I10 J0', 2 * Math.PI],
  ])('%s is %f of a radius long', (line, turn) => {
    const places = [{ x: 0, y: 0, z: 0 }, ...ends(read('F100', line))];
    let length = 0;
    for (let k = 1; k < places.length; k++)
      length += Math.hypot(places[k].x - places[k - 1].x, places[k].y - places[k - 1].y);
    expect(length / 10).toBeCloseTo(turn, 2);
  });
  test('an arc as large as a country is refused, not followed into the memory', () => {
    expect(() => read('F100', 'G2 X0 Y2000000000 R1000000000')).toThrow(/too large/);
  });
});

describe('two readers', () => {
  // The project's own reader and this one were written apart; they must agree on every plain program.
  test.each([
    ['inches, increments', ['G20 G91', 'G0 X1 Y2', 'G1 Z-.5 F20', 'X1', 'G90 G21', 'G1 X3 F100']],
    [
      'helix and cycles',
      ['G21 G90', 'G0 X10 Y0 Z5', 'G2 X0 Y10 Z-1 I-10 J0 F300', 'G98 G83 X5 Y5 Z-6 R1 Q2 F100', 'X15', 'G80', 'G0 Z9'],
    ],
    ['systems', ['G10 L2 P2 X5', 'G55 G0 X1', 'G54 X1', 'G53 G0 X1']],
  ])('%s', (_, lines) => {
    const own = new Reader();
    const other = new Interpreter();
    for (const line of lines) {
      const mine = own.read(line).flatMap((order) => (order.order === 'go' ? [order] : []));
      const theirs = other.read(line).flatMap((action) => (action.do === 'move' ? [action] : []));
      expect(mine.at(-1)?.to).toEqual(theirs.at(-1)?.to);
      expect(mine.at(-1)?.feed).toBe(theirs.at(-1)?.feed);
      expect(mine.length > 0).toBe(theirs.length > 0);
    }
  });
});
