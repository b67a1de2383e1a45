import type { BaseBench } from '../document/bench.ts';
import type { BaseTool } from '../document/tool.ts';
import type { LengthUnit } from '../quantity/units.ts';
import { laserTestGrid, type TestGrid } from './laser-fill/test-grid.ts';

type Grid = (tool: never, bench: BaseBench, material: string, thick: number, unit: LengthUnit) => TestGrid;

/** The kinds of tool whose settings are found by a grid of test squares. */
const GRIDS: Partial<Record<string, Grid>> = { beam: laserTestGrid };

/** A grid of test squares for a tool in a material; nothing where its kind has none. */
export function testGridOf(
  tool: BaseTool,
  ...about: [bench: BaseBench, material: string, thick: number, unit: LengthUnit]
): TestGrid | undefined {
  return GRIDS[tool.kind]?.(tool as never, ...about);
}

/** Whether a tool's settings are found by a grid of test squares. */
export const hasTestGrid = ({ kind }: Pick<BaseTool, 'kind'>): boolean => GRIDS[kind] !== undefined;
