import { Controller } from '../../../stand-in/controller.ts';
import { argument, serve } from '../../../stand-in/serve.ts';
import { HandSchema } from './hands.ts';
import { MadeAsSchema } from './made-as.ts';
import { StandInRouter } from './router.ts';
import { pieceSeen } from './seen.ts';

// The simulated router as a process.
const made = argument('made', '');
const as = made ? MadeAsSchema.parse(JSON.parse(made)) : undefined;
const controller = new Controller(
  (tell) => new StandInRouter(tell, Number(argument('seed', '1')), as),
  StandInRouter.HELLO,
);
const { machine } = controller;
await serve(controller, {
  hand: HandSchema,
  does: (hand) => machine.hand(hand),
  look: () => machine.look(),
  piece: () => pieceSeen(machine.table),
});
