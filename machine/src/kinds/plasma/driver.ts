import { CommandRefused } from '../../runner/reasons.ts';
import type { Driver } from '../driver.ts';
import { goToZero, home, MILLIMETRES, word } from '../usual-moves.ts';
import { edgeFree, pointEdge, pointZero, toolSaid } from '../pointing/point.ts';
import { plasmaFacts } from './facts.ts';
import { feelSheet } from './find-sheet.ts';
import { PlasmaMessageSchema, type PlasmaState } from './messages.ts';

/** How a plasma table is led. */
export const plasmaDriver: Driver<PlasmaState> = {
  message: PlasmaMessageSchema,
  greet() {},
  noted() {},
  wentOutAt: ({ cutShort, lost }) => (cutShort && lost ? lost : undefined),
  live: ({ arc }) => arc !== 'off',
  plain: (wire) => wire.control('feed 100'),
  home,
  goToZero,
  // The arc is out before anything moves.
  leaveWork: (wire, signal) => wire.run(signal, 'M5', MILLIMETRES, 'G92.1', 'G53 G0 Z0'),
  switchOff: (wire, signal) => wire.run(signal, 'M5'),
  askBeforeEntering: () => undefined,
  // Between strokes only: what was being cut is taken up by a program of its own, which pierces in the scrap.
  async enterAt(wire, { modes }, { approach }, _, signal) {
    await wire.run(
      signal,
      MILLIMETRES,
      'G92.1',
      'G53 G0 Z0',
      `G0 X${word(modes.at.x)} Y${word(modes.at.y)}`,
      `G0 Z${word(approach)}`,
    );
  },
  changeTool() {
    throw new CommandRefused('other-bit', 'A torch has one nozzle in a run; make one program for each nozzle.');
  },
  own(command, from, at) {
    switch (command.command) {
      case 'nozzle-in':
        return toolSaid(command.bit, from, at);
      case 'edge-free':
        return edgeFree(at);
      case 'point-edge':
        return pointEdge(plasmaFacts(at.facts).pointer!, command.basis, at);
      case 'point-zero':
        return at.begin('Setting zero', (wire, signal) =>
          pointZero(wire, plasmaFacts(at.facts).pointer!, command.basis, from, at, signal),
        );
      case 'feel-sheet':
        return at.begin('Feeling for the sheet', (wire, signal) => feelSheet(wire, command.basis, from, at, signal));
    }
  },
};
