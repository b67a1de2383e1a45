import type { BenchKind, Need } from '../bench-kind.ts';
import { POINTING_COMMANDS } from '../pointing/names.ts';
import { cornerPointed } from '../pointing/needs.ts';
import { plasmaFacts, plasmaFactsOf } from './facts.ts';
import { plasmaState } from './messages.ts';
import { PLASMA_COMMANDS } from './names.ts';

const arcOff: Need = {
  id: 'arc-off',
  missing: ({ machine }) => ((plasmaState(machine)?.arc ?? 'off') !== 'off' ? 'arc-burning' : undefined),
};
const arcNotLost: Need = {
  id: 'arc-not-lost',
  missing: ({ machine }) => (plasmaState(machine)?.cutShort ? 'arc-out' : undefined),
};
const nozzleSaid: Need = { id: 'nozzle-said', missing: ({ bit }) => (bit ? undefined : 'no-nozzle') };
const pointerThere: Need = {
  id: 'pointer-there',
  missing: ({ facts }) => (facts && plasmaFacts(facts).pointer ? undefined : 'no-pointer'),
};

/** What is known of a plasma table's bench wherever it is spoken of. */
export const plasmaBench: BenchKind = {
  factsOf: plasmaFactsOf,
  basisOf: () => ({}),
  switchedOnBy: () => 'program',
  commands: [...POINTING_COMMANDS, ...PLASMA_COMMANDS],
  needs: {
    home: [arcOff],
    step: [arcOff],
    jog: [arcOff],
    resume: [arcNotLost],
    'point-zero': [pointerThere, nozzleSaid, arcOff],
    'point-edge': [pointerThere, cornerPointed, arcOff],
    'feel-sheet': [nozzleSaid, arcOff],
    'go-to-zero': [arcOff],
    run: [nozzleSaid, arcOff],
    'take-up': [nozzleSaid, arcOff],
  },
  ticks: [
    { id: 'sheet', text: 'the sheet lies flat on the grate, with nothing under it that burns', dry: true },
    { id: 'clamp', text: 'the work clamp is on clean metal of the sheet' },
    { id: 'fume', text: 'water or downdraught is on, and nobody breathes the fume: coated metals give off poison' },
    { id: 'around', text: 'the pointer has gone round the parts, and they lie on the sheet' },
    { id: 'shade', text: 'eyes are shaded and skin is covered, also of those who look on; hearing is protected' },
    { id: 'fire', text: 'nothing near can catch fire, and what puts it out is at hand' },
    { id: 'stay', text: 'somebody stays until it has ended and cooled, with a hand at the emergency stop' },
  ],
  opened: {
    'board-moved': ['sheet', 'clamp', 'around'],
    zero: ['around'],
    // People step back from a machine that has ended.
    run: ['shade', 'stay'],
  },
  takenUp: 'program',
  leads: (facts) => plasmaFacts(facts).kerfBy === 'controller',
  findings({ cuts }) {
    return new Set(cuts.map(({ bit }) => bit.id)).size < 2
      ? []
      : ['A torch has one nozzle in a run; make one program for each nozzle.'];
  },
};
