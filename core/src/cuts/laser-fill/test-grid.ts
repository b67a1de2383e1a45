import type { BaseBench } from '../../document/bench.ts';
import { formatFeed } from '../../quantity/format.ts';
import type { LengthUnit } from '../../quantity/units.ts';
import { type Beam, settingsFor } from '../../tools/beam/fields.ts';
import { sensibleLines } from '../line-density.ts';
import { CAP, named, testLabel, type TestSquare, testSquares, type TestSquares } from './test-squares.ts';

/** Squares and what lies round them, mm. */
const SQUARE = 10;
const GAP = 3;
const MARGIN = { left: 22, below: 12, around: 5 };

/** Shares of a beam's settings that are tried. */
const POWERS = [0.4, 0.7, 1, 1.4, 2];
const FEEDS = [0.5, 0.75, 1, 1.25, 1.5];
/** Shares of the lines a millimetre that its width suggests, with the power and the feed that it is set to. */
const LINES = [0.5, 0.75, 1, 1.25, 1.5];
/** Between the squares of power and feed, and those of lines, mm. */
const APART = 8;

/** What is tried where a beam has no settings yet. */
const USUAL = { fillPower: 35, fillFeed: 6000, fillLines: 0, scorePower: 25, scoreFeed: 2400 };

/** A grid of test squares, and what it tries. */
export interface TestGrid extends TestSquares {
  powers: number[];
  feeds: number[];
  lines: number[];
}

/**
 * Squares of a material, each burnt with its own power and feed, with both written beside them: powers upwards, feeds to the
 * right, about what the beam is set to now. Over them a row of other lines a millimetre.
 *
 * @param thick of the material, mm.
 * @example of a beam set to 35 % and 6000 mm/min: powers of 14, 25, 35, 49 and 70 %, feeds of 3000 to 9000 mm/min
 */
export function laserTestGrid(
  beam: Beam,
  bench: BaseBench,
  material: string,
  thick: number,
  unit: LengthUnit,
): TestGrid {
  const now = { ...USUAL, ...settingsFor(beam, material, thick)?.row };
  const most = Math.min(bench.limits.speed.x, bench.limits.speed.y);
  const powers = [...new Set(POWERS.map((share) => Math.min(100, Math.round(now.fillPower * share))))];
  const feeds = [...new Set(FEEDS.map((share) => Math.min(most, Math.round((now.fillFeed * share) / 50) * 50)))];
  const usual = now.fillLines || sensibleLines(beam.diameter);
  const lines = [...new Set(LINES.map((share) => Math.max(0.5, Math.round(usual * share * 2) / 2)))];
  const at = (k: number) => k * (SQUARE + GAP);
  const above = MARGIN.below + at(powers.length) - GAP + APART;
  const length = MARGIN.left + at(Math.max(feeds.length, lines.length)) - GAP + MARGIN.around;
  const width = above + SQUARE + 2 + CAP + MARGIN.around;
  const tried: TestSquare[] = [
    ...powers.flatMap(
      (power, row) =>
      feeds.map((feed, column) => ({ id: `p${power}-f${feed}`, x: MARGIN.left + at(column), y: MARGIN.below + at(row), power, feed, lines: usual })), // prettier-ignore
    ),
    ...lines.map((each, column) => ({ id: named(`l${each}`), x: MARGIN.left + at(column), y: above, power: now.fillPower, feed: now.fillFeed, lines: each })), // prettier-ignore
  ];
  const labels = [
    ...powers.map((power, row) => testLabel(`power-${row}`, `${power} %`, MARGIN.left - 3, MARGIN.below + at(row) + (SQUARE - CAP) / 2, 'right')), // prettier-ignore
    ...feeds.map((feed, column) => testLabel(`feed-${column}`, String(parseFloat(formatFeed(feed, unit).replace(/,/g, ''))), MARGIN.left + at(column) + SQUARE / 2, MARGIN.below - CAP - 3, 'centre')), // prettier-ignore
    ...lines.map((each, column) => testLabel(`lines-${column}`, String(each), MARGIN.left + at(column) + SQUARE / 2, above + SQUARE + 2, 'centre')), // prettier-ignore
    testLabel('lines', 'lines', MARGIN.left - 3, above + (SQUARE - CAP) / 2, 'right'),
  ];
  const notes = `Powers upwards, feeds in ${unit}/min to the right. The row above has other lines a millimetre, at what the beam is set to. Each square is a cut of its own, called by what it tries: click the best one on the sheet, and keep that as the setting for ${material}.`;
  const sheet = { name: `Test grid, ${material}`, notes, beam, bench, material, thick, unit, length, width, square: SQUARE, score: now }; // prettier-ignore
  return { ...testSquares(tried, labels, sheet), powers, feeds, lines };
}
