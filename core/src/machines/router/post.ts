import type { Post } from '../../program/post.ts';

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

/** A spindle that the program starts, with the seconds it gets to reach its speed. */
export const byProgram = (seconds: number): Post => ({
  ...CHANGES,
  set: ({ speed, turns }) =>
    turns ? [{ line: `S${speed} M3` }, ...(seconds > 0 ? [{ line: `G4 P${seconds}` }] : [])] : [{ line: 'M5' }],
  setSeconds: ({ turns }) => (turns ? seconds : 0),
});

/** A spindle that its operator switches: the program says so, and waits. */
export const BY_OPERATOR: Post = {
  ...CHANGES,
  set: ({ speed, turns }) => [
    { say: turns ? `start the spindle at ${speed} rpm` : 'leave the spindle off: this tool does not turn' },
    { line: 'M0' },
  ],
  setSeconds: () => 0,
};
