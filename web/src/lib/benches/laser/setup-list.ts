import { formatLength } from '@kerbe/core/quantity/format';
import { laserOf, SOURCES } from '@kerbe/core/machines/laser/bench';
import { ofKinds } from '@kerbe/core/tools/kinds';
import type { Beam } from '@kerbe/core/tools/beam/fields';
import { clockTime } from '../../clock-time.ts';
import type { BenchPages } from '../bench-pages';

/** A laser's list at Set-up, in the order of the work. */
export const laserList: BenchPages['list'] = ({ job, tool, common, state }) => {
  const said = state?.bit;
  const thick = Math.max(...job.stock.corners);
  const { source, exhaust } = laserOf(job.bench);
  const [beam] = ofKinds<Beam>(tool ? [tool] : [], ['beam']);
  const focused = state?.zero?.z;
  return [
    common.on,
    common.home,
    { id: 'material', text: `${job.stock.material}: what it is is known, and it is no PVC` },
    { id: 'stock', text: `${formatLength(thick, job.unit, 2)} thick, flat and still, on pins or a comb where it is cut through` }, // prettier-ignore
    {
      id: 'beam',
      text: `${tool?.name ?? 'The beam'} in the head`,
      rests:
        state &&
        (said && said.id === tool?.id
          ? { word: `said ${clockTime(said.at)}`, good: true }
          : { word: said ? `${said.name} was said` : 'not known', good: false }),
    },
    common.zero,
    {
      id: 'focus',
      text: `Lens ${beam ? formatLength(beam.focus, job.unit, 1) : 'at its focus'} over the stock, by the gauge`,
      rests: state && (focused && !focused.void ? { word: `said ${clockTime(focused.at)}`, good: true } : { word: 'not known', good: false }), // prettier-ignore
    },
    { id: 'framed', text: 'Gone round with the pointer: the work lies on the stock' },
    { id: 'exhaust', text: exhaust ? 'Exhaust on and drawing, its smoke led where nobody breathes it' : 'Smoke drawn off to where nobody breathes it: this bench has no exhaust of its own' }, // prettier-ignore
    { id: 'air', text: 'Air blows where the job asks for it' },
    { id: 'eyes', text: `Lid closed, or goggles made for ${SOURCES[source].toLocaleString('en')} nm (IEC 60825-1), also for those who look on` }, // prettier-ignore
    { id: 'fire', text: 'What puts a fire out at hand; nothing near that burns' },
    { id: 'stay', text: 'Somebody stays and watches until it has ended, a hand at the emergency stop' },
  ];
};
