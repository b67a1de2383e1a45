import { expect, test } from 'vitest';
import { stepsFor } from './ticks.ts';

const asked = (more: object) => stepsFor({ kind: 'router', ...more } as { kind: string }, true).map(({ id }) => id);

test('a router’s list asks for what its bench has, and for nothing else', () => {
  expect(asked({ pins: 'down', warmUp: 10, dustBoot: true })).toEqual([
    'warm',
    'pins',
    'held',
    'plate',
    'dust',
    'eyes',
    'hand',
  ]);
  expect(asked({ pins: 'stay', warmUp: 0, dustBoot: true })).toEqual(['held', 'plate', 'dust', 'eyes', 'hand']);
  expect(asked({ pins: 'none', warmUp: 0, dustBoot: false })).toEqual(['held', 'plate', 'eyes', 'hand']);
});
