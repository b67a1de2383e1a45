import { describe, expect, test } from 'vitest';
import { Interpreter } from './interpreter.ts';

const moves = (machine: Interpreter, line: string) =>
  machine
    .read(line)
    .flatMap((action) => (action.do === 'move' ? [[action.to.x, action.to.y, action.to.z, action.feed]] : []));
const rounded = (rows: number[][]) => rows.map((row) => row.map((v) => Math.round(v * 1e4) / 1e4));

// Meanings by NISTIR 6556, §3.5 (G codes) and §3.6 (M codes).
describe('RS-274 on the stand-in', () => {
  test('absolute and incremental distance, inches and millimetres', () => {
    const m = new Interpreter();
    expect(moves(m, 'G0 X10 Y5')).toEqual([[10, 5, 0, 0]]);
    expect(moves(m, 'G91 G1 X1 F60')).toEqual([[11, 5, 0, 60]]);
    expect(rounded(moves(m, 'G90 G20 X1 F10'))).toEqual([[25.4, 5, 0, 254]]);
  });
  test('G10 L2 and L20 set work coordinates, G53 goes past them', () => {
    const m = new Interpreter();
    m.read('G10 L2 P1 X100 Y50 Z-20');
    expect(moves(m, 'G54 G0 X1 Y1 Z1')).toEqual([[101, 51, -19, 0]]);
    m.read('G10 L20 P1 X0');
    expect(moves(m, 'G0 X1')).toEqual([[102, 51, -19, 0]]);
    expect(moves(m, 'G53 G0 Z0')).toEqual([[102, 51, 0, 0]]);
  });
  test('an arc by its centre and the same by its radius stay on the circle', () => {
    for (const line of ['G2 X10 Y0 I5 J0 F100', 'G2 X10 Y0 R5 F100']) {
      const m = new Interpreter();
      const points = moves(m, line);
      for (const [x, y] of points) expect(Math.hypot(x - 5, y)).toBeCloseTo(5, 6);
      expect(Math.max(...points.map(([, y]) => y))).toBeGreaterThan(4.99);
      expect(rounded(points).at(-1)).toEqual([10, 0, 0, 100]);
    }
  });
  test('an arc is as long as its turn either way, and no turn longer', () => {
    const length = (line: string) => {
      const m = new Interpreter();
      m.read('G0 X10 Y0');
      let [x, y, sum] = [10, 0, 0];
      for (const [px, py] of moves(m, line)) {
        sum += Math.hypot(px - x, py - y);
        [x, y] = [px, py];
      }
      return sum / (10 * Math.PI);
    };
    // A quarter anticlockwise, three quarters clockwise, and whole circles of either kind.
    expect(length('G3 X0 Y10 I-10 J0 F100')).toBeCloseTo(0.5, 3);
    expect(length('G2 X0 Y10 I-10 J0 F100')).toBeCloseTo(1.5, 3);
    expect(length('G2 X0 Y-10 I-10 J0 F100')).toBeCloseTo(0.5, 3);
    expect(length('G3 X0 Y-10 I-10 J0 F100')).toBeCloseTo(1.5, 3);
    expect(length('G2 X10 Y0 I-10 J0 F100')).toBeCloseTo(2, 3);
    expect(length('G3 X10 Y0 I-10 J0 F100')).toBeCloseTo(2, 3);
  });
  test('after M30 modes are as after a start: absolute, millimetres, straight feed', () => {
    const m = new Interpreter();
    m.read('G20 G91 G18 G0 X1');
    m.read('M30');
    expect(m.modes).toMatchObject({ inch: false, incremental: false, motion: 1, feed: 0 });
    expect(rounded(moves(m, 'G0 X5'))).toEqual([[5, 0, 0, 0]]);
    // The plane too: G2 turns in XY again.
    expect(moves(m, 'G2 X15 I5 F100').every(([, , z]) => z === 0)).toBe(true);
  });
  test('G28 goes home by way of the point given', () => {
    const m = new Interpreter();
    m.read('G0 X50 Y50 Z-10');
    expect(moves(m, 'G91 G28 Z5')).toEqual([
      [50, 50, -5, 0],
      [0, 0, 0, 0],
    ]);
  });
  test('M codes and the bit', () => {
    const m = new Interpreter();
    expect(m.read('T3 M6')).toEqual([{ do: 'bit', number: 3 }]);
    expect(m.read('S12000 M3')).toEqual([{ do: 'spindle', turns: 12000, direction: 'clockwise' }]);
    expect(m.read('G4 P2.5')).toEqual([{ do: 'dwell', seconds: 2.5 }]);
    expect(m.read('M30').map((a) => a.do)).toEqual(['spindle', 'end']);
  });
  test.each([
    ['G1 X5', /feed F is needed/],
    ['M3', /no speed S/],
    ['G5 X1', /G5 is not known/],
    ['G0 G1 X1', /Two kinds of motion/],
    ['G1 X1 X2 F5', /stands twice/],
    ['G2 X10 Y0 I4 J0 F100', /not equally far/],
    ['G2 X10 Y0 R2 F100', /too small to reach/],
    ['G38.2 F10', /names no axis/],
    ['G10 L3 P1 X0', /needs L2 or L20/],
    ['G1 X1 F-3', /negative/],
  ])('“%s” is refused with a sentence', (line, sentence) => {
    expect(() => new Interpreter().read(line)).toThrow(sentence);
  });
});
