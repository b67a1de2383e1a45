import { CommandRefused } from '../../runner/reasons.ts';
import type { Driver } from '../driver.ts';
import { shapeOf } from '../../runner/zero.ts';
import { edgeFree, pointEdge, pointZero, toolSaid } from '../pointing/point.ts';
import { home, MILLIMETRES, word } from '../usual-moves.ts';
import { laserFacts } from './facts.ts';
import { LaserMessageSchema, type LaserState } from './messages.ts';

/** How a laser is led. Its lens stays where it was focused: nothing here moves it up or down. */
export const laserDriver: Driver<LaserState> = {
  message: LaserMessageSchema,
  greet() {},
  noted() {},
  live: ({ beam, ready }) => ready || beam > 0,
  plain: (wire) => wire.control('feed 100'),
  home,
  goToZero: (wire, _, signal) => wire.run(signal, 'M5', MILLIMETRES, 'G0 X0 Y0'),
  leaveWork: (wire, signal) => wire.run(signal, 'M5', 'M9', MILLIMETRES),
  switchOff: (wire, signal) => wire.run(signal, 'M5', 'M9'),
  askBeforeEntering: () => undefined,
  // Over to where that line begins, with the beam off; the first move says its power.
  async enterAt(wire, { modes, turnedBy, relay }, _, __, signal) {
    await wire.run(signal, 'M5', MILLIMETRES, `G0 X${word(modes.at.x)} Y${word(modes.at.y)}`, relay ?? 'M9');
    if (turnedBy) await wire.run(signal, `${turnedBy} S0`);
  },
  powerInMoves: true,
  changeTool() {
    throw new CommandRefused('other-bit', 'A laser has one beam in a run; make one program for each beam.');
  },
  own(command, from, at) {
    const spot = () => laserFacts(at.facts).spot!;
    switch (command.command) {
      case 'beam-in':
        return toolSaid(command.bit, from, at);
      case 'edge-free':
        return edgeFree(at);
      case 'point-edge':
        return pointEdge(spot(), command.basis, at);
      case 'point-zero':
        return at.begin('Setting zero', (wire, signal) => pointZero(wire, spot(), command.basis, from, at, signal));
      case 'focused': {
        const { state, changed } = at;
        const when = { at: new Date().toISOString(), by: from.name };
        state.origin = { x: 0, y: 0, ...state.origin, z: 0 };
        state.zero = { ...state.zero, z: { ...when, method: 'gauge', bit: shapeOf(state.bit!), basis: command.basis } };
        return changed();
      }
    }
  },
};
