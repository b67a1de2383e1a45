/* eslint max-lines: off -- one set of cases about one thing */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { drill, pecksOf } from '../ways/drill.ts';
import { measurePath, type Path } from '../motion/path.ts';
import { planMotion } from '../motion/plan.ts';
import { DIALECTS } from '../machines/router/dialects.ts';
import type { Dialect } from './dialect.ts';
import { programExtents } from './extents.ts';
import { ARC_FIT_TOLERANCE, fitArcs } from './fit-arcs.ts';
import { readProgram } from './read.ts';
import { minutesUntil, timelineOf } from './timeline.ts';
import { type ProgramCut, type ProgramHeading, writeProgram } from './write.ts';
import { pathForTests } from '../motion/path-for-tests.ts';

const heading: ProgramHeading = {
  job: 'Dome plate',
  revision: '3',
  date: '2026-11-24',
  stock: 'maple',
  zero: 'lower left corner, top of the stock',
  bench: 'Dome workshop router',
  unit: 'mm',
  lift: 5,
  approach: 5,
  park: { x: 700, y: 500 },
};
const limits = {
  speed: { x: 6000, y: 5400, z: 2400 },
  acceleration: { x: 400, y: 320, z: 250 },
  cornerStep: 400,
};
const cutOf = (path: Path, more: Partial<ProgramCut> = {}): ProgramCut => ({
  id: 'cut',
  title: 'Cut',
  bit: { number: 1, name: 'End mill 3' },
  path,
  depth: 2,
  pressed: 0,
  turns: true,
  feed: 1000,
  plunge: 300,
  speed: 18_000,
  minutes: 1,
  beside: { before: 0.05, after: 0.02 },
  ...more,
});
/** A round at depth: in from above, round a circle of chords, and out. */
function round(r: number, n: number, drop = 0): Path {
  const xyz: number[] = [50 + r, 50, 5, 50 + r, 50, -1];
  const feed: number[] = [0, 300];
  for (let k = 1; k <= n; k++) {
    const a = (2 * Math.PI * k) / n;
    xyz.push(50 + r * Math.cos(a), 50 + r * Math.sin(a), -1 - (drop * k) / n);
    feed.push(1000);
  }
  xyz.push(50 + r, 50, 5);
  feed.push(0);
  return pathForTests(xyz, feed);
}
/** Largest distance of one path's points from another's lines, both ways. */
function apart(a: Path, b: Path): number {
  const from = (p: Path, q: Path) => {
    let most = 0;
    for (let i = 0; i < p.feed.length; i++) {
      let nearest = Infinity;
      for (let k = 1; k < q.feed.length; k++) {
        const d = [0, 1, 2].map((c) => q.xyz[3 * k + c] - q.xyz[3 * k - 3 + c]);
        const e = [0, 1, 2].map((c) => p.xyz[3 * i + c] - q.xyz[3 * k - 3 + c]);
        const l2 = d[0] ** 2 + d[1] ** 2 + d[2] ** 2;
        const t = l2 > 0 ? Math.min(1, Math.max(0, (e[0] * d[0] + e[1] * d[1] + e[2] * d[2]) / l2)) : 0;
        nearest = Math.min(nearest, Math.hypot(e[0] - t * d[0], e[1] - t * d[1], e[2] - t * d[2]));
      }
      most = Math.max(most, nearest);
    }
    return most;
  };
  return Math.max(from(a, b), from(b, a));
}

const ZERO = { x: 0, y: 0, z: 0 };
/** The cut itself, without the way there from the machine's start and back to its zero. */
function ownMoves({ path }: { path: Path }, original: Path): Path {
  const low = (p: Path) => Array.from(p.feed, (_, i) => i).filter((i) => p.xyz[3 * i + 2] < 0);
  const indices = low(path);
  expect(indices.length).toBeGreaterThan(0);
  expect(low(original).length).toBeGreaterThan(0);
  const [first, last] = [indices[0] - 1, indices.at(-1)! + 1];
  return pathForTests(path.xyz.slice(3 * first, 3 * last + 3), path.feed.slice(first, last + 1));
}

