import type { BenchKind, Need } from '../bench-kind.ts';
import { POINTING_COMMANDS } from '../pointing/names.ts';
import { cornerPointed } from '../pointing/needs.ts';
import { laserFacts, laserFactsOf } from './facts.ts';
import { laserState } from './messages.ts';
import { LASER_COMMANDS } from './names.ts';

const beamOff: Need = {
  id: 'beam-off',
  missing: ({ machine }) => ((laserState(machine)?.beam ?? 0) > 0 ? 'beam-on' : undefined),
};
const lidClosed: Need = {
  id: 'lid-closed',
  missing: ({ machine }) => (laserState(machine)?.lid === 'open' ? 'lid-open' : undefined),
};
const armed: Need = {
  id: 'armed-at-the-machine',
  missing: ({ machine }) => (laserState(machine)?.armed === false ? 'not-armed' : undefined),
};
const beamSaid: Need = { id: 'beam-said', missing: ({ bit }) => (bit ? undefined : 'no-beam') };
const pointerThere: Need = {
  id: 'pointer-there',
  missing: ({ facts }) => (facts && laserFacts(facts).spot ? undefined : 'no-pointer'),
};

/** What is known of a laser's bench wherever it is spoken of. */
export const laserBench: BenchKind = {
  factsOf: laserFactsOf,
  basisOf: () => ({}),
  switchedOnBy: () => 'program',
  commands: [...POINTING_COMMANDS, ...LASER_COMMANDS],
  needs: {
    home: [beamOff],
    step: [beamOff],
    jog: [beamOff],
    resume: [lidClosed, armed],
    'point-zero': [pointerThere, beamSaid, beamOff],
    'point-edge': [pointerThere, cornerPointed, beamOff],
    focused: [beamSaid, beamOff],
    'go-to-zero': [beamOff],
    run: [beamSaid, lidClosed, armed],
    'take-up': [beamSaid, lidClosed, armed],
  },
  ticks: [
    { id: 'material', text: 'the material is known, and is no PVC or other plastic with chlorine', dry: true },
    { id: 'stock', text: 'the stock lies flat and still, on pins or a comb where it is cut through', dry: true },
    { id: 'framed', text: 'the pointer has gone round the work, and it lies on the stock' },
    { id: 'exhaust', text: 'the exhaust is on and draws, and leads where nobody breathes it' },
    { id: 'air', text: 'air blows where the job asks for it' },
    { id: 'eyes', text: 'eyes are safe from this wavelength (IEC 60825-1): the lid closed, or goggles that are made for it, also for those who look on' }, // prettier-ignore
    { id: 'fire', text: 'what puts a fire out is at hand, and nothing near can catch fire' },
    { id: 'stay', text: 'somebody stays and watches until it has ended, with a hand at the emergency stop' },
  ],
  opened: {
    'board-moved': ['material', 'stock', 'framed'],
    zero: ['framed'],
    // People step back from a machine that has ended.
    run: ['eyes', 'stay'],
  },
  takenUp: 'line',
  findings({ cuts }) {
    return new Set(cuts.map(({ bit }) => bit.id)).size < 2
      ? []
      : ['A laser has one beam in a run; make one program for each beam.'];
  },
};
