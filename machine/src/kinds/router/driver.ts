import { CommandRefused } from '../../runner/reasons.ts';
import { toolAt } from '../../runner/tool-at.ts';
import type { Driver } from '../driver.ts';
import { changeBit } from './bit-change.ts';
import { routerFacts } from './facts.ts';
import { RouterMessageSchema, type RouterState } from './messages.ts';
import { goToZero, home } from '../usual-moves.ts';
import { enterAt, liftOut, spindleOff } from './procedures.ts';
import { bitIn, findZero, measureIt, nudgeZero, zeroHere } from './zero-by-plate.ts';

/** How a router is led. */
export const routerDriver: Driver<RouterState> = {
  message: RouterMessageSchema,
  greet: (wire, facts) => wire.control(`watch ${routerFacts(facts).spindleAfter}`),
  noted(state, machine) {
    if (machine.touching) state.circuit = new Date().toISOString();
  },
  live: ({ spindle }) => spindle > 0,
  plain(wire) {
    wire.control('feed 100');
    wire.control('spindle 100');
  },
  home,
  goToZero,
  leaveWork: liftOut,
  switchOff: spindleOff,
  askBeforeEntering: ({ prompted, line }, order) =>
    order.switchedOnBy === 'operator' && prompted && toolAt(order, line).turns
      ? 'Switch the spindle on at this bit’s speed; then confirm.'
      : undefined,
  enterAt: (wire, { modes, spindle }, { approach }, plunge, signal) =>
    enterAt(wire, { at: modes.at, spindle, plunge, approach }, signal),
  changeTool: changeBit,
  own(command, from, at) {
    switch (command.command) {
      case 'bit-in':
        return bitIn(command.bit, from, at);
      case 'spindle':
        return at.control(`spindle ${command.percent}`);
      case 'bit-changed':
      case 'bit-is-right':
        return at.answer();
      case 'zero':
        return at.begin('Setting zero', (wire, signal) => findZero(wire, command, from, at, signal));
      case 'zero-here':
        if (command.method === 'stop' && !routerFacts(at.facts).stop) throw new CommandRefused('no-stop');
        return at.begin('Setting zero', (wire, signal) => zeroHere(wire, command, from, at, signal));
      case 'nudge-zero':
        return at.begin('Moving zero', (wire, signal) => nudgeZero(wire, command.z, at, signal));
      case 'measure':
        return at.begin('Measuring the bit', (wire, signal) => measureIt(wire, at, signal));
    }
  },
};
