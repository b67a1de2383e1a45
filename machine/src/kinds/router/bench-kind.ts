import { dialectOf, routerOf } from '@kerbe/core/machines/router/bench';
import type { BenchKind, Need } from '../bench-kind.ts';
import { routerFacts, routerFactsOf } from './facts.ts';
import { routerState } from './messages.ts';
import { ROUTER_COMMANDS } from './names.ts';

const spindleStanding: Need = {
  id: 'spindle-standing',
  missing: ({ machine }) => ((routerState(machine)?.spindle ?? 0) > 0 ? 'spindle-turning' : undefined),
};
const circuitOpen: Need = {
  id: 'circuit-open',
  missing: ({ machine }) => (routerState(machine)?.touching ? 'circuit-closed' : undefined),
};
const circuitTried: Need = {
  id: 'circuit-tried',
  missing: ({ circuit }) => (circuit ? undefined : 'circuit-untried'),
};
const bitSaid: Need = { id: 'bit-said', missing: ({ bit }) => (bit ? undefined : 'no-bit') };
const zSet: Need = {
  id: 'z-set',
  missing: ({ zero }) => (!zero?.z ? 'no-zero' : zero.z.void ? 'zero-void' : undefined),
};
const plateAway: Need = {
  id: 'plate-away',
  // Only after the plate was in use is there something to take away.
  missing: ({ ticks, zero }) => (ticks.plate || !zero ? undefined : 'plate-there'),
};
const setter: Need = {
  id: 'setter',
  missing: ({ facts }) => (facts && routerFacts(facts).setter ? undefined : 'no-setter'),
};

/** What is known of a router's bench wherever it is spoken of. */
export const routerBench: BenchKind = {
  factsOf: routerFactsOf,
  basisOf: (bench) => ({ plate: routerOf(bench).plate }),
  switchedOnBy: (bench) => dialectOf(routerOf(bench)).spindle,
  commands: ROUTER_COMMANDS,
  needs: {
    home: [spindleStanding],
    step: [spindleStanding],
    jog: [spindleStanding],
    zero: [bitSaid, spindleStanding, circuitOpen, circuitTried],
    'nudge-zero': [zSet, spindleStanding],
    'go-to-zero': [circuitOpen, plateAway, spindleStanding],
    measure: [setter, bitSaid, circuitOpen, plateAway, spindleStanding],
    run: [circuitOpen, plateAway, spindleStanding, bitSaid],
    'take-up': [circuitOpen, plateAway, spindleStanding, bitSaid],
  },
  ticks: [
    { id: 'warm', text: 'the spindle is warm (about ten minutes where its bearings are greased)', everyJob: true },
    { id: 'pins', text: 'pins up, the stock against them' },
    { id: 'held', text: 'the stock is held, and only then the pins are down' },
    { id: 'plate', text: 'plate and clip are taken away' },
    { id: 'dust', text: 'dust boot on, dust collection on' },
    { id: 'eyes', text: 'hearing and eyes are protected' },
    { id: 'hand', text: 'a hand is at the emergency stop' },
  ],
  opened: {
    'board-moved': ['pins', 'held'],
    zero: ['plate'],
    // People step back from a machine that has ended.
    run: ['eyes', 'hand'],
  },
  findings({ cuts }, facts) {
    const bits = new Set(cuts.map(({ bit }) => bit.id));
    if (bits.size < 2 || routerFacts(facts).setter) return [];
    return [
      'This bench has no tool setter to measure a changed bit with; make one program for each bit (a dialect of the bench).',
    ];
  },
};
