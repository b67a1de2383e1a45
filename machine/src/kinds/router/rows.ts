import { ALWAYS, LINK, NOT_NOW, runs, type StateRow, task } from '../../runner/table-row.ts';
import type { KindAdds } from '../kind-adds.ts';
import type { ROUTER_STATES } from './names.ts';

const HANDS: Pick<StateRow, 'moves' | 'else' | 'refuses' | 'hands' | 'run'> = {
  moves: 'nothing',
  else: 'bit-change',
  refuses: NOT_NOW,
  hands: true,
  run: true,
};
/** The usual way to make the spindle safe is the emergency stop. */
const MADE_SAFE = {
  ...LINK,
  'machine-alarm': 'changing-released',
  'machine-emergency': 'changing-safe',
  'machine-unhomed': 'alarm',
  'count-lost': 'left',
} as const;

/** A router's own states: feeling for plate and setter, and changing a bit in a run. */
export const ROUTER_ROWS: Record<(typeof ROUTER_STATES)[number], StateRow> = {
  zeroing: task('finding zero', 'around', 'held:zeroing', { 'probe-begins': 'touching' }),
  touching: task('feeling for the plate', 'probe', 'held:touching', { 'probe-ends': 'zeroing' }),
  measuring: task('measuring the bit', 'around', 'held:measuring', { 'probe-begins': 'bit-touching' }),
  'bit-touching': task('feeling for the setter', 'probe', 'held:bit-touching', { 'probe-ends': 'measuring' }),
  'run-measuring': runs('measuring for a bit change', 'around', 'held:run-measuring', {
    'probe-begins': 'run-touching',
    'change-begins': 'changing',
    'bit-doubted': 'asking',
    'cutting-begins': 'running',
  }),
  'run-touching': runs('feeling for the setter', 'probe', 'held:run-touching', { 'probe-ends': 'run-measuring' }),
  changing: {
    ...HANDS,
    says: 'waiting for a bit; hands may be at the collet',
    takes: { ...ALWAYS, hold: 'same', 'bit-changed': 'run-measuring', stop: 'stopping' },
    events: MADE_SAFE,
    stands: true,
  },
  'changing-safe': {
    ...HANDS,
    says: 'waiting for a bit, made safe by the emergency stop',
    takes: { ...ALWAYS, hold: 'same', stop: 'emergency' },
    refuses: { ...NOT_NOW, 'bit-changed': 'release-first', clear: 'emergency' },
    events: { ...LINK, 'machine-released': 'changing-released', 'machine-unhomed': 'emergency' },
    stopped: 'pressed',
  },
  'changing-released': {
    ...HANDS,
    says: 'waiting for a bit; the emergency stop is released and not cleared',
    takes: { ...ALWAYS, hold: 'same', clear: 'same', stop: 'alarm' },
    refuses: { ...NOT_NOW, 'bit-changed': 'clear-first' },
    events: {
      ...LINK,
      'machine-emergency': 'changing-safe',
      'machine-alarm': 'changing-released',
      'machine-cleared': 'changing',
      'machine-cleared-unhomed': 'alarm',
      'machine-unhomed': 'alarm',
    },
    stands: true,
    stopped: 'released',
  },
  asking: {
    ...HANDS,
    says: 'asking whether the right bit is in; hands may be at the collet',
    takes: {
      ...ALWAYS,
      hold: 'same',
      'bit-is-right': 'run-measuring',
      'bit-changed': 'run-measuring',
      stop: 'stopping',
    },
    events: MADE_SAFE,
    stands: true,
  },
};

/** What a router adds to the rows of every bench. */
export const ROUTER_ADDS: KindAdds = {
  standing: { 'bit-in': 'same' },
  ready: { zero: 'zeroing', 'zero-here': 'going', 'nudge-zero': 'going', measure: 'measuring' },
  running: { 'change-asked': 'run-measuring' },
};
