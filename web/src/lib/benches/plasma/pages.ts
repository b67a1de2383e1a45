import { plasmaState } from '@kerbe/machine/kinds/plasma/messages';
import type { BenchPages } from '../bench-pages';
import AtSetup from './AtSetup.svelte';
import InRun from './InRun.svelte';
import Hands from './StandInHands.svelte';
import { plasmaList } from './setup-list';
import WindowView from './WindowView.svelte';

/** The pages of a plasma table. */
export const plasmaPages: BenchPages = {
  called: 'plasma table',
  list: plasmaList,
  AtSetup,
  InRun,
  afterwards: 'Torch power off; what is cut stays hot for a while. Clamp off, unload, dress the edges.',
  Hands,
  Window: WindowView,
  overrides: () => [],
  on: (_, { machine }) => {
    const arc = plasmaState(machine)?.arc ?? 'off';
    return arc === 'on' ? 'arc on' : arc === 'igniting' ? 'arc is being struck' : 'arc off';
  },
};
