import { expect, test } from 'vitest';
import { ArcLength } from '../geometry/arc-length.ts';
import { StandingTabs } from './standing-tabs.ts';

// A bit of 6 mm goes round a square of 100 mm; it leaves out 26 mm of its way, so that 20 mm of wood stand.
const loop = Float64Array.of(0, 0, 100, 0, 100, 100, 0, 100);
const tab = { from: 40, to: 66, x: 53, y: 0 };
const standing = new StandingTabs([{ measured: new ArcLength(loop), tabs: [tab] }, { measured: new ArcLength(loop), tabs: [] }], 3); // prettier-ignore

test.each([
  ['the wood', 0, 53, 0, true],
  ['its ends: the bit is a radius away', 0, 39.9, 0, false],
  ['its ends, too near', 0, 40.2, 0, true],
  ['its other end', 0, 66.1, 0, false],
  ['its other end, too near', 0, 65.8, 0, true],
  ['beside it: of its own loop the bit’s radius counts', 0, 53, 4, false],
  ['beside it: of another loop both are as wide as the bit', 1, 53, 4, true],
  ['twice the radius beside it', 1, 53, 6.1, false],
  ['far away', 1, 20, 50, false],
])('%s', (_, on, x, y, takes) => {
  expect(standing.takes(on, x, y)).toBe(takes);
});

test('no tabs are taken from', () => {
  expect(new StandingTabs([], 3).takes(0, 0, 0)).toBe(false);
});
