import type { Post } from '../../program/post.ts';

/** Seconds the spindle gets to reach its speed. */
const SPINDLE_SECONDS = 3;

const CHANGES: Pick<Post, 'tool' | 'alike' | 'begin' | 'end' | 'power' | 'off'> = {
  // Whatever is said to the machine while a bit is changed, the program goes on in its own modes.
  tool: ({ number, name, turns }, modes, before) => [
    ...(before ? [{ line: 'M5' }] : []),
    { say: `bit ${number}: ${name}${turns ? '' : ', which does not turn: spindle off'}` },
    { line: `T${number} M6` },
    { line: modes },
  ],
  alike: (a, b) => a.turns === b.turns && (!a.turns || a.speed === b.speed),
  // A spindle turns from cut to cut.
  begin: () => [],
  end: () => [],
  power: () => undefined,
  off: () => [{ line: 'M5' }],
};

/** A spindle that the program starts. */
export const BY_PROGRAM: Post = {
  ...CHANGES,
  set: ({ speed, turns }) =>
    turns ? [{ line: `S${speed} M3` }, { line: `G4 P${SPINDLE_SECONDS}` }] : [{ line: 'M5' }],
  setSeconds: ({ turns }) => (turns ? SPINDLE_SECONDS : 0),
};

/** A spindle that its operator switches: the program says so, and waits. */
export const BY_OPERATOR: Post = {
  ...CHANGES,
  set: ({ speed, turns }) => [
    { say: turns ? `start the spindle at ${speed} rpm` : 'leave the spindle off: this tool does not turn' },
    { line: 'M0' },
  ],
  setSeconds: () => 0,
};
