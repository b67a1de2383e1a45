import type { BaseBench } from '../../document/bench.ts';
import type { BaseCut } from '../../document/cut.ts';
import type { LetteringItem } from '../../document/item.ts';
import type { Job } from '../../document/job.ts';
import { newJob } from '../../document/new-job.ts';
import type { LengthUnit } from '../../quantity/units.ts';
import type { Beam, BeamSettings } from '../../tools/beam/fields.ts';

/** How high labels are, mm. */
export const CAP = 3;

/** A square to be burnt, by its lower left corner on the sheet, mm, and what it is burnt with. */
export interface TestSquare {
  id: string;
  x: number;
  y: number;
  power: number;
  feed: number;
  lines: number;
  /** Told so much earlier than the bench says, ms. */
  earlier?: number;
}

/** Squares to be tried in a material: the drawing, and the job that burns it once the drawing has its name. */
export interface TestSquares {
  svg: string;
  /** @param asset the hash by which the drawing is kept. */
  job(asset: string): Job;
}

/** A name that a cut may have: `l7.5` becomes `l7-5`. */
export const named = (text: string): string => text.replace('.', '-');

/** A label beside squares. */
export const testLabel = (
  id: string,
  text: string,
  x: number,
  y: number,
  align: LetteringItem['align'],
): LetteringItem => ({
  kind: 'lettering',
  id,
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

/** What squares and their labels are burnt on and with. */
export interface TestSheet {
  name: string;
  notes: string;
  beam: Beam;
  bench: BaseBench;
  material: string;
  thick: number;
  unit: LengthUnit;
  /** Of the sheet, and of each square along its side, mm. */
  length: number;
  width: number;
  square: number;
  score: Pick<BeamSettings, 'scorePower' | 'scoreFeed'>;
}

/** A job of squares, each engraved by a cut of its own, and of labels that are scored. */
export function testSquares(
  squares: readonly TestSquare[],
  labels: LetteringItem[],
  { name, notes, beam, bench, material, thick, unit, length, width, square, score }: TestSheet,
): TestSquares {
  const drawn = squares.map(
    ({ id, x, y }) => `<rect id="${id}" x="${x}" y="${width - y - square}" width="${square}" height="${square}"/>`,
  );
  const driven = { bit: beam.id, air: true };
  const cuts: (BaseCut & Record<string, unknown>)[] = [
    ...squares.map(({ id, power, feed, lines, earlier = 0 }) => ({
      ...driven,
      id,
      kind: 'laser-fill',
      targets: [{ item: 'grid', shapes: [`id:${id}`] }],
      power,
      feed,
      lines,
      earlier,
      angle: 0,
      ways: 'both',
    })),
    {
      ...driven,
      id: 'labels',
      kind: 'laser-score',
      targets: labels.map((item) => ({ item: item.id, shapes: 'all' as const })),
      power: score.scorePower,
      feed: score.scoreFeed,
      passes: 1,
      join: 0.1,
    },
  ];
  return {
    svg: `<svg xmlns="http://www.w3.org/2000/svg" width="${length}mm" height="${width}mm" viewBox="0 0 ${length} ${width}">\n${drawn.join('\n')}\n</svg>\n`,
    job(asset) {
      const job: Job = newJob(name.slice(0, 120), unit, [beam], bench);
      Object.assign(job.stock, { material, length, width, corners: [thick, thick, thick, thick], holdDown: 'tape' });
      job.artwork = [
        { kind: 'drawing', id: 'grid', name: 'Squares', asset, x: 0, y: 0, rotation: 0, scaleX: 1, scaleY: 1, closeOpen: false, refit: 0 }, // prettier-ignore
        ...labels,
      ];
      job.cuts = cuts;
      job.notes = notes;
      return job;
    },
  };
}
