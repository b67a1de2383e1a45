import { expect, test } from 'vitest';
import { laserPost } from '../machines/laser/post.ts';
import { dialectOf } from '../machines/router/bench.ts';
import { DIALECTS } from '../machines/router/dialects.ts';
import { joinPaths, PathBuilder } from '../motion/path.ts';
import { pathForTests } from '../motion/path-for-tests.ts';
import { betweenCuts } from './between-cuts.ts';
import type { Post } from './post.ts';
import { type ProgramCut, type ProgramHeading, writeProgram } from './write.ts';

const heading: ProgramHeading = { job: 'J', revision: '1', date: '2026-11-26', stock: '', zero: '', bench: '', unit: 'mm', lift: 5, approach: 5, park: null }; // prettier-ignore
const cut = (path: ProgramCut['path']): ProgramCut => ({ id: 'c', title: 'Burn', bit: { number: 1, name: 'Beam' }, path, depth: 0, pressed: 0, turns: true, feed: 900, plunge: 300, speed: 1000, minutes: 1, beside: { before: 0, after: 0 } }); // prettier-ignore

/** What a beam would say, made up for this test. */
const BEAM: Post = {
  tool: ({ name }) => [{ say: name }],
  set: () => [{ line: 'M7' }],
  setSeconds: () => 0.5,
  alike: () => true,
  begin: (power) => [{ line: `M3 S${1000 * power}` }],
  end: () => [{ line: 'M5' }],
  power: (power) => `S${1000 * power}`,
  off: () => [{ line: 'M9' }],
};
const beam = { ...DIALECTS['lines-only'], post: BEAM };

/** Two strokes, the first with its power halved on the way. */
function twoStrokes() {
  const path = new PathBuilder();
  path.rapid(0, 0, 0);
  path.to(10, 0, 0, 900, 0.8);
  path.to(20, 0, 0, 900, 0.4);
  path.rapid(20, 10, 0);
  path.to(0, 10, 0, 900, 0.8);
  return path.done();
}

test('power goes on where a stroke begins, changes on the way, and is off in every rapid move and at the end', () => {
  const { text } = writeProgram(heading, [cut(twoStrokes())], { x: 0, y: 0, z: 0 }, beam);
  const lines = text.split('\n').filter((line) => line && !line.startsWith(';'));
  expect(lines.slice(2)).toEqual([
    'M7',
    'G0 Z5',
    'G0 X0 Y0',
    'G0 Z0',
    'M3 S800',
    'G1 X10 F900',
    'X20 S400',
    'M5',
    'G0 Y10',
    'M3 S800',
    'G1 X0',
    'M5',
    'G0 Z5',
    'M9',
    'G53 G0 Z0',
    'G0 X0 Y0',
    'M30',
  ]);
});
test('a stroke ends once, however many moves follow with nothing on', () => {
  const path = twoStrokes();
  const far = new PathBuilder();
  far.rapid(50, 50, 0);
  far.rapid(60, 50, 0);
  far.to(70, 50, 0, 900, 0);
  const whole = joinPaths([path, far.done()]);
  const { text } = writeProgram(heading, [cut(whole)], { x: 0, y: 0, z: 0 }, beam);
  expect(text.match(/^M[35]\b/gm)).toEqual(['M3', 'M5', 'M3', 'M5']);
});
test('moves of other power never make one arc', () => {
  const ring = Array.from({ length: 101 }, (_, k) => [20 * Math.cos(k / 70), 20 * Math.sin(k / 70), 0]).flat();
  const path = pathForTests(ring, [0, ...Array.from({ length: 100 }, () => 900)]);
  path.power.fill(0.5, 51);
  const { text } = writeProgram(heading, [cut(path)], { x: 0, y: 0, z: 0 }, { ...beam, arcs: 'centre' });
  expect(text).toMatch(/\nG3.*\n(.*\n)*?.*S500/);
});
test('what a machine takes over setting a cut is planned, and only where cuts are not driven alike', () => {
  const path = twoStrokes();
  const limits = { speed: { x: 6000, y: 5400, z: 2400 }, acceleration: { x: 400, y: 320, z: 250 }, cornerStep: 300 };
  const cuts = [1000, 1000].map((speed) => ({ path, bit: 'b', speed, turns: true }));
  const between = (post: Post) => betweenCuts(cuts, 5, { ...beam, post }, limits).map(({ before }) => before * 60);
  const [first, second] = between(BEAM);
  expect(first).toBeCloseTo(0.5, 9);
  expect(between({ ...BEAM, alike: () => false })[1] - second).toBeCloseTo(0.5, 9);
});
test('a turning spindle says nothing where strokes begin and end', () => {
  const { text } = writeProgram(heading, [cut(twoStrokes())], { x: 0, y: 0, z: 0 }, DIALECTS.plain);
  expect(text.match(/^(S1000 )?M[35]$/gm)).toEqual(['S1000 M3', 'M5']);
});

test('strokes of a beam are driven alike where both want air, or neither does', () => {
  const { alike } = laserPost({ words: { on: 'M4', off: 'M5', airOn: 'M8', airOff: 'M9' }, full: 1000 });
  const driven = (air?: boolean) => ({ ...cut(twoStrokes()), air });
  const table = [true, false, undefined].map((a) => [true, false, undefined].map((b) => alike(driven(a), driven(b))));
  expect(table).toEqual([
    [true, false, false],
    [false, true, true],
    [false, true, true],
  ]);
});

test.each([
  ['mm', 'lift 7.5 mm', 1],
  ['in', 'lift 0.295 in', 25.4],
] as const)('the heading tells its lengths in %s, the unit that the program moves in', (unit, lift, perUnit) => {
  const { text } = writeProgram(
    { ...heading, unit, lift: 7.5, approach: 7.5 },
    [cut(twoStrokes())],
    { x: 0, y: 0, z: 0 },
    DIALECTS.plain,
  );
  expect(text).toContain(`(${lift}, planned`);
  expect(text.match(new RegExp(`\\d ${unit === 'mm' ? 'in' : 'mm'}\\b`))).toBeNull();
  expect(Number(/^G0 Z([\d.]+)$/m.exec(text)![1]) * perUnit).toBeCloseTo(7.5, 2);
});

test('a spindle gets the seconds of its own bench to reach its speed, in the program and in its time', () => {
  const bench = { dialect: 'plain', spindleStart: 8 } as never;
  const lines = writeProgram(
    heading,
    [{ ...cut(twoStrokes()), speed: 18_000 }],
    { x: 0, y: 0, z: 0 },
    dialectOf(bench),
  ).text.split('\n');
  expect(lines.slice(lines.indexOf('S18000 M3'))[1]).toBe('G4 P8');
  expect(dialectOf(bench).post.setSeconds({ turns: true } as never)).toBe(8);
  expect(
    dialectOf({ dialect: 'plain', spindleStart: 0 } as never).post.set({ speed: 900, turns: true } as never),
  ).toEqual([{ line: 'S900 M3' }]);
});
