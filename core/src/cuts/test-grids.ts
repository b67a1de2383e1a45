import type { BaseBench } from '../document/bench.ts';
import type { BaseTool } from '../document/tool.ts';
import type { LengthUnit } from '../quantity/units.ts';
import { lateStrip } from './laser-fill/late-strip.ts';
import { laserTestGrid } from './laser-fill/test-grid.ts';
import type { TestSquares } from './laser-fill/test-squares.ts';

/** Squares that are burnt to see which is best. */
export interface TestOf {
  /** What is made, as on a button. */
  says(material: string): string;
  make(tool: never, bench: BaseBench, material: string, thick: number, unit: LengthUnit): TestSquares;
}

/** What is tried with a kind of tool. */
const TESTS: Partial<Record<string, readonly TestOf[]>> = {
  beam: [
    { says: (material) => `Make a test grid for ${material}`, make: laserTestGrid },
    { says: () => 'Make a strip that finds how late the beam comes', make: lateStrip },
  ],
};

/** The tests there are for a tool; none for most. @example testsOf({ kind: 'v-bit' }) // [] */
export const testsOf = ({ kind }: Pick<BaseTool, 'kind'>): readonly TestOf[] => TESTS[kind] ?? [];
