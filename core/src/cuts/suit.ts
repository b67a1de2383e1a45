import { presetFor } from '../bits/bit.ts';
import type { Bit, Preset } from '../document/bit.ts';
import type { Cut } from '../document/cut.ts';
import { kindOf } from './kinds.ts';

/** Sets a cut to what its bit is set to in a material: feeds, speed, and the passes of kinds that have them. */
export function suitToPreset(cut: Cut, preset: Preset): void {
  const { feed, plunge, speed } = preset;
  Object.assign(cut, { feed, plunge, speed }, kindOf(cut).fromPreset?.(cut, preset));
}

/** Gives a cut another bit, with the step that goes with it and its settings for a material. */
export function suitToBit(cut: Cut, bit: Bit, material: string): void {
  Object.assign(cut, { bit: bit.id }, kindOf(cut).fromBit?.(bit));
  const preset = presetFor(bit, material);
  if (preset) suitToPreset(cut, preset);
}
