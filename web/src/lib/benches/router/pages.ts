import { dialectOf, routerOf } from '@kerbe/core/machines/router/bench';
import { routerState } from '@kerbe/machine/kinds/router/messages';
import type { BenchPages } from '../bench-pages';
import AtSetup from './AtSetup.svelte';
import BitChange from './BitChange.svelte';
import Hands from './StandInHands.svelte';
import { routerList } from './setup-list';
import WindowView from './WindowView.svelte';

/** The pages of a router. */
export const routerPages: BenchPages = {
  called: 'router',
  list: routerList,
  AtSetup,
  afterwards: 'Make safe, vacuum off, unload, tabs off, clean up.',
  InRun: BitChange,
  Hands,
  Window: WindowView,
  // Of a tool that does not turn nothing is set.
  overrides: ({ machine, bit }) =>
    bit?.turns === false
      ? []
      : [
          {
            name: 'Spindle',
            less: 'Turn slower',
            more: 'Turn faster',
            now: routerState(machine)?.spindleOverride ?? 100,
            from: 50,
            to: 150,
            command: (percent) => ({ command: 'spindle', percent }),
          },
        ],
  on: (bench, { machine }) =>
    dialectOf(routerOf(bench)).spindle === 'operator'
      ? 'spindle by hand'
      : `${routerState(machine)?.spindle.toLocaleString('en') ?? 0} rpm`,
};
