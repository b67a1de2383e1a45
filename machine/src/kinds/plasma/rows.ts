import { type StateRow, task } from '../../runner/table-row.ts';
import type { KindAdds } from '../kind-adds.ts';
import type { PLASMA_STATES } from './names.ts';

/** A plasma table's own states: feeling for the sheet. */
export const PLASMA_ROWS: Record<(typeof PLASMA_STATES)[number], StateRow> = {
  'finding-sheet': task('finding the sheet', 'around', 'held:finding-sheet', { 'probe-begins': 'feeling-sheet' }),
  'feeling-sheet': task('feeling for the sheet', 'probe', 'held:feeling-sheet', { 'probe-ends': 'finding-sheet' }),
};

/** What a plasma table adds to the rows of every bench. */
export const PLASMA_ADDS: KindAdds = {
  standing: { 'nozzle-in': 'same' },
  ready: { 'feel-sheet': 'finding-sheet' },
  running: {},
};
