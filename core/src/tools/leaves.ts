import { radians } from '../quantity/units.ts';
import type { Profile } from './turned.ts';

/**
 * What a tool leaves where it goes with its power on: the groove of a turned profile, as deep as its tip is; a kerf right
 * through a sheet so thick, mm; a burn or a mark on the surface, which have a width and no depth; or nothing.
 */
export type Leaves =
  | { kind: 'groove'; profile: Profile }
  | { kind: 'kerf'; width: number; depth: number }
  | { kind: 'burn'; spot: number }
  | { kind: 'mark'; width: number }
  | { kind: 'nothing' };

/**
 * How wide what is left is at the top of the stock, with the tool's tip this deep, mm.
 * @example widthLeft({ kind: 'mark', width: 0.3 }, 2) // 0.3
 */
export function widthLeft(leaves: Leaves, depth: number): number {
  switch (leaves.kind) {
    case 'groove': {
      const { flat, slope, radius } = leaves.profile;
      return depth > 0 ? 2 * Math.min(radius, flat + depth * slope) : 0;
    }
    case 'kerf':
    case 'mark':
      return leaves.width;
    case 'burn':
      return leaves.spot;
    case 'nothing':
      return 0;
  }
}

/** The profile whose groove is taken out of the stock; a kerf is one with upright walls. Undefined where nothing is. */
export function takenOut(leaves: Leaves): Profile | undefined {
  if (leaves.kind === 'groove') return leaves.profile;
  if (leaves.kind === 'kerf') return { flat: leaves.width / 2, slope: 0, radius: leaves.width / 2 };
  return undefined;
}

/** A V-groove's profile. @example vProfile(60, 0, 6).slope // 0.577… */
export function vProfile(angle: number, tip: number, diameter: number): Profile {
  const radius = diameter / 2;
  return { flat: Math.min(tip / 2, radius), slope: Math.tan(radians(angle) / 2), radius };
}
