import type { VCarving } from './v-carve.ts';

/** What a carving leaves. */
export type VCarveFacts = Omit<VCarving, 'path' | 'passes'>;

/** Less axis than this, mm, that the tip cannot enter, and less floor, mm², is not worth a word. */
export const NARROW_WORTH_SAYING = 0.5;
export const FLOOR_WORTH_SAYING = 1;
