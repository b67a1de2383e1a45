import type { CutResult } from './cut-result.ts';

/**
 * Cuts gone through high over the work with nothing on, so that a pointer’s spot goes where the tool would.
 * @param pointer where the spot lies from the tool’s middle, mm.
 */
export function dryCuts(cuts: readonly CutResult[], pointer: { x: number; y: number }): CutResult[] {
  return cuts.map((cut) => {
    const { xyz, power } = cut.path;
    let high = cut.approach ?? 0;
    for (let i = 2; i < xyz.length; i += 3) high = Math.max(high, xyz[i]);
    const over = xyz.slice();
    for (let i = 0; i < over.length; i += 3) {
      over[i] -= pointer.x;
      over[i + 1] -= pointer.y;
      over[i + 2] = high;
    }
    return {
      ...cut,
      path: { ...cut.path, xyz: over, power: new Float32Array(power.length), shades: undefined },
      pierce: undefined,
      ...(cut.power === undefined ? {} : { power: 0 }),
      ...(cut.air === undefined ? {} : { air: false }),
    };
  });
}