test.each([
  ['V60', 30, 0.00231, 0.004],
  ['V90', 45, 0.003, 0.004],
  ['V20', 10, 0.002, 0.012],
])('arcs of a %s leave its depth as it was', (_, half, most, deep) => {
  const slope = Math.tan((half * Math.PI) / 180);
  // A spiral, which no arc fits for long.
  const n = 2000;
  const xyz = Float64Array.from({ length: 3 * n }, (_, i) => {
    const [k, axis] = [Math.floor(i / 3), i % 3];
    return axis === 2 ? -1 : (3 + k / 400) * (axis === 0 ? Math.cos(k / 40) : Math.sin(k / 40));
  });
  const off = (limits: object) => {
    let furthest = 0;
    let from = 0;
    for (const { point, arc } of fitArcs(pathForTests(xyz, new Float64Array(n).fill(1000)), limits)) {
      const r = arc && Math.hypot(xyz[3 * point] - arc.x, xyz[3 * point + 1] - arc.y);
      for (let k = from; arc && k <= point; k++)
        furthest = Math.max(furthest, Math.abs(Math.hypot(xyz[3 * k] - arc.x, xyz[3 * k + 1] - arc.y) - r!));
      from = point;
    }
    return furthest;
  };
  expect(off({})).toBeGreaterThan(0.0025);
  expect(off({ slope })).toBeLessThanOrEqual(most);
  expect(off({ slope }) / slope).toBeLessThanOrEqual(deep);
});

describe('what is written is read back', () => {
  const dialects = Object.entries(DIALECTS) as [string, Dialect][];
  test.each(dialects)('%s: a circle and a helix', (_, dialect) => {
    for (const path of [round(20, 400), round(4, 90, 3)]) {
      const { text } = writeProgram(heading, [cutOf(path)], ZERO, dialect);
      const read = readProgram(text);
      expect(read.notes).toEqual([]);
      // Three decimals lose half a micrometre an axis; arcs may lie 4 µm off what they stand for.
      expect(apart(ownMoves(read, path), path)).toBeLessThan(ARC_FIT_TOLERANCE + 0.003);
      expect(measurePath(read.path).lowest).toBeCloseTo(measurePath(path).lowest, 3);
    }
  });
  test.each(dialects)('%s: random straight moves, in inches as in millimetres', (_, dialect) => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.double({ min: 0, max: 300, noNaN: true }),
            fc.double({ min: 0, max: 300, noNaN: true }),
            fc.double({ min: -9, max: -0.01, noNaN: true }),
          ),
          { minLength: 2, maxLength: 20 },
        ),
        fc.constantFrom('mm' as const, 'in' as const),
        (points, unit) => {
          const path: Path = pathForTests(
            [points[0][0], points[0][1], 5, ...points.flat()],
            [0, ...points.map(() => 600)],
          );
          const { text } = writeProgram({ ...heading, unit }, [cutOf(path)], ZERO, dialect);
          const read = readProgram(text).path;
          for (const [x, y, z] of points) {
            let nearest = Infinity;
            for (let i = 0; i < read.feed.length; i++)
              nearest = Math.min(
                nearest,
                Math.hypot(read.xyz[3 * i] - x, read.xyz[3 * i + 1] - y, read.xyz[3 * i + 2] - z),
              );
            expect(nearest).toBeLessThan(0.0062);
          }
        },
      ),
      { numRuns: 25, seed: 6 },
    );
  });
  test('program zero is taken off', () => {
    const { text } = writeProgram(heading, [cutOf(round(10, 60))], { x: 50, y: 40, z: -12 }, DIALECTS.plain);
    const { min, max } = programExtents(text);
    expect(min.x).toBeCloseTo(-10, 2);
    expect(max.y).toBeCloseTo(20, 2);
    expect(min.z).toBeCloseTo(12 - 1, 6);
  });
});

