import { formatLength } from '@kerbe/core/quantity/format';
import { gaugeOf } from '@kerbe/core/quantity/gauge';
import { clockTime } from '../../clock-time.ts';
import type { BenchPages } from '../bench-pages';

/** A plasma table's list at Set-up, in the order of the work. */
export const plasmaList: BenchPages['list'] = ({ job, tool, common, state }) => {
  const said = state?.bit;
  const thick = Math.max(...job.stock.corners);
  const gauge = gaugeOf(thick);
  return [
    common.on,
    common.home,
    {
      id: 'sheet',
      text: `${job.stock.material}, ${formatLength(thick, job.unit, 2)}${gauge ? ` (${gauge} gauge)` : ''}, flat on the grate, nothing under it that burns`,
    },
    { id: 'clamp', text: 'Work clamp on clean metal of the sheet' },
    {
      id: 'nozzle',
      text: `${tool?.name ?? 'The nozzle'} in the torch, its power off`,
      rests:
        state &&
        (said && said.id === tool?.id
          ? { word: `said ${clockTime(said.at)}`, good: true }
          : { word: said ? `${said.name} was said` : 'not known', good: false }),
    },
    common.zero,
    { id: 'fume', text: 'Water or downdraught on; nobody breathes the fume' },
    { id: 'around', text: 'Gone round with the pointer: the parts lie on the sheet' },
    { id: 'shade', text: 'Eyes shaded, skin covered, hearing protected, also of those who look on' },
    { id: 'fire', text: 'Nothing near that burns; what puts it out is at hand' },
    { id: 'stay', text: 'Somebody stays until it has cooled, a hand at the emergency stop' },
  ];
};
