import type { Driver } from './driver.ts';
import { laserDriver } from './laser/driver.ts';
import { plasmaDriver } from './plasma/driver.ts';
import { routerDriver } from './router/driver.ts';

/** How each kind of machine is led, by the kind of its bench; each knows what its own controller tells. */
const DRIVERS: Record<string, unknown> = { router: routerDriver, plasma: plasmaDriver, laser: laserDriver };

/** The driver of a kind of machine. @throws {Error} for a kind that nobody has written one for. */
export function driverOf(kind: string): Driver {
  const driver = Object.hasOwn(DRIVERS, kind) ? DRIVERS[kind] : undefined;
  if (!driver) throw new Error(`Kerbe cannot drive a machine of the kind “${kind}”; carry its programs over by hand.`);
  return driver as Driver;
}
