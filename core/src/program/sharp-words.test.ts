import { describe, expect, test } from 'vitest';
import { drill } from '../ways/drill.ts';
import { type Path, pathAlong } from '../motion/path.ts';
import { DIALECTS } from '../machines/router/dialects.ts';
import { approachOver } from './approach.ts';
import { fitArcs } from './fit-arcs.ts';
import { modeWords } from './follow.ts';
import { Interpreter } from './interpreter.ts';
import { type ProgramCut, type ProgramHeading, writeProgram } from './write.ts';
import { pathForTests } from '../motion/path-for-tests.ts';

const heading: ProgramHeading = { job: 'Plate', revision: '1', date: '2026-11-25', stock: 'oak', zero: 'corner', bench: 'bench', unit: 'mm', lift: 5, approach: 5, park: null }; // prettier-ignore
const stroke: Path = pathForTests([0, 0, 5, 0, 0, -1, 10, 0, -1, 10, 0, 5], [0, 300, 900, 0]);
const cut = (more: Partial<ProgramCut>): ProgramCut => ({ id: 'c', title: 'Cut', bit: { number: 1, name: 'End 3' }, path: stroke, depth: 1, pressed: 0, turns: true, feed: 900, plunge: 300, speed: 18_000, minutes: 1, beside: { before: 0, after: 0 }, ...more }); // prettier-ignore
const ZERO = { x: 0, y: 0, z: 0 };
const linesOf = (cuts: ProgramCut[], dialect = DIALECTS.plain, more: Partial<ProgramHeading> = {}) =>
  writeProgram({ ...heading, ...more }, cuts, ZERO, dialect).text.split('\n');

describe('what is written', () => {
  test('a bit that is put in is started, though it turns as fast as the one before', () => {
    const lines = linesOf([cut({ id: 'a' }), cut({ id: 'b', bit: { number: 2, name: 'End 6' } })]);
    const changes = lines.flatMap((line, k) => (/ M6$/.test(line) ? [k] : []));
    expect(changes).toHaveLength(2);
    for (const k of changes) expect(lines.slice(k, k + 4).some((line) => /^S18000 M3$/.test(line))).toBe(true);
  });
  test('both radii of every arc agree within the 0.002 mm of NISTIR 6556 §3.5.3.2, in inches too', () => {
    const xyz = [50, 50, 5];
    const feed = [0];
    // Circles of all sizes, many so small that rounded inches break them.
    for (let r = 0.05; r < 9; r *= 1.13)
      for (let k = 0; k <= 40; k++) {
        const a = 0.3 + (k * Math.PI) / 20;
        xyz.push(50 + r * Math.cos(a), 50 + r * Math.sin(a), -1);
        feed.push(900);
      }
    const path = pathForTests(xyz, feed);
    for (const unit of ['mm', 'in'] as const) {
      const per = unit === 'in' ? 25.4 : 1;
      let [x, y, arcs] = [0, 0, 0];
      for (const line of linesOf([cut({ path })], { ...DIALECTS.plain, arcs: 'centre' }, { unit })) {
        if (line.startsWith('(')) continue;
        const word = (letter: string) => /[-\d.]+/.exec(new RegExp(`${letter}[-\\d.]+`).exec(line)?.[0] ?? '')?.[0];
        const [tx, ty] = [Number(word('X') ?? x), Number(word('Y') ?? y)];
        if (word('I') !== undefined) {
          const [cx, cy] = [x + Number(word('I')), y + Number(word('J'))];
          expect(Math.abs(Math.hypot(x - cx, y - cy) - Math.hypot(tx - cx, ty - cy)) * per).toBeLessThan(0.002);
          arcs++;
        }
        [x, y] = [tx, ty];
      }
      expect(arcs).toBeGreaterThan(20);
    }
  });
  test('a cycle begins over everything that holds the work, since it goes from hole to hole at that height', () => {
    const settings = { depth: 6, peck: 0, retract: 'full' as const, dwell: 0, plunge: 200, lift: 5 };
    const { path, holes } = drill([{ x: 5, y: 5 }, { x: 60, y: 5 }], settings); // prettier-ignore
    const lines = linesOf(
      [cut({ path, drilling: { ...settings, holes } })],
      { ...DIALECTS.plain, drilling: 'cycles' },
      { approach: 22 },
    );
    expect(lines[lines.findIndex((line) => line.includes('G98')) - 1]).toBe('G0 Z22');
  });
  test('it ends over everything that holds the work, then stops the spindle', () => {
    const lines = linesOf([cut({})], DIALECTS.plain, { approach: 22 });
    expect(lines.slice(lines.lastIndexOf('M5') - 1, lines.lastIndexOf('M5') + 1)).toEqual(['G0 Z22', 'M5']);
    // On its way in it comes from there down to where its path begins.
    expect(lines.slice(lines.indexOf('G0 Z22'), lines.indexOf('G0 Z22') + 3)).toEqual(['G0 Z22', 'G0 X0 Y0', 'G0 Z5']);
  });
  test('modes are stated anew in the coordinate system that holds', () => {
    expect(modeWords({ inch: false, incremental: true, system: 2 } as Parameters<typeof modeWords>[0])).toBe(
      'G17 G21 G91 G94 G56',
    );
  });
  test('a helix that goes down evenly is arcs, wherever its points lie', () => {
    const xyz: number[] = [];
    for (let k = 0, at = 0; k <= 80; at += k % 3 === 0 ? 0.03 : 0.015, k++)
      xyz.push(10 * Math.cos(at), 10 * Math.sin(at), -1 - 0.3 * at);
    const moves = fitArcs(pathAlong(Float64Array.from(xyz), 900));
    expect(moves.filter(({ arc }) => arc).length).toBeGreaterThan(0);
    expect(moves.length).toBeLessThan(6);
  });
  test('a helix that does not go down evenly is no arc', () => {
    const n = 60;
    const xyz: number[] = [];
    for (let k = 0; k <= n; k++)
      xyz.push(10 * Math.cos((k * Math.PI) / n), 10 * Math.sin((k * Math.PI) / n), -1 - 0.6 * (k / n) ** 2);
    const path = pathAlong(Float64Array.from(xyz), 900);
    let from = 0;
    for (const { point, arc } of fitArcs(path)) {
      if (arc)
        for (let k = from; k <= point; k++) {
          const even = xyz[3 * from + 2] + ((xyz[3 * point + 2] - xyz[3 * from + 2]) * (k - from)) / (point - from);
          expect(Math.abs(xyz[3 * k + 2] - even)).toBeLessThan(0.0041);
        }
      from = point;
    }
  });
});

