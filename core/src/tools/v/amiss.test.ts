import { expect, test } from 'vitest';
import { vKind } from './kind.ts';

const bit = (angle: number | null, flute: number, tip = 0, diameter = 12.7) => ({
  id: 'v',
  name: 'V',
  kind: 'v' as const,
  angle,
  tip,
  diameter,
  flute,
  shank: 6,
  presets: [],
});

// The height of a cone: (D − t) ÷ 2 ÷ tan(angle ÷ 2).
test.each([
  [60, 11, 0, 12.7],
  [90, 6.35, 0, 12.7],
  [30, 10, 0.2, 6],
])('a bit of %i° with edges of %f mm is as it can be', (angle, flute, tip, diameter) => {
  expect(vKind.amiss!(bit(angle, flute, tip, diameter), 'mm')).toBeUndefined();
});
test('a copy of 60° that was made one of 45° keeps edges that it cannot have', () => {
  expect(vKind.amiss!(bit(45, 11), 'mm')).toBe(
    'edges of 45° from a tip of 0 mm to 12.7 mm across are 15.33 mm long, and 11 mm is said; measure which of them is wrong, and set it at Bits.',
  );
  expect(vKind.amiss!(bit(90, 11), 'in')).toMatch(/are 0\.25 in long, and 0\.433 in is said/);
  expect(vKind.amiss!(bit(null, 11), 'mm')).toBeUndefined();
});
