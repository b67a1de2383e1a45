import type { RunnerState } from './runner-state.ts';

/** What nothing at the machine senses and the operator ticks, in the order of the work. */
export const TICKS = [
  { id: 'warm', text: 'the spindle is warm (about ten minutes where its bearings are greased)' },
  { id: 'pins', text: 'pins up, the stock against them' },
  { id: 'held', text: 'the stock is held, and only then the pins are down' },
  { id: 'plate', text: 'plate and clip are taken away' },
  { id: 'dust', text: 'dust boot on, dust collection on' },
  { id: 'eyes', text: 'hearing and eyes are protected' },
  { id: 'hand', text: 'a hand is at the emergency stop' },
] as const;
export type Tick = (typeof TICKS)[number];

/** What a happening makes open again. */
const OPENED = {
  'board-moved': ['pins', 'held'],
  zero: ['plate'],
  // People step back from a machine that has ended.
  run: ['eyes', 'hand'],
} as const;

export function clearTicks(state: RunnerState, by: keyof typeof OPENED): void {
  for (const step of OPENED[by]) delete state.ticks[step];
}

/** Steps of the list that are not ticked for a job; a warm spindle is warm for every job. */
export function openSteps({ ticks }: RunnerState, job: string): Tick[] {
  return TICKS.filter(({ id }) => !ticks[id] || (id !== 'warm' && ticks[id].job !== job));
}
