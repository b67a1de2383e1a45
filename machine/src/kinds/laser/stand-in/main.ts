import { Controller } from '../../../stand-in/controller.ts';
import { argument, serve } from '../../../stand-in/serve.ts';
import { HandSchema } from './hands.ts';
import { StandInLaser } from './laser.ts';
import { MadeAsSchema } from './made-as.ts';

// The simulated laser as a process.
const made = argument('made', '');
const as = made ? MadeAsSchema.parse(JSON.parse(made)) : undefined;
const controller = new Controller(
  (tell) => new StandInLaser(tell, Number(argument('seed', '1')), as),
  StandInLaser.HELLO,
);
const { machine } = controller;
await serve(controller, {
  hand: HandSchema,
  does: (hand) => machine.hand(hand),
  look: () => machine.look(),
  piece: () => machine.piece(),
});
