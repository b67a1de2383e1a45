import { readProgram } from './read.ts';

export interface Extents {
  min: { x: number; y: number; z: number };
  max: { x: number; y: number; z: number };
}

/**
 * How far a program reaches from its zero, mm, arcs with their bulges. Moves in machine coordinates (G53, G28, G30)
 * are left out.
 * @throws {import('./block-error.ts').BlockError} where no move could be read.
 * @example programExtents('G21\nG0 X10 Y-2 Z5\nG1 Z-3 F100') // { min: { x: 10, y: -2, z: -3 }, max: { x: 10, y: -2, z: 5 } }
 */
export function programExtents(text: string): Extents {
  const { xyz } = readProgram(text).path;
  const extents: Extents = {
    min: { x: Infinity, y: Infinity, z: Infinity },
    max: { x: -Infinity, y: -Infinity, z: -Infinity },
  };
  for (let i = 0; i < xyz.length; i += 3)
    for (const [k, axis] of (['x', 'y', 'z'] as const).entries()) {
      extents.min[axis] = Math.min(extents.min[axis], xyz[i + k]);
      extents.max[axis] = Math.max(extents.max[axis], xyz[i + k]);
    }
  return extents;
}
