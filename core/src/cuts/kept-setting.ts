import type { BaseCut } from '../document/cut.ts';
import type { Stock } from '../document/stock.ts';
import type { BasePreset, BaseTool } from '../document/tool.ts';
import { toolKindOf } from '../tools/kinds.ts';
import { kindOf } from './kinds.ts';

/** Thicknesses this near to each other are one, mm. */
const SAME = 0.2;

/**
 * A tool's settings with what a cut says kept as those for a stock: in the row for its material and thickness, or in a new one
 * that is else like the nearest.
 */
export function keptSetting(tool: BaseTool, cut: BaseCut, stock: Pick<Stock, 'material' | 'corners'>): BasePreset[] {
  const said = kindOf(cut).toPreset?.(cut, tool) ?? drivenBy(cut, tool);
  const { material } = stock;
  const thick = Math.max(...stock.corners);
  const fits = (row: BasePreset & { thickness?: number }) =>
    row.material === material && (row.thickness === undefined || Math.abs(row.thickness - thick) <= SAME);
  if (tool.presets.some(fits)) return tool.presets.map((row) => (fits(row) ? { ...row, ...said } : row));
  const near = toolKindOf(tool).settingsIn?.(tool, material, thick);
  const usual = Object.fromEntries(
    Object.entries(toolKindOf(tool).preset).map(([key, { control }]) => [key, control.is === 'quantity' ? (control.min ?? 1) : 0]), // prettier-ignore
  );
  return [...tool.presets, { ...usual, ...near, ...('thickness' in usual ? { thickness: thick } : {}), ...said, material }]; // prettier-ignore
}

/** The values of a cut that have the names of its tool's settings. */
const drivenBy = (cut: BaseCut, tool: BaseTool): Partial<BasePreset> =>
  Object.fromEntries(
    Object.keys(toolKindOf(tool).preset)
      .map((key) => [key, (cut as unknown as Record<string, unknown>)[key]])
      .filter(([, value]) => typeof value === 'number'),
  ) as Partial<BasePreset>;
