import { expect, test } from 'vitest';
import { programWays } from './program-ways.ts';

async function* bytesOf(lines: readonly string[]) {
  await Promise.resolve();
  yield new TextEncoder().encode(lines.join('\n'));
}
/** Minutes grow at the lines that a cut's plan holds. */
const waysOf = (lines: readonly (readonly [text: string, planned: number])[]) => {
  let sum = 0;
  const minutes = Float64Array.from(lines, ([, planned]) => (sum += planned));
  return programWays(bytesOf(lines.map(([text]) => text)), { minutes });
};
const CUT = [
  ['G1 X60 F900', 1],
  ['G0 Z20', 1],
] as const;

test('one cut: to the first, to the park', async () => {
  const ways = await waysOf([
    ['G21 G90 G17', 0],
    ['G53 G0 Z-5', 0],
    ['G0 X10 Y20', 0],
    ['G0 Z5', 0],
    ['G1 Z-2 F300', 1],
    ...CUT,
    ['G53 G0 Z-5', 0],
    ['G53 G0 X-10 Y-10', 0],
    ['M30', 0],
  ]);
  expect(ways.map(({ way, line, moves }) => [way, line, moves.length])).toEqual([
    ['to-first', 4, 4],
    ['to-park', 9, 2],
  ]);
  const [first, park] = ways;
  expect(first.moves[0]).toEqual({ to: { z: -5 }, direct: true });
  expect(first.moves[1].to).toEqual({ x: 10, y: 20 });
  expect(first.from).toBeUndefined();
  expect([park.from?.x, park.from?.y, park.from?.z]).toEqual([60, 20, 20]);
  expect(park.moves[1]).toEqual({ to: { x: -10, y: -10 }, direct: true });
});

test('two bits: also to the change, and on from it', async () => {
  const ways = await waysOf([
    ['G21 G90 G17', 0],
    ['G0 X10 Y20', 0],
    ...CUT,
    ['G53 G0 Z-5', 0],
    ['T2 M6', 0],
    ['G0 X30 Y40', 0],
    ...CUT,
    ['G53 G0 Z-5', 0],
    ['M30', 0],
  ]);
  expect(ways.map(({ way }) => way)).toEqual(['to-first', 'to-change', 'from-change', 'to-park']);
});

test('a program that moves nowhere else has none', async () => {
  expect(await waysOf([['G21 G90', 0], ...CUT, ['M30', 0]])).toEqual([
    { way: 'to-first', line: 1, from: undefined, moves: [{ to: { x: 60 }, direct: false }] },
  ]);
});
