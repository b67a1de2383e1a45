import { presetFor } from '../tools/preset-for.ts';
import type { Stock } from '../document/stock.ts';
import type { BasePreset, BaseTool } from '../document/tool.ts';
import type { BaseCut } from '../document/cut.ts';
import { kindOf } from './kinds.ts';

/** What a preset sets of every kind of cut that has it. */
const DRIVEN = new Set(['feed', 'plunge', 'speed']);

/** Sets a cut to what its bit is set to in a material: feeds, speed, and the passes of kinds that have them. */
export function suitToPreset(cut: BaseCut, preset: BasePreset): void {
  const { fields, fromPreset } = kindOf(cut);
  const driven = Object.entries(preset).filter(([name]) => DRIVEN.has(name) && name in fields);
  Object.assign(cut, Object.fromEntries(driven), fromPreset?.(cut, preset));
}

/** Gives a cut another bit, with the step that goes with it and its settings for the stock. */
export function suitToBit(cut: BaseCut, bit: BaseTool, stock: Pick<Stock, 'material' | 'corners'>): void {
  Object.assign(cut, { bit: bit.id }, kindOf(cut).fromBit?.(bit));
  const preset = presetFor(bit, stock);
  if (preset) suitToPreset(cut, preset);
}
