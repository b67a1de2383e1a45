import { expect, test } from 'vitest';
import { programPlace } from './program-facts.ts';

const placeAt = (lines: string[], line: number) =>
  programPlace(
    (async function* () {
      // In two pieces, the break within a line.
      const bytes = new TextEncoder().encode(lines.join('\n'));
      yield bytes.subarray(0, 21);
      yield bytes.subarray(21);
      await Promise.resolve();
    })(),
    line,
  );

const HEAD = ['G17 G21 G90 G94 G54', 'G0 Z5', 'S12000 M3', 'G0 X0 Y0'];
const CYCLES = [...HEAD, 'G81 X10 Y10 Z-3 R2 F200', 'X20', 'X30', 'G80', 'G0 X0 Y0', 'G1 Z-1 F300', 'X50'];

test.each([
  ['before the cycle', 4, 4],
  // What a cycle goes on with is not in its later lines.
  ['within it, at its beginning', 5, 4],
  ['its last hole', 6, 4],
  ['where it ends', 7, 4],
  ['after it', 8, 8],
  ['in a cut', 10, 10],
])('a program goes on %s: line %i at %i', async (_, line, at) => {
  const place = await placeAt(CYCLES, line);
  expect(place).toMatchObject({ line: at, spindle: 12_000, known: true, prompted: false });
});

test('modes hold from the lines before', async () => {
  expect((await placeAt(CYCLES, 10)).modes).toMatchObject({ motion: 1, feed: 300, inch: false });
  expect((await placeAt([...HEAD, 'G20', 'G1 X1 F10', 'M0 (look)', 'X2'], 7)).prompted).toBe(true);
  // Before its first moves it has said nowhere to go to.
  expect((await placeAt(CYCLES, 2)).known).toBe(false);
});
