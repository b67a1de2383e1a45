import type { Bit, Profile } from './turned.ts';
import { depthForRadius } from './turned.ts';

/** Outlines of a tool seen from the side: x from its axis, z up from its tip, mm. */
export interface Picture {
  parts: readonly { look: 'shank' | 'cutter' | 'line'; points: readonly (readonly [x: number, z: number])[] }[];
}

/** Highest that anything of a picture is drawn, mm; who draws it cuts it off where it has no room. */
const TALL = 1000;

/** A turning bit: its edges up to their length, and the shank above them. */
export function turnedPicture({ shank, flute }: Bit, profile: Profile, lines: 'spiral' | 'middle'): Picture {
  const { flat, radius, slope } = profile;
  const cone = slope > 0 ? depthForRadius(profile, radius) : 0;
  const top = Math.max(cone, flute);
  const s = shank / 2;
  const turn = 3 * radius;
  return {
    parts: [
      { look: 'shank', points: [[-s, top], [-s, TALL], [s, TALL], [s, top]] }, // prettier-ignore
      { look: 'cutter', points: [[-flat, 0], [flat, 0], [radius, cone], [radius, top], [-radius, top], [-radius, cone]] }, // prettier-ignore
      ...(lines === 'middle'
        ? [{ look: 'line' as const, points: [[0, 0], [0, top]] as const }] // prettier-ignore
        : [0, 1].map((k) => ({ look: 'line' as const, points: [[-radius, k * turn], [radius, (k + 1) * turn]] as const }))), // prettier-ignore
    ],
  };
}
