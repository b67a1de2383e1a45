import { describe, expect, test } from 'vitest';
import { measurePath } from '../motion/path.ts';
import { readProgram } from './read.ts';

const HEAD = 'G21 G90\nG0 Z5\nG0 X0 Y0\n';
const points = (text: string) => {
  const { xyz } = readProgram(text).path;
  return Array.from({ length: xyz.length / 3 }, (_, k) =>
    [...xyz.slice(3 * k, 3 * k + 3)].map((v) => Math.round(v * 1e4) / 1e4 + 0),
  );
};
const last = (text: string) => points(text).at(-1);
const notes = (text: string) => readProgram(text).notes.join(' ');

describe('zeros that only the machine knows', () => {
  test.each([
    ['an offset set in the midst', 'G10 L2 P1 X10 Y10 Z-5\nG1 Z-3 F100\nX20\nG0 Z5\nM30', [0, 0, 5]],
    ['the offset of another system', 'G1 Z-1 F100\nX10\nG55\nX20\nZ-2\nG0 Z5\nM30', [10, 0, -1]],
    ['G92 at a place that is not known', 'G1 Z-1 F100\nG28\nG92 X0 Y0 Z0\nG1 X5 Y5 Z-9', [0, 0, -1]],
  ])('%s: what follows is left out and told', (_, text, end) => {
    const { notes, whole } = readProgram(HEAD + text);
    expect(last(HEAD + text)).toEqual(end);
    expect(notes.join()).toMatch(/a zero that only the machine knows|machine coordinates/);
    expect(whole).toBe(false);
  });
  test.each([
    ['the first system is the job’s zero, whichever it is', 'G21 G90 G55\nG0 Z5\nG0 X1 Y2', [1, 2, 5]],
    ['back in the first system', `${HEAD}G55\nG0 X9 Y9 Z9\nG54\nG0 X3 Y4 Z5`, [3, 4, 5]],
    [
      'both set from machine zero',
      `G21 G90\nG10 L2 P1 X10 Y0 Z0\nG10 L2 P2 X60 Y5 Z0\n${HEAD}G55\nG0 X1 Y1 Z5`,
      [51, 6, 5],
    ],
    ['set from where the tool is', `${HEAD}G0 X20 Y0\nG10 L20 P2 X0 Y0 Z5\nG55\nG0 X2 Y3 Z5`, [22, 3, 5]],
    ['said at the start where the tool is', 'G21 G90\nG92 X0 Y0 Z10\nG0 Z5\nG0 X1 Y2', [1, 2, 5]],
    ['said in the midst where the tool is', `${HEAD}G0 X20\nG92 X0\nG0 X5\nG92.1\nG0 X7`, [7, 0, 5]],
  ])('%s', (_, text, end) => {
    expect(last(text)).toEqual(end);
  });
});

describe('two words of one group in a block', () => {
  test.each(['G90 G91', 'G20 G21', 'G17 G18', 'G54 G55', 'G93 G94'])('%s: nothing behind it is read', (pair) => {
    const { notes, whole } = readProgram(`${HEAD}${pair}\nG1 X10 F100`);
    expect(notes.join()).toMatch(/^Line 4: G\d+ and G\d+ stand in one block; .*; it is not read further\.$/);
    expect(whole).toBe(false);
    expect(last(`${HEAD}${pair}\nG1 X10 F100`)).toEqual([0, 0, 5]);
  });
  test('the safe line of many programs, G0 beside G80, is none', () => {
    expect(last('G0 G17 G21 G40 G49 G80 G90 G94\nG0 X1 Y2 Z3')).toEqual([1, 2, 3]);
  });
});

