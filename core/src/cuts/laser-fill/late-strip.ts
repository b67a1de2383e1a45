import type { BaseBench } from '../../document/bench.ts';
import type { LengthUnit } from '../../quantity/units.ts';
import { type Beam, settingsFor } from '../../tools/beam/fields.ts';
import { CAP, named, testLabel, type TestSquare, testSquares, type TestSquares } from './test-squares.ts';

/** Squares along the strip, and what lies round them, mm. */
const SQUARE = 10;
const GAP = 5;
const MARGIN = { side: 6, below: 12, above: 5 };
/** How far the ends of lines lie off where the time is one step off, mm: as much again the other way, which is seen. */
const SEEN = 0.04;
/** How many times are tried on each side of what the bench says now. */
const EACH_SIDE = 5;
/** Lines lie so far apart that each of their ends is seen, as shares of the beam’s width, and no further than leaves stripes. */
const APART = 0.6;
const USUAL = { fillPower: 35, fillFeed: 6000, scorePower: 25, scoreFeed: 2400 };

/**
 * A strip that finds how late a beam comes: squares burnt to and fro, each told by another time earlier. Where that is right,
 * the ends of all lines lie flush; where it is not, every other one stands out.
 *
 * @example of a bench whose beam is said to come 0.8 ms late, at 6000 mm/min: squares for 0 to 2.8 ms, 0.4 apart
 */
export function lateStrip(
  beam: Beam,
  bench: BaseBench,
  material: string,
  thick: number,
  unit: LengthUnit,
): TestSquares & { late: number[] } {
  const now = { ...USUAL, ...settingsFor(beam, material, thick)?.row };
  const said = (bench.lag ?? 0) * 1000;
  const feed = Math.min(now.fillFeed, bench.limits.speed.x);
  const step = Math.max(0.1, Math.round((SEEN * 60_000 * 10) / feed) / 10);
  const times = Array.from({ length: 2 * EACH_SIDE + 1 }, (_, k) => Math.round((said + (k - EACH_SIDE) * step) * 1000) / 1000); // prettier-ignore
  const late = times.filter((time) => time >= 0);
  const at = (k: number) => MARGIN.side + k * (SQUARE + GAP);
  const lines = Math.ceil((2 * APART) / beam.diameter) / 2;
  const squares = late.map((time, k): TestSquare => ({
    id: named(`late-${time}`),
    x: at(k),
    y: MARGIN.below,
    power: now.fillPower,
    feed,
    lines,
    earlier: Math.round((time - said) * 1000) / 1000,
  }));
  const labels = late.map((time, k) => testLabel(`time-${k}`, String(time), at(k) + SQUARE / 2, MARGIN.below - CAP - 3, 'centre')); // prettier-ignore
  const notes = `How late the beam comes, in milliseconds, from left to right. Click the square whose lines end flush on both sides, and keep its time for ${bench.name}.`;
  const length = at(late.length) - GAP + MARGIN.side;
  const width = MARGIN.below + SQUARE + MARGIN.above;
  const sheet = { name: `Late beam, ${bench.name}`, notes, beam, bench, material, thick, unit, length, width, square: SQUARE, score: now }; // prettier-ignore
  return { ...testSquares(squares, labels, sheet), late };
}
