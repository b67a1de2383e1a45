import type { Cut } from '../document/cut.ts';
import { drillKind } from './drill/kind.ts';
import { inlayKind } from './inlay/kind.ts';
import type { CutKind } from './kind.ts';
import { pocketKind } from './pocket/kind.ts';
import { profileKind } from './profile/kind.ts';
import { vCarveKind } from './v-carve/kind.ts';

/** The kinds of cut there are. */
export const CUT_KINDS: { [K in Cut['kind']]: CutKind<Extract<Cut, { kind: K }>> } = {
  'v-carve': vCarveKind,
  profile: profileKind,
  pocket: pocketKind,
  drill: drillKind,
  inlay: inlayKind,
};

/** The kind of a cut. @example kindOf({ kind: 'drill' }).verb // 'Drill' */
export function kindOf<C extends Cut>(cut: Pick<C, 'kind'>): CutKind<C> {
  return CUT_KINDS[cut.kind] as unknown as CutKind<C>;
}
