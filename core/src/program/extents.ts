import { MM_PER_INCH } from '../quantity/units.ts';
import { readBlock } from './block.ts';

export interface Extents {
  min: { x: number; y: number; z: number };
  max: { x: number; y: number; z: number };
}

/**
 * How far a program with absolute coordinates reaches from its zero, mm. Moves in machine coordinates (G53) are left
 * out.
 * @throws {import('./block.ts').BlockError} for a line that is not RS-274.
 * @example programExtents('G21\nG0 X10 Y-2 Z5\nG1 Z-3 F100') // x 10 to 10, y −2 to −2, z −3 to 5
 */
export function programExtents(text: string): Extents | undefined {
  const extents: Extents = {
    min: { x: Infinity, y: Infinity, z: Infinity },
    max: { x: -Infinity, y: -Infinity, z: -Infinity },
  };
  let perUnit = 1;
  for (const line of text.split('\n')) {
    const words = readBlock(line)?.words ?? [];
    const g = (code: number) => words.some((w) => w.letter === 'G' && w.value === code);
    if (g(20)) perUnit = MM_PER_INCH;
    if (g(21)) perUnit = 1;
    if (g(53) || g(10)) continue;
    for (const { letter, value } of words) {
      const axis = letter.toLowerCase();
      if (axis !== 'x' && axis !== 'y' && axis !== 'z') continue;
      extents.min[axis] = Math.min(extents.min[axis], value * perUnit);
      extents.max[axis] = Math.max(extents.max[axis], value * perUnit);
    }
  }
  return Number.isFinite(extents.min.x) && Number.isFinite(extents.min.z) ? extents : undefined;
}