describe('dialects', () => {
  const two = [
    cutOf(round(20, 400)),
    cutOf(round(10, 200), { id: 'b', bit: { number: 2, name: 'V 60°' }, speed: 9000 }),
  ];
  test('arcs by their centre, by their radius, or not at all', () => {
    const write = (arcs: Dialect['arcs']) =>
      writeProgram(heading, [cutOf(round(20, 400))], ZERO, { ...DIALECTS.plain, arcs }).text;
    expect(write('centre')).toMatch(/G3 X.* Y.* I.* J.* F1000/);
    expect(write('radius')).toMatch(/G3 X.* Y.* R20\b/);
    expect(write('none')).not.toMatch(/G[23] /);
    expect(write('none').split('\n').length).toBeGreaterThan(10 * write('centre').split('\n').length);
  });
  test('clockwise arcs are G2', () => {
    const path = round(20, 400);
    const xyz = path.xyz.slice();
    for (let i = 1; i < xyz.length; i += 3) xyz[i] = 100 - xyz[i];
    const { text } = writeProgram(heading, [cutOf({ ...path, xyz })], ZERO, DIALECTS.plain);
    expect(text).toMatch(/G2 /);
    expect(text).not.toMatch(/G3 /);
  });
  test('lines are numbered in steps, comments are not', () => {
    const { text } = writeProgram(heading, two, ZERO, DIALECTS.numbered);
    const lines = text.trim().split('\n');
    const numbered = lines.filter((line) => /^N\d+ /.test(line));
    expect(lines.filter((line) => !/^N\d+ /.test(line)).every((line) => line.startsWith('('))).toBe(true);
    const numbers = numbered.map((line) => Number(/^N(\d+)/.exec(line)![1]));
    expect(numbers.every((n, i) => n % 10 === 0 && (i === 0 || n > numbers[i - 1]))).toBe(true);
  });
  test('comments behind a semicolon where brackets are not wanted', () => {
    const { text } = writeProgram(heading, two, ZERO, DIALECTS['lines-only']);
    expect(text).toMatch(/^; Dome plate/);
    expect(text).not.toContain('(');
  });
  test('an operator’s spindle is asked for at every speed', () => {
    const { text } = writeProgram(heading, two, ZERO, DIALECTS['operator-spindle']);
    expect(text.match(/^M0$/gm)).toHaveLength(2);
    expect(text).not.toMatch(/M3\b/);
    expect(text).toContain('start the spindle at 9000 rpm');
  });
  test('the spindle stops before a bit change, the bit is called by its number', () => {
    const lines = writeProgram(heading, two, ZERO, DIALECTS.plain).text.split('\n');
    const change = lines.indexOf('T2 M6');
    expect(lines.slice(0, change)).toContain('M5');
    expect(lines.slice(change)).toContain('S9000 M3');
  });
  test('at the end it lifts first, and parks as the dialect says', () => {
    const ends = (dialect: Dialect, with_ = heading) =>
      writeProgram(with_, two, ZERO, dialect).text.trim().split('\n').slice(-5);
    expect(ends(DIALECTS.plain)).toEqual(['G0 Z5', 'M5', 'G53 G0 Z0', 'G53 G0 X700 Y500', 'M30']);
    // In the program's own units, and where the bench has no such place, over zero.
    expect(ends(DIALECTS.plain, { ...heading, unit: 'in' })[3]).toBe('G53 G0 X27.5591 Y19.685');
    const over = ['G0 Z5', 'M5', 'G53 G0 Z0', 'G0 X0 Y0', 'M30'];
    expect(ends(DIALECTS.plain, { ...heading, park: null })).toEqual(over);
    expect(ends({ ...DIALECTS.plain, park: 'zero' })).toEqual(over);
    expect(ends({ ...DIALECTS.plain, park: 'stay' }).slice(-3)).toEqual(['G0 Z5', 'M5', 'M30']);
  });
  test.each(['mm', 'in'] as const)('after every bit change it states its modes anew, in %s', (unit) => {
    const lines = writeProgram({ ...heading, unit }, two, ZERO, DIALECTS.plain).text.split('\n');
    for (const change of ['T1 M6', 'T2 M6'])
      expect(lines[lines.indexOf(change) + 1]).toBe(`G17 ${unit === 'in' ? 'G20' : 'G21'} G90 G94 G54`);
  });
  test('the heading says what someone needs two months later', () => {
    const { text } = writeProgram(
      heading,
      [cutOf(round(20, 40), { details: 'rings at 1.2 mm' })],
      ZERO,
      DIALECTS.plain,
    );
    for (const words of [
      'Dome plate',
      'revision 3',
      '2026-11-24',
      'maple',
      'lower left corner',
      'End mill 3',
      '18000 rpm',
      'rings at 1.2 mm',
    ])
      expect(text.slice(0, text.indexOf('G17'))).toContain(words);
  });
});

