import type { LetteringItem } from '../../document/item.ts';
import type { BaseBench } from '../../document/bench.ts';
import type { BaseCut } from '../../document/cut.ts';
import type { Job } from '../../document/job.ts';
import { newJob } from '../../document/new-job.ts';
import { formatFeed } from '../../quantity/format.ts';
import type { LengthUnit } from '../../quantity/units.ts';
import { type Beam, settingsFor } from '../../tools/beam/fields.ts';
import { sensibleLines } from '../line-density.ts';

/** Squares and what lies round them, mm. */
const SQUARE = 10;
const GAP = 3;
const MARGIN = { left: 22, below: 12, around: 5 };
const CAP = 3;

/** Shares of a beam's settings that are tried. */
const POWERS = [0.4, 0.7, 1, 1.4, 2];
const FEEDS = [0.5, 0.75, 1, 1.25, 1.5];

/** What is tried where a beam has no settings yet. */
const USUAL = { fillPower: 35, fillFeed: 6000, scorePower: 25, scoreFeed: 2400 };

/** A grid of test squares: the drawing, and the job that burns it once the drawing has its name. */
export interface TestGrid {
  svg: string;
  powers: number[];
  feeds: number[];
  /** @param asset the hash by which the drawing is kept. */
  job(asset: string): Job;
}

/**
 * Squares of a material, each burnt with its own power and feed, with both written beside them: powers upwards, feeds to the
 * right, about what the beam is set to now.
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
  const at = (k: number) => k * (SQUARE + GAP);
  const [wide, high] = [at(feeds.length) - GAP, at(powers.length) - GAP];
  const [length, width] = [MARGIN.left + wide + MARGIN.around, MARGIN.below + high + MARGIN.around];
  const id = (row: number, column: number) => `p${powers[row]}-f${feeds[column]}`;
  const squares = powers.flatMap((_, row) =>
    feeds.map((__, column) => {
      const y = width - (MARGIN.below + at(row) + SQUARE);
      return `<rect id="${id(row, column)}" x="${MARGIN.left + at(column)}" y="${y}" width="${SQUARE}" height="${SQUARE}"/>`;
    }),
  );
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${length}mm" height="${width}mm" viewBox="0 0 ${length} ${width}">\n${squares.join('\n')}\n</svg>\n`;
  const label = (name: string, text: string, x: number, y: number, align: LetteringItem['align']): LetteringItem => ({
    kind: 'lettering',
    id: name,
    name: text,
    x,
    y,
    rotation: 0,
    text,
    face: 'josefin',
    capHeight: CAP,
    tracking: 0,
    leading: 1.2,
    align,
  });
  const labels = [
    ...powers.map((power, row) => label(`power-${row}`, `${power} %`, MARGIN.left - 3, MARGIN.below + at(row) + (SQUARE - CAP) / 2, 'right')), // prettier-ignore
    ...feeds.map((feed, column) => label(`feed-${column}`, String(parseFloat(formatFeed(feed, unit).replace(/,/g, ''))), MARGIN.left + at(column) + SQUARE / 2, MARGIN.below - CAP - 3, 'centre')), // prettier-ignore
  ];
  const driven = { bit: beam.id, air: true };
  const cuts: (BaseCut & Record<string, unknown>)[] = [
    ...powers.flatMap((power, row) =>
      feeds.map((feed, column) => ({
        ...driven,
        id: id(row, column),
        kind: 'laser-fill',
        targets: [{ item: 'grid', shapes: [`id:${id(row, column)}`] }],
        power,
        feed,
        lines: sensibleLines(beam.diameter),
        angle: 0,
        ways: 'both',
      })),
    ),
    {
      ...driven,
      id: 'labels',
      kind: 'laser-score',
      targets: labels.map((item) => ({ item: item.id, shapes: 'all' as const })),
      power: now.scorePower,
      feed: now.scoreFeed,
      passes: 1,
      join: 0.1,
    },
  ];
  return {
    svg,
    powers,
    feeds,
    job(asset) {
      const job: Job = newJob(`Test grid, ${material}`.slice(0, 120), unit, [beam], bench);
      Object.assign(job.stock, { material, length, width, corners: [thick, thick, thick, thick], holdDown: 'tape' });
      job.artwork = [
        { kind: 'drawing', id: 'grid', name: 'Squares', asset, x: 0, y: 0, rotation: 0, scaleX: 1, scaleY: 1, closeOpen: false, refit: 0 }, // prettier-ignore
        ...labels,
      ];
      job.cuts = cuts;
      job.notes = `Powers upwards, feeds in ${unit}/min to the right. Each square is a cut of its own, called by both: keep the best one’s as the setting for ${material}.`;
      return job;
    },
  };
}
