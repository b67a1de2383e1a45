import type { ChartRow, Nozzle } from './fields.ts';

/** What a chart says of a material and a thickness, and what that rests on. */
export interface FromChart {
  row: ChartRow;
  /**
   * `row`: a row of this thickness, as sheet is rolled. `between`: reckoned between two rows. `beyond`: the nearest row, as the chart ends before
   * this thickness. `other`: the chart has no row of this material, and this is the nearest of another.
   */
  by: 'row' | 'between' | 'beyond' | 'other';
  /** Thicknesses of the rows that it rests on, mm. */
  of: readonly number[];
}

/**
 * How far a sheet may be from the thickness it is sold as, mm: mills roll to about a twentieth, thin ones to a tenth of a
 * millimetre (common practice; tolerances of EN 10051 from memory), and nobody’s chart knows more.
 */
const asRolled = (thickness: number) => Math.max(0.1, thickness / 20);

/**
 * What a nozzle is set to in a sheet: the row of its thickness, or what lies evenly between the two rows beside it. Nothing
 * where its chart is empty.
 *
 * @param thick of the sheet, mm.
 * @example rows of 2 mm with a kerf of 1.2 mm and of 4 mm with 1.6 mm, for a sheet of 3 mm: a kerf of 1.4 mm, by `between`
 */
export function fromChart(
  { presets }: Pick<Nozzle, 'presets'>,
  material: string,
  thick: number,
): FromChart | undefined {
  const same = presets.filter((row) => row.material === material);
  const rows = (same.length > 0 ? same : presets).toSorted((a, b) => a.thickness - b.thickness);
  if (rows.length === 0) return undefined;
  const distance = (row: ChartRow) => Math.abs(row.thickness - thick);
  const nearest = rows.reduce((best, row) => (distance(row) < distance(best) ? row : best));
  if (same.length === 0) return { row: nearest, by: 'other', of: [nearest.thickness] };
  if (distance(nearest) <= asRolled(nearest.thickness)) return { row: nearest, by: 'row', of: [nearest.thickness] };
  const k = rows.findIndex(({ thickness }) => thickness > thick);
  if (k <= 0) return { row: nearest, by: 'beyond', of: [nearest.thickness] };
  const [low, high] = [rows[k - 1], rows[k]];
  const t = (thick - low.thickness) / (high.thickness - low.thickness);
  const between = (name: Exclude<keyof ChartRow, 'material'>) => low[name] + t * (high[name] - low[name]);
  return {
    row: {
      material,
      thickness: thick,
      kerf: fine(between('kerf')),
      feed: Math.round(between('feed')),
      pierceHeight: fine(between('pierceHeight')),
      pierceDelay: fine(between('pierceDelay')),
      cutHeight: fine(between('cutHeight')),
      volts: Math.round(between('volts')),
    },
    by: 'between',
    of: [low.thickness, high.thickness],
  };
}

/** To a hundredth: no chart knows more. */
const fine = (value: number) => Math.round(value * 100) / 100;
