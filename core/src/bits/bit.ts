import { CannotBeCut } from '../schema/cannot-be-cut.ts';
import type { Bit, Preset } from '../document/bit.ts';
import { radians } from '../quantity/units.ts';

/** A bit that is not described well enough to be used; the message is one sentence. */
export class BitProblem extends CannotBeCut {
  override name = 'BitProblem';
}

/**
 * A bit as a turned profile: a flat of radius `flat` at the tip, then walls that widen by `slope` mm of radius a mm of
 * height, up to `radius`. An end mill is flat all over (`slope` 0).
 */
export interface Profile {
  flat: number;
  slope: number;
  radius: number;
}

/** Point angle of a twist drill where none is given, degrees (common practice). */
export const DRILL_POINT = 118;

/**
 * The turned profile of a bit.
 * @throws {BitProblem} for a V-bit without an angle.
 * @example profileOf(v60) // { flat: 0, slope: 0.577…, radius: 6.35 }
 */
export function profileOf(bit: Bit): Profile {
  const radius = bit.diameter / 2;
  if (bit.kind === 'drill') return { flat: 0, slope: Math.tan(radians(bit.angle ?? DRILL_POINT) / 2), radius };
  if (bit.kind === 'end') return { flat: radius, slope: 0, radius };
  if (bit.angle === undefined) throw new BitProblem(`The V-bit “${bit.name}” has no angle; give it one at Bits.`);
  return { flat: Math.min(bit.tip / 2, radius), slope: Math.tan(radians(bit.angle) / 2), radius };
}

/** Radius of a V-bit at a depth: r = t + d·tan α, at most the bit's own radius. At 60°, 10 mm deep: 5.77 mm. */
export function radiusAtDepth({ flat, slope, radius }: Profile, depth: number): number {
  return Math.min(radius, flat + depth * slope);
}

/** Depth at which a V-bit reaches a radius: d = (r − t)/tan α; 0 where the tip alone is wider. */
export function depthForRadius({ flat, slope }: Profile, r: number): number {
  return r <= flat ? 0 : (r - flat) / slope;
}

/** Height of the ridges a V-bit leaves on a floor cut at a step: h = (s − 2t)/(2·tan α), 0 under the flat's width. */
export function ridgeHeight({ flat, slope }: Profile, step: number): number {
  return Math.max(0, (step - 2 * flat) / (2 * slope));
}

/** The settings for a material, or the first there are. */
export function presetFor(bit: Bit, material: string): Preset | undefined {
  return bit.presets.find((preset) => preset.material === material) ?? bit.presets[0];
}

/** A usual step between neighbouring ways of an end mill: 40 % of its diameter (common practice), to a hundredth, mm. */
export function usualStep({ diameter }: Bit): number {
  return Math.round(diameter * 40) / 100;
}

/** What a kind of bit is called in a sentence. */
export const BIT_WORDS: Record<Bit['kind'], string> = { v: 'a V-bit', end: 'an end mill', drill: 'a drill' };
