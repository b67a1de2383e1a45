import type { KindAdds } from '../kind-adds.ts';

/** What a laser adds to the rows of every bench. */
export const LASER_ADDS: KindAdds = { standing: { 'beam-in': 'same' }, ready: { focused: 'same' }, running: {} };