describe('arcs', () => {
  test('three turns of a helix are three times as long and go down evenly', () => {
    const { path } = readProgram(`${HEAD}G1 Z-1 F100\nG2 X0 Y0 Z-4 I5 J0 P3 F600`);
    const turn = Math.hypot(2 * Math.PI * 5, 1);
    expect(measurePath(path).cut - 6).toBeCloseTo(3 * turn, 1);
    expect([...path.xyz.slice(-3)]).toEqual([0, 0, -4]);
  });
  test('centres from zero (G90.1), and from the start again', () => {
    const text = `${HEAD}G1 Z-1 F100\nG90.1\nG2 X10 Y0 I5 J0\nG2 X20 Y0 I15 J0\nG91.1\nG2 X30 Y0 I5 J0\nM30`;
    expect(notes(text)).toBe('');
    expect(last(text)).toEqual([30, 0, -1]);
    expect(measurePath(readProgram(text).path).cut - 6).toBeCloseTo(15 * Math.PI, 1);
  });
});

describe('feeds', () => {
  const minutes = (text: string) => {
    const { path } = readProgram(text);
    const of = path.feed.at(-1)!;
    const [x, y, z] = [0, 1, 2].map((k) => path.xyz.at(k - 3)! - path.xyz.at(k - 6)!);
    return Math.hypot(x, y, z) / of;
  };
  test('a turn (G95): 0.1 mm at 1000 turns a minute is 100 mm a minute', () => {
    expect(readProgram(`${HEAD}G95\nS1000 M3\nG1 Z-1 F0.1\nX100`).path.feed.at(-1)).toBe(100);
  });
  test('a turn without a speed is not known', () => {
    expect(notes(`${HEAD}G95\nG1 Z-1 F0.1`)).toMatch(/no speed S was given/);
  });
  test('G93: a move takes 1/F minutes (NISTIR 6556 §3.5.19)', () => {
    expect(minutes(`${HEAD}G93\nG1 X30 Y40 F2`)).toBeCloseTo(0.5, 9);
  });
  test('G93 needs its F in every block', () => {
    const { notes, whole } = readProgram(`${HEAD}G93\nG1 X30 F2\nX60`);
    expect(notes.join()).toMatch(/Line 6: With G93 every move needs its own F/);
    expect(whole).toBe(false);
  });
  test('a feed of one meaning does not become one of another', () => {
    expect(notes(`${HEAD}G1 Z-1 F100\nG95 S1000\nX10`)).toMatch(/A feed F is needed/);
  });
});

// NISTIR 6556 §3.5.16; the two examples are those of its §3.5.16.3 (G81).
// Whatever is a length is told in inches, whatever is none stays: the tool goes the same way.
test.each([
  ['lines and feeds', 'G0 X12 Y-7 Z5\nG1 Z-3 F300\nX40 Y8 F900\nG91\nX-3 Y4 Z1\nG90\nG0 Z9'],
  ['arcs by middle and by radius', 'G0 X10 Y0 Z1\nG2 X30 Y0 I10 J0 F400\nG3 X50 Y5 R14\nG17 G2 X40 Y-5 Z-2 I-5 J-5'],
  ['arcs in another plane', 'G0 X10 Y3 Z8\nG18 G2 X20 Z8 I5 K0 F400\nG19 G3 Y11 Z8 J4 K0\nG17'],
  ['cycles', 'G0 X1 Y2 Z9\nF100\nG83 X4 Y5 Z-14 R2 Q3\nX20\nG73 X30 Z-9 R1 Q2.5\nG82 X40 Z-2 R1 P0.5\nG80\nG0 X0'],
  ['offsets', 'G10 L2 P1 X30 Y20 Z-5\nG0 X1 Y2 Z8\nG92 X0 Y0 Z4\nG1 X5 Y6 Z-7 F200\nG92.1'],
  ['scaled and turned', 'G51 X10 Y4 P2\nG0 X12 Y6 Z3\nG68 X5 Y5 R30\nG1 X14 Y9 F300\nG69 G50\nX1'],
])('a program in inches is the one in millimetres: %s', (_, program) => {
  const LENGTH = /([XYZIJKQF])(-?[\d.]+)/g;
  const inches = program
    .split('\n')
    .map((line) => line.replace(LENGTH, (_, letter: string, mm: string) => `${letter}${Number(mm) / 25.4}`))
    .map((line) => (/G68/.test(line) ? line : line.replace(/R(-?[\d.]+)/g, (_, mm: string) => `R${Number(mm) / 25.4}`)))
    .join('\n');
  const [metric, imperial] = [readProgram(`G21 G90\n${program}\nM30`), readProgram(`G20 G90\n${inches}\nM30`)];
  expect(imperial.path.xyz.length).toBe(metric.path.xyz.length);
  for (const key of ['xyz', 'feed'] as const)
    metric.path[key].forEach((value, k) => expect(imperial.path[key][k], `${key} ${k}`).toBeCloseTo(value, 6));
  expect([imperial.whole, imperial.notes.length]).toEqual([metric.whole, metric.notes.length]);
});