describe('drilling', () => {
  const holes = [
    { x: 10, y: 10 },
    { x: 40, y: 10 },
    { x: 40, y: 30 },
  ];
  const order = { depth: 8, peck: 3, retract: 'full' as const, dwell: 0, plunge: 200, lift: 5 };
  test('pecks end at the depth, never past it', () => {
    expect(pecksOf(10, 4)).toEqual([4, 8, 10]);
    expect(pecksOf(8, 4)).toEqual([4, 8]);
    expect(pecksOf(8, 0)).toEqual([8]);
    expect(pecksOf(3, 5)).toEqual([3]);
  });
  test('every hole reaches its depth, straight down and straight up', () => {
    const { path, holes: drilled } = drill(holes, order);
    expect(drilled).toHaveLength(3);
    for (let i = 1; i < path.feed.length; i++) {
      const across = Math.hypot(path.xyz[3 * i] - path.xyz[3 * i - 3], path.xyz[3 * i + 1] - path.xyz[3 * i - 2]);
      if (across > 0) expect([path.feed[i], path.xyz[3 * i + 2]]).toEqual([0, 5]);
      else if (path.feed[i] > 0) expect(path.feed[i]).toBe(200);
    }
    for (const { x, y } of holes) {
      const depths = Array.from(path.feed, (_, i) => i)
        .filter((i) => path.xyz[3 * i] === x && path.xyz[3 * i + 1] === y)
        .map((i) => path.xyz[3 * i + 2]);
      expect(Math.min(...depths)).toBe(-8);
    }
  });
  test('a full retract comes out of the hole after each peck, a short one stays in it', () => {
    const highest = (retract: 'full' | 'short') => {
      const { path } = drill([holes[0]], { ...order, retract });
      const heights = Array.from(path.feed, (_, i) => path.xyz[3 * i + 2]);
      const between = heights.slice(heights.indexOf(-3) + 1, heights.lastIndexOf(-8));
      return Math.max(...between);
    };
    expect(highest('full')).toBeGreaterThan(0);
    expect(highest('short')).toBe(-2.5);
  });
  test.each([{ retract: 'short' as const }, { dwell: 0.7 }])(
    'what no cycle says is written as moves: pecks with %j',
    (said) => {
      const settings = { ...order, ...said };
      const { path, holes: drilled, dwells } = drill(holes, settings);
      const cut = cutOf(path, {
        drilling: { ...settings, holes: drilled },
        dwells: dwells.length ? { points: dwells, seconds: settings.dwell } : undefined,
      });
      const { text } = writeProgram(heading, [cut], ZERO, DIALECTS.numbered);
      expect(text).not.toMatch(/G8[123]/);
      expect([...text.matchAll(/G4 P0\.7/g)]).toHaveLength('dwell' in said ? 3 : 0);
      const { path: read } = readProgram(text);
      const heights = Array.from(read.feed, (_, i) => read.xyz[3 * i + 2]);
      // From the first bottom a short retract backs up by half a millimetre, a full one comes out.
      const next = heights[heights.lastIndexOf(-3, heights.indexOf(-6)) + 1];
      expect(next).toBe('retract' in said ? -2.5 : 0.5);
    },
  );
  test('a cycle and plain moves drill the same holes to the same depth', () => {
    const { path, holes: drilled } = drill(holes, order);
    const cut = cutOf(path, { drilling: { ...order, holes: drilled } });
    const bottoms = (dialect: Dialect) => {
      const { xyz } = readProgram(writeProgram(heading, [cut], ZERO, dialect).text).path;
      const out = new Set<string>();
      for (let i = 0; i < xyz.length; i += 3) if (Math.abs(xyz[i + 2] + 8) < 1e-9) out.add(`${xyz[i]} ${xyz[i + 1]}`);
      return [...out].sort();
    };
    const moves = bottoms(DIALECTS.plain);
    expect(moves).toEqual(['10 10', '40 10', '40 30']);
    expect(bottoms(DIALECTS.numbered)).toEqual(moves);
    expect(writeProgram(heading, [cut], ZERO, DIALECTS.numbered).text).toMatch(/G98 G83 Q3 X10 Y10 Z-8 R0\.5 F300/);
  });
  test.each([
    [{ ...order, peck: 0 }, /G98 G81 X/],
    [{ ...order, peck: 0, dwell: 0.5 }, /G98 G82 P0\.5 X/],
  ])('without pecks the cycle is another', (settings, cycle) => {
    const { path, holes: drilled } = drill(holes, settings);
    const { text } = writeProgram(
      heading,
      [cutOf(path, { drilling: { ...settings, holes: drilled } })],
      ZERO,
      DIALECTS.numbered,
    );
    expect(text).toMatch(cycle);
  });
  test('a dwell is written where the drill is at the bottom', () => {
    const { path, dwells } = drill([holes[0]], { ...order, peck: 0, dwell: 0.7 });
    const lines = writeProgram(heading, [cutOf(path, { dwells: { points: dwells, seconds: 0.7 } })], ZERO, {
      ...DIALECTS.plain,
      arcs: 'none',
    }).text.split('\n');
    const at = lines.indexOf('G4 P0.7');
    expect(lines[at - 1]).toMatch(/Z-8/);
    expect(readProgram(lines.join('\n')).dwell).toBeCloseTo(0.7 + 3, 9);
  });
  test.each([
    [{ ...order, depth: 0 }, /depth is 0/],
    [{ ...order, peck: -1 }, /peck is below 0/],
    [{ ...order, depth: 30, peck: 0.001 }, /far too small/],
  ])('%j gets a sentence', (settings, sentence) => {
    expect(() => drill(holes, settings)).toThrow(sentence);
  });
});