// Meanings by NISTIR 6556, §3.5 and §3.6.
describe('heights', () => {
  const lowest = (slope?: number) => {
    const path = pathForTests([0, 0, 5, 0, 0, -1.2346, 9, 0, -1.2346, 9, 0, 5], [0, 300, 900, 0]);
    return Math.min(...linesOf([cut({ path, slope })]).flatMap((line) => Number(/Z(-[\d.]+)/.exec(line)?.[1] ?? 0)));
  };
  test('of an end mill are rounded to the nearest, of a bit that widens upwards up', () => {
    expect(lowest()).toBe(-1.235);
    expect(lowest(1)).toBe(-1.234);
  });
  test('one tool that stays at one height comes from nowhere higher', () => {
    const hold = { stock: { lift: 5, keepOuts: [] }, bench: { pins: 'none' as const } };
    expect(approachOver(hold, [{ flat: true }])).toBe(0);
    expect(approachOver(hold, [{ flat: true }, {}])).toBe(5);
    expect(approachOver(hold, [])).toBe(5);
  });
});

describe('what is read', () => {
  const at = (...lines: string[]) => {
    const machine = new Interpreter();
    const moves = lines.flatMap((line) => machine.read(line)).flatMap((a) => (a.do === 'move' ? [a.to] : []));
    return { machine, moves, last: machine.position };
  };
  test('M30 goes back to G54', () => {
    expect(at('G55', 'M30').machine.modes.system).toBe(0);
  });
  test('G53 is refused with an arc', () => {
    expect(() => at('G0 X1 Y0', 'F100', 'G53 G2 X3 Y0 I1')).toThrow(/G53 goes with G0 or G1/);
  });
  test('G98 goes back to where the cycle began, G99 to R', () => {
    expect(at('G0 Z20', 'G98 G81 X1 Y1 Z-5 R2 F100').last.z).toBe(20);
    expect(at('G0 Z20', 'G99 G81 X1 Y1 Z-5 R2 F100').last.z).toBe(2);
  });
  test('a speed below 0 is refused, and only G82 dwells', () => {
    expect(() => at('S-100')).toThrow(/negative/);
    const dwells = (cycle: string) =>
      new Interpreter().read(`${cycle} X1 Y1 Z-5 R2 P0.5 F100`).filter((action) => action.do === 'dwell').length;
    expect([dwells('G81'), dwells('G82')]).toEqual([0, 1]);
  });
  test('G10 L20 makes the present position read as given', () => {
    const { machine } = at('G0 X30 Y-4', 'G10 L20 P1 X12 Y1.5');
    expect(machine.offsets[0]).toMatchObject({ x: 18, y: -5.5 });
  });
  test('a negative R is the longer of the two arcs', () => {
    const furthest = (r: string) =>
      at('G0 X0 Y0', `G2 X10 Y0 ${r} F100`).moves.reduce((most, { y }) => Math.max(most, Math.abs(y)), 0);
    // Centre 3.317 mm beside the chord: 6 − 3.317 and 6 + 3.317 high.
    expect(furthest('R6')).toBeCloseTo(6 - Math.sqrt(11), 2);
    expect(furthest('R-6')).toBeCloseTo(6 + Math.sqrt(11), 2);
  });
});
