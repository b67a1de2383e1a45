import { dialectOf, routerOf } from '@kerbe/core/machines/router/bench';
import type { BenchKind, Need } from '../bench-kind.ts';
import type { BenchFacts } from '../../runner/bench-facts.ts';
import type { BitShape } from '../../runner/zero.ts';
import { type RouterFacts, routerFacts, routerFactsOf } from './facts.ts';
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
  // Once there is a zero: one found by hand may have come after one for which the plate was laid.
  missing: ({ ticks, zero }) => (ticks.plate || !zero ? undefined : 'plate-there'),
};
const bitConducts: Need = {
  id: 'bit-conducts',
  missing: ({ bit }) => (bit?.conducts === false ? 'bit-insulates' : undefined),
};
/** Whether a setter moves before a spring gives. */
const measurable = ({ spring }: Pick<BitShape, 'spring'>, facts: BenchFacts): boolean => {
  const force = routerFacts(facts).setter?.force;
  return !spring || (force != null && force < spring.force);
};
const setterSoft: Need = {
  id: 'setter-softer-than-spring',
  missing: ({ bit, facts }) => (bit && facts && !measurable(bit, facts) ? 'setter-too-hard' : undefined),
};
const setter: Need = {
  id: 'setter',
  missing: ({ facts }) => (facts && routerFacts(facts).setter ? undefined : 'no-setter'),
};

/** What a bench has of what its list asks for; its facts and its document have the same names for it. */
const accessories = (bench: { kind: string }) => bench as unknown as Pick<RouterFacts, 'pins' | 'warmUp' | 'dustBoot'>;

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
    zero: [bitSaid, bitConducts, spindleStanding, circuitOpen, circuitTried],
    'zero-here': [bitSaid, spindleStanding, circuitOpen],
    'nudge-zero': [zSet, spindleStanding],
    'go-to-zero': [circuitOpen, plateAway, spindleStanding],
    measure: [setter, bitSaid, setterSoft, circuitOpen, plateAway, spindleStanding],
    run: [circuitOpen, plateAway, spindleStanding, bitSaid],
    'take-up': [circuitOpen, plateAway, spindleStanding, bitSaid],
  },
  ticks: [
    {
      id: 'warm',
      text: 'the spindle is warm',
      everyJob: true,
      only: 'turning',
      where: (bench) => accessories(bench).warmUp > 0,
    },
    { id: 'off', text: 'the spindle is off at its own switch, and stays off: the tool does not turn', only: 'still' },
    {
      id: 'pins',
      text: 'the stock was laid against the pins, and they are down',
      where: (bench) => accessories(bench).pins === 'down',
    },
    { id: 'held', text: 'the stock is held' },
    { id: 'plate', text: 'plate and clip are taken away' },
    {
      id: 'dust',
      text: 'dust boot on, dust collection on',
      only: 'turning',
      where: (bench) => accessories(bench).dustBoot,
    },
    { id: 'eyes', text: 'hearing and eyes are protected' },
    { id: 'hand', text: 'a hand is at the emergency stop' },
  ],
  opened: {
    'board-moved': ['pins', 'held'],
    zero: ['plate'],
    // People step back from a machine that has ended.
    run: ['eyes', 'hand'],
  },
  takenUp: 'line',
  measuredAt: (facts) => routerFacts(facts).setter,
  findings({ cuts }, facts) {
    const bits = new Map(cuts.map(({ bit }) => [bit.id, bit]));
    if (bits.size < 2) return [];
    if (!routerFacts(facts).setter)
      return [
        'This bench has no tool setter to measure a changed bit with; make one program for each bit (a dialect of the bench).',
      ];
    const soft = [...bits.values()].find((bit) => !measurable(bit, facts));
    return soft
      ? [
          `The tool setter of this bench may press harder than the spring of ${soft.name}, so its length cannot be measured in a run; make one program for each bit (a dialect of the bench).`,
        ]
      : [];
  },
};
