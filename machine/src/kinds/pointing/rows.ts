import type { KindAdds } from '../kind-adds.ts';

/** What a pointer adds to the rows of every bench. */
export const POINTING_ADDS: KindAdds = {
  standing: {},
  ready: { 'point-zero': 'going', 'point-edge': 'same', 'edge-free': 'same' },
  running: {},
};
