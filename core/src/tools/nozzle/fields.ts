import type { BasePreset, BaseTool } from '../../document/tool.ts';
import { count, feed, length, seconds, volts } from '../../fields/quantity-field.ts';

/** Thickest sheet that a row of a chart may be for, mm. */
const THICKEST = 100;

export const FIELDS = {
  /** Current that it is made for. */
  amps: count('current', 'A', { above: 0, max: 1000 }),
};

/** A row of its cut chart: what it is set to in a material of a thickness. */
export const PRESET = {
  thickness: length('thickness', { above: 0, max: THICKEST }),
  /** How wide a kerf it leaves. */
  kerf: length('kerf', { above: 0, max: 20 }),
  feed: feed('feed', { above: 0, max: 50_000 }),
  pierceHeight: length('pierce height', { above: 0, max: 50 }),
  pierceDelay: seconds('pierce delay', { min: 0, max: 30 }),
  cutHeight: length('cut height', { above: 0, max: 50 }),
  /** Of the arc at that height and feed. */
  volts: volts('arc voltage', { min: 0, max: 400 }),
};

/** A row of a nozzle's cut chart. */
export interface ChartRow extends BasePreset {
  thickness: number;
  kerf: number;
  feed: number;
  pierceHeight: number;
  pierceDelay: number;
  cutHeight: number;
  volts: number;
}

/** What a plasma torch cuts with: it leaves a kerf right through, as wide as its chart says. */
export interface Nozzle extends BaseTool {
  amps: number;
  presets: ChartRow[];
}
