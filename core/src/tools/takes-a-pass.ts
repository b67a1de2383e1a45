import type { Bit } from './turned.ts';

/** Most that a bit takes in a pass of a material that it has settings for, mm. */
export const takesAPass = ({ presets }: Bit, material: string): number | undefined =>
  presets.find((preset) => preset.material === material)?.depthPerPass;
