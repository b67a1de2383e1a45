import { z } from 'zod';
import { HandSchema as LaserHandSchema } from './laser/stand-in/hands.ts';
import { HandSchema as PlasmaHandSchema } from './plasma/stand-in/hands.ts';
import { HandSchema as RouterHandSchema } from './router/stand-in/hands.ts';

/** What hands do at the simulated machines, whatever kind each is; which of it they understand, each says itself. */
export const HandSchema = z.union([RouterHandSchema, PlasmaHandSchema, LaserHandSchema]);
export type Hand = z.infer<typeof HandSchema>;