describe('arcs', () => {
  test('a circle of chords becomes three arcs, a square none', () => {
    const arcs = fitArcs(round(20, 400)).filter(({ arc }) => arc);
    expect(arcs).toHaveLength(3);
    for (const { arc } of arcs) expect(Math.hypot(arc!.x - 50, arc!.y - 50)).toBeLessThan(0.005);
    const square: Path = pathForTests([0, 0, 0, 9, 0, 0, 9, 9, 0, 0, 9, 0, 0, 0, 0], [0, 500, 500, 500, 500]);
    expect(fitArcs(square).every(({ arc }) => !arc)).toBe(true);
  });
  test('too coarse a circle stays a polygon: its chords lie further off than an arc may', () => {
    expect(fitArcs(round(20, 24)).every(({ arc }) => !arc)).toBe(true);
  });
  test('rapid moves and a change of feed are never taken into an arc', () => {
    const path = round(20, 400);
    path.feed[200] = 900;
    const moves = fitArcs(path);
    expect(moves.some(({ point }) => point === 199)).toBe(true);
    expect(moves.some(({ point }) => point === 200)).toBe(true);
    path.rapid.fill(1);
    expect(fitArcs(path).every(({ arc }) => !arc)).toBe(true);
  });
  test('every point is passed, in order, to the last', () => {
    const moves = fitArcs(round(20, 400));
    let before = 0;
    for (const { point } of moves) {
      expect(point).toBeGreaterThan(before);
      before = point;
    }
    expect(before).toBe(round(20, 400).feed.length - 1);
  });
});

