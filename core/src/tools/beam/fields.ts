import type { BasePreset, BaseTool } from '../../document/tool.ts';
import { count, density, feed, length, percent } from '../../fields/quantity-field.ts';

/** Thickest stock that settings may be for, mm. */
const THICKEST = 100;

export const FIELDS = {
  /** From the lens to where the beam is thinnest. */
  focus: length('focus', { above: 0, max: 500, initial: 50 }),
};

const power = (name: string) => percent(name, { above: 0, max: 100 });
const speed = (name: string) => feed(name, { above: 0, max: 200_000 });

/** What it is set to in a material of a thickness, for each of what a beam does. */
export const PRESET = {
  thickness: length('thickness', { above: 0, max: THICKEST }),
  cutPower: power('cut power'),
  cutFeed: speed('cut feed'),
  cutPasses: count('cut passes', 'passes', { min: 1, max: 20 }),
  scorePower: power('score power'),
  scoreFeed: speed('score feed'),
  fillPower: power('engrave power'),
  fillFeed: speed('engrave feed'),
  /** Lines a millimetre; 0 leaves them to the beam’s width. */
  fillLines: density('engrave lines', { min: 0, max: 100, initial: 0 }),
};

/** What a beam is set to in a material of a thickness. */
export interface BeamSettings extends BasePreset {
  thickness: number;
  cutPower: number;
  cutFeed: number;
  cutPasses: number;
  scorePower: number;
  scoreFeed: number;
  fillPower: number;
  fillFeed: number;
  fillLines: number;
}

/** A laser's beam at its focus: `diameter` is how wide it burns there. */
export interface Beam extends BaseTool {
  focus: number;
  presets: BeamSettings[];
}

/** Thicknesses this near to each other are one, mm. */
const SAME = 0.2;

/**
 * The settings for a material, of all its thicknesses the nearest; nothing where there are none for it.
 * @returns with whether its thickness is that of the stock, to 0.2 mm.
 */
export function settingsFor(
  { presets }: Pick<Beam, 'presets'>,
  material: string,
  thick: number,
): { row: BeamSettings; fits: boolean } | undefined {
  const far = ({ thickness }: BeamSettings) => Math.abs(thickness - thick);
  const rows = presets.filter((row) => row.material === material).toSorted((a, b) => far(a) - far(b));
  return rows.length > 0 ? { row: rows[0], fits: far(rows[0]) <= SAME } : undefined;
}
