import { feed, length, speed } from '../fields/quantity-field.ts';

/** What every turning bit has besides what every tool has. */
export const TURNED = {
  /** Length of the cutting edges. */
  flute: length('cutting length', { above: 0, max: 300 }),
};

/** What a turning bit is set to in a material. */
export const TURNED_PRESET = {
  feed: feed('feed', { above: 0, max: 50_000 }),
  plunge: feed('plunge', { above: 0, max: 50_000 }),
  speed: speed('speed', { min: 0, max: 100_000 }),
  depthPerPass: length('a pass', { above: 0, max: 100 }),
};
