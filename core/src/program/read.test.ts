import { expect, test } from 'vitest';
import { readProgram } from './read.ts';

/** Places that feed moves go to and come from. */
function fed(text: string): number[][] {
  const { xyz, rapid } = readProgram(text).path;
  const out: number[][] = [];
  for (let k = 1; k < rapid.length; k++) if (!rapid[k]) out.push([...xyz.slice(3 * k - 3, 3 * k + 3)]);
  return out;
}

test.each([
  ['a place of the machine', 'G28'],
  ['a line that cannot be followed', 'G53 G0 X1 Y1 Z1'],
])('from where nobody knows, after %s, nothing is cut until a place is known again', (_, away) => {
  const text = ['G21 G90', 'G0 X0 Y0 Z5', 'G1 Z-1 F300', 'X10', away, 'G1 X50', 'Y60 Z-2', 'X70'].join('\n');
  expect(fed(text)).toEqual([
    [0, 0, 5, 0, 0, -1],
    [0, 0, -1, 10, 0, -1],
    [50, 60, -2, 70, 60, -2],
  ]);
});

test('so that it begins there, too, where nothing was cut before', () => {
  expect(fed(['G21 G90', 'G28', 'G1 X50 F300', 'Y60 Z-2', 'X70'].join('\n')).at(-1)).toEqual([50, 60, -2, 70, 60, -2]);
});
