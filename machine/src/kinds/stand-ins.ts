import type { StandIn } from './stand-in.ts';
import { startLaser } from './laser/stand-in/spawn.ts';
import { startPlasma } from './plasma/stand-in/spawn.ts';
import { startRouter } from './router/stand-in/spawn.ts';

/** The simulated machine of each kind, by the kind of its bench. */
const STAND_INS: Record<string, StandIn> = { router: startRouter, plasma: startPlasma, laser: startLaser };

/** The simulated machine that ships for a kind. @throws {Error} where there is none. */
export function standInOf({ kind }: { kind: string }): StandIn {
  const found = Object.hasOwn(STAND_INS, kind) ? STAND_INS[kind] : undefined;
  if (!found) throw new Error(`There is no simulated machine of the kind “${kind}”; leave its bench without a link.`);
  return found;
}
