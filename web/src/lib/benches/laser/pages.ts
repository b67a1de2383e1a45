import { laserState } from '@kerbe/machine/kinds/laser/messages';
import type { BenchPages } from '../bench-pages';
import AtSetup from './AtSetup.svelte';
import InRun from './InRun.svelte';
import { laserList } from './setup-list';
import Smoke from './Smoke.svelte';
import Hands from './StandInHands.svelte';
import WindowView from './WindowView.svelte';

/** The pages of a laser. */
export const laserPages: BenchPages = {
  called: 'laser',
  list: laserList,
  AtSetup,
  InRun,
  afterwards: 'Key off, the smoke drawn off, then unload; what is cut may still glow.',
  After: Smoke,
  Hands,
  Window: WindowView,
  overrides: () => [],
  on: (_, { machine }) => {
    const laser = laserState(machine);
    return (laser?.beam ?? 0) > 0 ? `beam ${Math.round(100 * laser!.beam)} %` : 'beam off';
  },
};
