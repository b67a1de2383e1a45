import type { BaseTool } from '../document/tool.ts';
import type { Stock } from '../document/stock.ts';
import { toolKindOf } from './kinds.ts';

/** The settings for a stock’s material, and for its thickness where a tool is set by that, too; never those for another. */
export function presetFor<T extends BaseTool>(
  tool: T,
  { material, corners }: Pick<Stock, 'material' | 'corners'>,
): T['presets'][number] | undefined {
  const { settingsIn } = toolKindOf<T>(tool);
  if (settingsIn) return settingsIn(tool, material, Math.max(...corners));
  return tool.presets.find((preset) => preset.material === material);
}
