import type { BaseTool } from '../document/tool.ts';
import { toolKindOf } from './kinds.ts';
import { takenOut } from './leaves.ts';
import { ToolProblem } from './tool-problem.ts';

/** Whether a tool takes nothing away, so that it stands on the stock as far as it is pressed; not of one that nobody has described. */
export function presses(tool: BaseTool): boolean {
  try {
    return takenOut(toolKindOf(tool).leaves(tool)) === undefined;
  } catch (error) {
    if (error instanceof ToolProblem) return false;
    throw error;
  }
}