describe('drilling cycles', () => {
  const START = 'G21 G90\nG0 X1 Y2\nG0 Z3\nF100\n';
  test('example 1: absolute', () => {
    expect(points(`${START}G90 G81 G98 X4 Y5 Z1.5 R2.8`).slice(-4)).toEqual([
      [4, 5, 3],
      [4, 5, 2.8],
      [4, 5, 1.5],
      [4, 5, 3],
    ]);
  });
  test('example 2: incremental, three times', () => {
    const all = points(`${START}G91 G81 G98 X4 Y5 Z-0.6 R1.8 L3`);
    expect(all.filter(([, , z]) => z === 4.2)).toEqual([
      [5, 7, 4.2],
      [9, 12, 4.2],
      [13, 17, 4.2],
    ]);
    expect(all.at(-1)).toEqual([13, 17, 4.8]);
    expect(Math.max(...all.map(([, , z]) => z))).toBe(4.8);
  });
  test('L0 is told, and where the tool is then is not known', () => {
    const { notes, whole } = readProgram(`${START}G81 X4 Y5 Z-2 R2 L0\nX9\nG80\nG0 X1 Y1 Z9`);
    expect(notes.join()).toMatch(/L0/);
    expect(whole).toBe(false);
  });
  test('G73 breaks the chip by a small lift, G83 leaves the hole', () => {
    const heights = (g: number) =>
      points(`${START}G${g} X4 Y5 Z-4 R2 Q3`)
        .map(([, , z]) => z)
        .slice(-6);
    expect(heights(73)).toEqual([3, 2, -1, -0.746, -4, 3]);
    expect(heights(83)).toEqual([2, -1, 2, -0.746, -4, 3]);
  });
  test('G85 and G89 come up at the feed, G86 with the spindle standing', () => {
    const feeds = (g: number) => [...readProgram(`${START}S900 M3\nG${g} X4 Y5 Z-4 R2 P0.5`).path.feed.slice(-2)];
    expect([feeds(81), feeds(85), feeds(86), feeds(89)]).toEqual([
      [100, 0],
      [100, 100],
      [100, 0],
      [100, 100],
    ]);
    expect([81, 82, 86, 89].map((g) => readProgram(`${START}S900 M3\nG${g} X4 Y5 Z-4 R2 P0.5`).dwell)).toEqual([
      0, 0.5, 0.5, 0.5,
    ]);
  });
});

describe('rotation and scale', () => {
  test.each([
    ['a quarter turn about zero', 'G68 X0 Y0 R90\nG1 X10 F100', [0, 10, 5]],
    ['about another point', 'G68 X10 Y0 R90\nG1 X10 Y5 F100', [5, 0, 5]],
    ['off again', 'G68 X0 Y0 R90\nG1 X10 F100\nG69\nG1 X10 Y1', [10, 1, 5]],
    ['incremental moves turn too', 'G68 X0 Y0 R90\nG91 G1 X10 F100\nX10', [0, 20, 5]],
    ['a scale leaves heights that it does not name', 'G51 X0 Y0 P2\nG1 X10 Y3 Z-1 F100', [20, 6, -1]],
    ['a scale of each axis, one mirrored', 'G51 X0 Y0 Z0 I-1 J2 K1\nG1 X10 Y3 Z-1 F100', [-10, 6, -1]],
    ['G50 ends it', 'G51 X0 Y0 P2\nG1 X10 F100\nG50\nG1 X10 Y1', [10, 1, 5]],
    ['scaled, then turned', 'G68 X0 Y0 R90\nG51 X0 Y0 P2\nG1 X10 F100', [0, 20, 5]],
  ])('%s', (_, text, end) => {
    expect(last(HEAD + text)).toEqual(end);
  });
  test('the tool does not move where one begins or ends', () => {
    expect(points(`${HEAD}G0 X10\nG68 X0 Y0 R90\nG51 X5 Y5 P3\nG50\nG69\nG91 G0 X1`).slice(-2)).toEqual([
      [10, 0, 5],
      [11, 0, 5],
    ]);
  });
  test('an arc that is turned is as long, one scaled by 3 three times', () => {
    const length = (before: string) =>
      measurePath(readProgram(`${HEAD}G0 Z0\n${before}G3 X10 Y10 I0 J10 F100`.replace('G3', 'G0 X10 Y-10\nG3')).path)
        .cut;
    expect(length('G68 X0 Y0 R33\n') / length('')).toBeCloseTo(1, 3);
    expect(length('G51 X0 Y0 P3\n') / length('')).toBeCloseTo(3, 2);
  });
  test.each([
    ['G51 X0 Y0 P1500', /larger than 100/],
    ['G68 X0 Y0', /needs an angle R/],
    ['G51 X0 Y0 I1 J2\nG2 X10 Y0 I5 J0 F100', /two different scales/],
  ])('%s is told', (text, sentence) => {
    expect(notes(HEAD + text)).toMatch(sentence);
  });
});

