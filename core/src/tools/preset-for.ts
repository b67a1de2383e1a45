import type { BaseTool } from '../document/tool.ts';

/** The settings for a material, or the first there are. */
export function presetFor<T extends BaseTool>(tool: T, material: string): T['presets'][number] | undefined {
  return tool.presets.find((preset) => preset.material === material) ?? tool.presets[0];
}