describe('reading foreign programs', () => {
  test('what cannot be followed is noted once a kind, and passed over', () => {
    const { path, notes, bits } = readProgram(
      [
        '%',
        'O1000',
        'G21 G90',
        'G53 G0 Z0',
        'T3 M6',
        'G43 H3 M8',
        'G0 X10 Y0 Z5',
        'G41 D1',
        'G1 Z-2 F100',
        'G41 D2',
        'G28',
        'M30',
        'G1 X99',
      ].join('\r\n'),
    );
    expect(Array.from(path.xyz.slice(-3))).toEqual([10, 0, -2]);
    expect(bits).toEqual([{ number: 3, point: 0 }]);
    expect(notes.filter((note) => note.includes('machine coordinates'))).toHaveLength(1);
    expect(notes.filter((note) => note.includes('Line 9: From here on the controller leads'))).toHaveLength(1);
    expect(notes.every((note) => /^Line \d+: .*[.!]$/.test(note))).toBe(true);
  });
  // Modes and positions of NISTIR 6556: what cannot be followed costs its own move and no mode.
  test.each([
    ['inches behind a word that is not known', 'G90 G94 G99.9 G20\nG0 X1 Y0 Z0.2', [25.4, 0, 5.08], /G99.9/],
    ['the rest of a block with a fourth axis', 'G21\nG0 X1 Y2 Z5 A90', [1, 2, 5], /word A/],
    [
      'modes of a block in machine coordinates',
      'G21\nG0 X0 Y0 Z0\nG20 G53 G0 Z0\nG0 X1 Y1 Z1',
      [25.4, 25.4, 25.4],
      /machine/,
    ],
    ['modes of a block that cannot be read as a whole', 'G20 X~5\nG0 X1 Y1 Z1', [25.4, 25.4, 25.4], /cannot be read/],
    ['the bit that is called on the way up', 'G21\nG53 G0 Z0 T4 M6\nG0 X1 Y1 Z1', [1, 1, 1], /machine/],
    ['a long comment', `G21 (${'x'.repeat(300)})\nG0 X1 Y1 Z1`, [1, 1, 1], undefined],
    ['an arc upright, from above', 'G21\nG0 X0 Y0 Z0\nG18 G3 X10 Z0 I5 K0 F600', [10, 0, 0], undefined],
  ])('%s', (_, text, end, note) => {
    const { path, notes } = readProgram(text);
    [...path.xyz.slice(-3)].forEach((v, k) => expect(v).toBeCloseTo(end[k], 9));
    if (note) expect(notes.join(' ')).toMatch(note);
    else expect(notes).toEqual([]);
  });
  test('a bit that is called in a block in machine coordinates is called', () => {
    expect(readProgram('G21\nT4 M6 G53 G0 Z0\nG0 X1 Y1 Z1').bits).toEqual([{ number: 4, point: 0 }]);
  });
  test('after a move that could not be followed its axes are not known until they are given again', () => {
    const { path, notes } = readProgram('G21\nG0 X0 Y0 Z5\nG1 Z-3 F100\nX20\nG53 G0 Z0\nX50 Y50\nG0 Z5\nG1 X60\nM30');
    const { cut } = measurePath(path);
    // 8 down, 20 along; then 10 along: the way over in between is nobody’s cut.
    expect(cut).toBeCloseTo(38, 9);
    expect([...path.xyz.slice(-3)]).toEqual([60, 50, 5]);
    expect(notes.join(' ')).toMatch(/Line 6: Moves from a place that is not known/);
    const wrong = readProgram('G21\nG0 X0 Y0 Z0\nG2 X10 Y0 I3 J9 F100\nG1 X20 F100\nM30');
    expect(wrong.notes.join(' ')).toMatch(/not equally far.*Line 4: Moves from a place/);
  });
  test('moves in machine coordinates are told where others follow them, not on the way to the parking place', () => {
    expect(readProgram('G21\nG0 X0 Y0 Z5\nG53 G0 Z0\nG53 G0 X10 Y10\nM30').notes).toEqual([]);
    expect(readProgram('G21\nG0 X0 Y0 Z5\nG53 G0 Z0\nG0 Z5\nM30').notes).toEqual([
      'Line 3: Moves in machine coordinates (G53, G28, G30) are left out; where they lead is not known here.',
    ]);
  });
  test('lines tell which line made each point', () => {
    const { path, lines } = readProgram('G21\nG0 X0 Y0 Z5\nG1 Z-1 F100\n(rest)\nG1 X10');
    expect(lines).toHaveLength(path.feed.length);
    expect(lines.at(-1)).toBe(4);
  });
  test.each([
    ['', /holds no moves/],
    ['hello world', /No move could be read/],
    ['(only words)\n%\n', /holds no moves/],
  ])('%j is no program', (text, sentence) => {
    expect(() => readProgram(text)).toThrow(sentence);
  });
  test('inches and incremental distances', () => {
    const { path } = readProgram('G20 G90\nG0 X1 Y1 Z0.2\nG91\nG1 X1 F10\nG90 G21\nG1 X30 F100');
    expect(path.xyz.at(-3)).toBe(30);
    expect(path.xyz.at(-6)).toBeCloseTo(50.8, 9);
    expect(path.feed.at(-2)).toBeCloseTo(254, 9);
  });
});

describe('the timeline of a program', () => {
  test('it grows from nothing to the planned time, whatever the dialect', () => {
    const path = round(20, 400);
    const { minutes } = planMotion(path, limits);
    for (const dialect of [DIALECTS.plain, DIALECTS['lines-only']]) {
      const program = writeProgram(heading, [cutOf(path)], ZERO, dialect);
      expect(program.minutes).toBeCloseTo(1 + 0.05 + 0.02, 9);
      const made = { cuts: [{ id: 'cut', path }], beside: [{ before: 0.05, after: 0.02 }] };
      const timeline = timelineOf(program, made, limits);
      expect(timeline.minutes[0]).toBe(0);
      for (const { minutes: times } of [timeline, ...timeline.others])
        expect(Array.from(times).every((t, i) => i === 0 || t >= times[i - 1])).toBe(true);
      expect(timeline.minutes.at(-1)).toBeCloseTo(0.05 + minutes, 9);
      // What an override makes of it is planned anew, and between two that are planned it lies between them.
      const all = timeline.minutes.length;
      for (const percent of [10, 25, 40, 50, 75, 90, 100, 120, 150, 180, 200]) {
        const feed = path.feed.map((asked) => (asked * percent) / 100);
        const planned = 0.05 + planMotion({ ...path, feed }, limits).minutes;
        expect(Math.abs(minutesUntil(timeline, all, percent) / planned - 1), String(percent)).toBeLessThan(0.01);
      }
      expect(minutesUntil(timeline, 0, 150)).toBe(0);
      expect(minutesUntil(timeline, Infinity, 100)).toBe(timeline.minutes.at(-1));
    }
  });
});