describe('parameters and expressions (NISTIR 6556 §3.3.2)', () => {
  test.each([
    ['#1=10\nG0 X#1 Y[#1/4] Z[2**3]', [10, 2.5, 8]],
    ['#1=2 #2=#1\nG0 X#1 Y#2 Z1', [2, 0, 1]],
    ['#3=15\n#3=6 G0 X#3\nG0 Y#3 Z0', [15, 6, 0]],
    ['G0 X[1+2*3] Y[[1+2]*3] Z-[4]', [7, 9, -4]],
    ['G0 X[10 mod 4] Y[-10 MOD 4] Zabs[-3]', [2, 2, 3]],
    ['G0 X[10*cos[60]] Y[10*sin[30]] Zatan[1]/[-1]', [5, 5, 135]],
    ['G0 Xsqrt[9] Yfix[-2.8] Zfup[2.8]', [3, -3, 3]],
    ['G0 Xround[2.5] Yln[exp[2]] Z[2 xor 0]', [3, 2, 1]],
    ['#<depth>=-3\n#5=7 #7=11\nG0 X##5 Y#[2+3] Z#<depth>', [11, 7, -3]],
    ['G0 X[3 GT 2] Y[1 EQ 2] Z[1 AND 1]', [1, 0, 1]],
  ])('%s', (text, end) => {
    expect(last(`G21 G90\nG0 X0 Y0 Z0\n${text}`)).toEqual(end);
  });
  test.each([
    ['G0 X[1/0]', /divides by 0/],
    ['G0 X[1+', /cannot be read/],
    [`G0 X${'['.repeat(60)}1${']'.repeat(60)}`, /more than 50/],
    ['#100000=1\nG0 X1', /99,999/],
    ['G0 X#7 Y1 Z1', /#7 is used before it is set/],
  ])('%s is told with its line', (text, sentence) => {
    expect(notes(`G21 G90\nG0 X0 Y0 Z0\n${text}`)).toMatch(sentence);
    expect(notes(`G21 G90\nG0 X0 Y0 Z0\n${text}`)).toMatch(/^Line [34]:/);
  });
});

describe('subprograms, repeats and jumps', () => {
  test('M98 calls by the O number, as often as L says; M99 goes back', () => {
    const text = 'O1 (MAIN)\nG21 G90\nG0 X0 Y0 Z0\nM98 P100 L3\nG0 Y5\nM30\nO100\nG91 G0 X2\nG90\nM99';
    expect(last(text)).toEqual([6, 5, 0]);
    expect(notes(text)).toMatch(/Line 4: M98 calls/);
    expect([...readProgram(text).lines]).toEqual([2, 7, 7, 7, 4]);
  });
  test('a call of what is not there loses the place', () => {
    const { notes, whole } = readProgram(`${HEAD}M98 P7\nG91 G1 X5 F100`);
    expect(notes.join()).toMatch(/M98 P7\) does not stand in this file/);
    expect(whole).toBe(false);
  });
  test('O-words: sub with arguments, if, while, repeat', () => {
    const text = `o100 sub
G0 X#1 Y#2
#1=99
o100 endsub
G21 G90
G0 Z0
#1=1
o100 call [3] [4]
G0 Z#1
o101 while [#1 LT 4]
G91 G0 X1
G90
#1=[#1+1]
o101 endwhile
o102 if [#1 EQ 3]
G0 Y50
o102 elseif [#1 EQ 4]
G0 Y60
o102 else
G0 Y70
o102 endif
o103 repeat [2]
G91 G0 Z1
G90
o103 endrepeat
M2`;
    expect(last(text)).toEqual([6, 60, 3]);
  });
  test('do, while, break and continue', () => {
    const text = `G21 G90 G0 X0 Y0 Z0
#1=0
o1 do
#1=[#1+1]
o2 if [#1 EQ 2]
o1 continue
o2 endif
G91 G0 X1
G90
o1 while [#1 LT 4]
o3 while [1]
G91 G0 Y1
G90
o4 if [#1 GT 6]
o3 break
o4 endif
#1=[#1+1]
o3 endwhile
G0 Z1`;
    expect(last(text)).toEqual([3, 4, 1]);
  });
  test('IF, GOTO, THEN and WHILE', () => {
    const text = `G21 G90 G0 X0 Y0 Z0
#1=0
WHILE [#1 LT 3] DO1
G91 G0 X1
G90
#1=[#1+1]
END1
IF [#1 EQ 3] THEN #2=8
IF [#1 EQ 3] GOTO 50
G0 Y99
N50 G0 Y#2
M30`;
    expect(last(text)).toEqual([3, 8, 0]);
    expect(notes(text)).toMatch(/Line 3: IF, GOTO and WHILE/);
  });
  test.each([
    ['a subprogram that calls itself', 'M98 P1\nM30\nO1\nM98 P1\nM99', /Line 7: more than 50 subprograms/],
    ['a loop without an end', '#1=1\no1 while [#1]\n#1=[1]\no1 endwhile', /1,000 lines would be carried out/],
    ['a loop of jumps', 'N1 #1=1\nGOTO 1', /1,000 lines would be carried out/],
  ])('%s is refused with its line', (_, text, sentence) => {
    expect(() => readProgram(HEAD + text, { points: 1e6, lines: 1000 })).toThrow(sentence);
  });
  test('more moves than are kept are refused with their line', () => {
    expect(() =>
      readProgram(
        `${HEAD}o1 repeat [9000]
G2 X0 Y0 I500 J0 F100
o1 endrepeat`,
        { points: 9000, lines: 1e5 },
      ),
    ).toThrow(/Line 5: .*9,000 moves/);
  });
  test.each([
    ['o1 while [1]\nG0 X1', /has no endwhile/],
    ['GOTO 77\nG0 X1', /no line N77/],
    ['o5 call\nG0 X1', /O5 does not stand/],
    ['WHILE [0] DO1\nG0 X1', /has no END/],
    ['M99\nG0 X1', /begin the program again/],
    ['G0 X1\nO2\nG0 X2', /begins another program/],
    ['G65 P100\nG91 G0 X3', /G65 is not known/],
    ['IF [1] G0 X1', /neither GOTO nor THEN/],
  ])('%s is told', (text, sentence) => {
    expect(notes(HEAD + text)).toMatch(sentence);
  });
  test('a heading is a heading, and a slash is told', () => {
    expect(notes('%\nO1000 (NAME)\nG21 G90\nG0 X1 Y2 Z3')).toBe('');
    const text = 'G21 G90\nG0 X0 Y0 Z0\n/G0 X5\n/2 G0 Y6';
    expect(last(text)).toEqual([5, 6, 0]);
    expect(notes(text)).toMatch(/Line 3: Lines with a slash/);
  });
});

test('the plain program of a shop is whole', () => {
  expect(readProgram(`${HEAD}G1 Z-1 F100\nX10\nG53 G0 Z0\nM5\nM30`).whole).toBe(true);
});
