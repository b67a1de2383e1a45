import { shapeOf } from '../fields/group-field.ts';
import { length } from '../fields/quantity-field.ts';
import { text } from '../schema/text.ts';

/** Sizes that every tool has. */
export const TOOL_SIZES = {
  /** Widest that it is across where it works. */
  diameter: length('diameter', { above: 0, max: 200 }),
  /** What it is held by, across. */
  shank: length('shank', { above: 0, max: 60 }),
};

/** What every tool has, whatever its kind. The fields of its kind stand beside these; `tools/<kind>/` says which. */
export const TOOL_BASE = { id: text(60, 1), name: text(80, 1), ...shapeOf(TOOL_SIZES) };

/** What a tool is set to in a material; its kind says the rest. */
export const PRESET_BASE = { material: text(60, 1) };

export interface BasePreset {
  material: string;
}

/** A tool as the document knows it: a bit, a point, a nozzle or a beam. Sizes in mm. */
export interface BaseTool {
  id: string;
  name: string;
  kind: string;
  diameter: number;
  shank: number;
  presets: BasePreset[];
}
