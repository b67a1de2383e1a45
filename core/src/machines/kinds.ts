import type { BaseBench } from '../document/bench.ts';
import type { MachineKind } from './machine-kind.ts';
import { laserKind } from './laser/kind.ts';
import { plasmaKind } from './plasma/kind.ts';
import { routerKind } from './router/kind.ts';

/** The kinds of machine there are. */
export const MACHINE_KINDS = { router: routerKind, plasma: plasmaKind, laser: laserKind };

/** The kind of a bench. @example machineKindOf({ kind: 'router' }).one // 'a router' */
export function machineKindOf<B extends BaseBench>(bench: Pick<B, 'kind'>): MachineKind<B> {
  return MACHINE_KINDS[bench.kind as keyof typeof MACHINE_KINDS] as unknown as MachineKind<B>;
}
