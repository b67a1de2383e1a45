import type { BaseTool } from '../document/tool.ts';
import { toolKindOf } from './kinds.ts';
import { takenOut } from './leaves.ts';
import { ToolProblem } from './tool-problem.ts';
import type { Profile } from './turned.ts';

/**
 * The turned profile of a bit.
 * @throws {ToolProblem} for a tool that takes nothing away, or is not described well enough.
 * @example profileOf(v60) // { flat: 0, slope: 0.577…, radius: 6.35 }
 */
export function profileOf(tool: BaseTool): Profile {
  const profile = takenOut(toolKindOf(tool).leaves(tool));
  if (!profile) throw new ToolProblem(`“${tool.name}” takes nothing away; choose a bit.`);
  return profile;
}
