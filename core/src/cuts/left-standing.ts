import type { Loops } from '../geometry/clipper.ts';
import type { SheetMark } from './kind.ts';

/** What no bit reaches, on the sheet. */
export const leftStanding = (loops: Loops = []): SheetMark[] =>
  loops.length === 0
    ? []
    : [
        {
          look: { tone: 'signal', fill: 'solid', strength: 0.75 },
          word: 'left standing',
          always: false,
          outlines: loops.map((points) => ({ points, closed: true })),
          circles: [],
        },
      ];
