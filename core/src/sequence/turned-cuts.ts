import type { Path } from '../motion/path.ts';
import type { CutResult } from './cut-result.ts';

/** A path turned about a place of the sheet, radians counter-clockwise. */
function turnedPath(path: Path, turn: number, about: { x: number; y: number }): Path {
  const xyz = path.xyz.slice();
  const [sin, cos] = [Math.sin(turn), Math.cos(turn)];
  for (let i = 0; i < xyz.length; i += 3) {
    const [x, y] = [xyz[i] - about.x, xyz[i + 1] - about.y];
    xyz[i] = about.x + x * cos - y * sin;
    xyz[i + 1] = about.y + x * sin + y * cos;
  }
  return { ...path, xyz };
}

/**
 * Cuts as they are made on stock that lies turned about zero.
 * @example a corner at (100, 0) from zero, turned by 0.1: at (99.5, 9.98)
 */
export function turnedCuts(cuts: readonly CutResult[], turn: number, about: { x: number; y: number }): CutResult[] {
  return turn === 0 ? [...cuts] : cuts.map((cut) => ({ ...cut, path: turnedPath(cut.path, turn, about) }));
}
