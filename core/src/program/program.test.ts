import { expect, test } from 'vitest';
import { readBlock } from './block.ts';
import { DIALECTS } from '../machines/router/dialects.ts';
import { programExtents } from './extents.ts';
import { type ProgramCut, writeProgram } from './write.ts';
import { pathForTests } from '../motion/path-for-tests.ts';

// NISTIR 6556, §3.3: “a line may have comments, spaces and tabs anywhere, and lower case is the same as upper case”;
// (wording from memory) its example “g0x +0. 12 34y 7” reads as “g0 x+0.1234 y7”.
test('the example of NISTIR 6556 §3.3.1', () => {
  expect(readBlock('g0x +0. 12 34y 7')?.words).toEqual([
    { letter: 'G', value: 0 },
    { letter: 'X', value: 0.1234 },
    { letter: 'Y', value: 7 },
  ]);
});
test('line numbers, comments and per cent signs', () => {
  expect(readBlock('N12 G1 X1. F200 (in)')).toEqual({
    words: [
      { letter: 'G', value: 1 },
      { letter: 'X', value: 1 },
      { letter: 'F', value: 200 },
    ],
    comment: 'in',
    skipped: [],
  });
  expect(readBlock('G0 X2 ; over to the next')).toMatchObject({ words: [{ letter: 'G' }, { letter: 'X' }], comment: ' over to the next' }); // prettier-ignore
  expect(readBlock('; T2 M6')).toEqual({ words: [], comment: ' T2 M6', skipped: [] });
  expect(readBlock('%')).toBeUndefined();
  expect(readBlock('   ')).toBeUndefined();
  expect(readBlock('(only words)')?.words).toEqual([]);
});
test.each([
  ['G1 X1 (open', /comment is not closed/],
  ['G1 X(a (b) c)1', /comment is not closed/],
  ['G1 X1 N5', /line number does not come first/],
  ['G1 X', /cannot be read/],
  ['G1 X[1+2]', /cannot be read/],
  [`G1 (${'x'.repeat(300)})`, /longer than the 256/],
])('“%s” is refused', (line, sentence) => {
  expect(() => readBlock(line)).toThrow(sentence);
});

const heading = {
  job: 'Größe (6 × 2)',
  revision: '7',
  date: '2026-11-23',
  stock: 'oak',
  zero: 'lower left corner, top of the stock',
  bench: 'bench',
  unit: 'mm' as const,
  lift: 5,
  approach: 5,
  park: null,
};
const cut = (bit: number, x: number): ProgramCut => ({
  id: `c${bit}`,
  title: 'Carve',
  bit: { number: bit, name: 'V 60°' },
  path: pathForTests([x, 2, 5, x, 2, -1, x + 10.123456, 2, -1, x + 10.123456, 2, 5], [0, 300, 900, 0]),
  depth: 1,
  pressed: 0,
  turns: true,
  feed: 900,
  plunge: 300,
  speed: 16000,
  minutes: 1,
  beside: { before: 0, after: 0 },
});

test('a program lifts first, then goes across, states units and modes, and ends at zero with the spindle off', () => {
  const { text, cuts, moves } = writeProgram(heading, [cut(1, 20), cut(2, 40)], { x: 10, y: 1, z: 0 }, DIALECTS.plain);
  const lines = text.trim().split('\n');
  for (const line of lines) expect(() => readBlock(line)).not.toThrow();
  expect(lines[0]).toBe('(Groe  6 x 2  - revision 7, 2026-11-23)');
  expect(lines).toContain('G17 G21 G90 G94 G54');
  const first = lines.indexOf('G0 Z5');
  expect(lines.slice(first, first + 4)).toEqual(['G0 Z5', 'G0 X10 Y1', 'G1 Z-1 F300', 'X20.123 F900']);
  expect(lines.filter((line) => /M6/.test(line))).toEqual(['T1 M6', 'T2 M6']);
  expect(lines[lines.indexOf('T2 M6') - 2]).toBe('M5');
  expect(lines.slice(-5)).toEqual(['G0 Z5', 'M5', 'G53 G0 Z0', 'G0 X0 Y0', 'M30']);
  expect(cuts.map(({ id }) => id)).toEqual(['c1', 'c2']);
  expect(moves.every(({ line, cut: n }) => line >= cuts[n].from && line < cuts[n].to)).toBe(true);
  expect(programExtents(text)).toEqual({ min: { x: 0, y: 0, z: -1 }, max: { x: 40.123, y: 1, z: 5 } });
});
test('in inches the figures are inches and the extents come back in mm', () => {
  const { text } = writeProgram({ ...heading, unit: 'in' }, [cut(1, 25.4)], { x: 0, y: 0, z: 0 }, DIALECTS.plain);
  expect(text).toContain('G20');
  expect(text).toContain('G0 X1 Y0.0787');
  expect(programExtents(text)!.max.x).toBeCloseTo(25.4 + 10.123456, 2);
});
test('an operator’s spindle gets a stop instead of M3', () => {
  const { text } = writeProgram(heading, [cut(1, 0)], { x: 0, y: 0, z: 0 }, DIALECTS['operator-spindle']);
  expect(text).toMatch(/start the spindle at 16000 rpm\)\nM0/);
  expect(text).not.toContain('M3\n');
});

// Names come from files of anyone; U+FF09, U+FE5A, U+207E and U+FF1B are plain brackets and semicolons to NFKD.
test.each(Object.keys(DIALECTS) as (keyof typeof DIALECTS)[])(
  'no name of a job, bench, stock, bit or cut writes anything but a comment: %s',
  (name) => {
    const written = (word: string) => {
      const named = { ...cut(1, 20), title: word, bit: { number: 1, name: word } };
      const all = { ...heading, job: word, stock: word, bench: word, zero: word, date: word, revision: word };
      return writeProgram(all, [named], { x: 0, y: 0, z: 0 }, DIALECTS[name]).text;
    };
    const words = (text: string) => text.split('\n').map((line) => readBlock(line)?.words ?? []);
    const plain = words(written('sign'));
    for (const opened of [
      ')',
      '）',
      '﹚',
      '⁾',
      '₎',
      ';',
      '；',
      '﹔',
      '\n',
      '\r',
      '\u2028',
      '\u0085',
      '\0',
      '%',
      '(',
      '（',
    ])
      expect(words(written(`sign${opened}G0 Z-50 M30${opened}`)), JSON.stringify(opened)).toEqual(plain);
  },
);
