import type { BaseCut } from '../document/cut.ts';
import type { CutKind, FreshFrom } from './kind.ts';

/** What else a new cut begins with. */
export interface UsualDrive {
  feed: number;
  plunge: number;
  speed: number;
}

/** A new cut of a kind with a bit; fields that are not said here have their usual values. */
export function freshCut<C extends BaseCut>(
  name: C['kind'],
  kind: CutKind<C>,
  id: string,
  from: FreshFrom & UsualDrive,
): BaseCut & Record<string, unknown> {
  const { bit, feed, plunge, speed, depthPerPass } = from;
  const usual = { feed, plunge, speed, depthPerPass, ...kind.fresh(from) };
  const own = Object.entries(usual).filter(([key]) => key in kind.fields);
  return { id, kind: name, targets: [], bit: bit.id, ...Object.fromEntries(own) };
}
