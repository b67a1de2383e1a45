import { routerOf } from '@kerbe/core/machines/router/bench';
import { clockTime } from '../../clock-time.ts';
import type { BenchPages } from '../bench-pages';

/** A router's list at Set-up, in the order of the work. */
export const routerList: BenchPages['list'] = ({ job, tool, common, state }) => {
  const said = state?.bit;
  return [
    common.on,
    common.home,
    { id: 'warm', text: `Spindle warm: ${routerOf(job.bench).warmUp} minutes at the speeds of its manual` },
    { id: 'off', text: 'Spindle off at its own switch, and left off: the tool does not turn' },
    { id: 'pins', text: 'Pins up, stock against them; down again once it is held' },
    { id: 'held', text: `Stock held by ${job.stock.holdDown}` },
    {
      id: 'bit',
      text: `${tool?.name ?? 'First bit'} in, with the spindle made safe`,
      rests:
        state &&
        (said && said.id === tool?.id
          ? { word: `said ${clockTime(said.at)}`, good: true }
          : { word: said ? `${said.name} was said` : 'not known', good: false }),
    },
    common.zero,
    { id: 'plate', text: 'Plate and clip taken away' },
    { id: 'dust', text: 'Dust boot on, dust collection on' },
    { id: 'eyes', text: 'Hearing and eyes protected' },
    { id: 'hand', text: 'A hand at the emergency stop' },
  ];
};
