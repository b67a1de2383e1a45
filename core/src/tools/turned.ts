import type { BasePreset, BaseTool } from '../document/tool.ts';

/**
 * A bit as a turned profile: a flat of radius `flat` at the tip, then walls that widen by `slope` mm of radius a mm of
 * height, up to `radius`. An end mill is flat all over (`slope` 0).
 */
export interface Profile {
  flat: number;
  slope: number;
  radius: number;
}

/** Feeds and speeds of one bit in one material: mm/min, turns a minute, mm. */
export interface Preset extends BasePreset {
  feed: number;
  plunge: number;
  speed: number;
  depthPerPass: number;
}

/** A bit that turns and cuts with edges of a length, mm. */
export interface Bit extends BaseTool {
  /** Length of the cutting edges, mm. */
  flute: number;
  presets: Preset[];
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

/** A usual step between neighbouring ways of an end mill: 40 % of its diameter (common practice), to a hundredth, mm. */
export function usualStep({ diameter }: Pick<BaseTool, 'diameter'>): number {
  return Math.round(diameter * 40) / 100;
}
