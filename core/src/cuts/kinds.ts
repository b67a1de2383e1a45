import type { BaseCut } from '../document/cut.ts';
import { dragKind } from './drag/kind.ts';
import { drillKind } from './drill/kind.ts';
import { inlayKind } from './inlay/kind.ts';
import type { CutKind } from './kind.ts';
import { laserCutKind } from './laser-cut/kind.ts';
import { laserFillKind } from './laser-fill/kind.ts';
import { laserPictureKind } from './laser-picture/kind.ts';
import { laserScoreKind } from './laser-score/kind.ts';
import { lineKind } from './line/kind.ts';
import { plasmaKind } from './plasma/kind.ts';
import { pocketKind } from './pocket/kind.ts';
import { profileKind } from './profile/kind.ts';
import { vCarveKind } from './v-carve/kind.ts';

/** The kinds of cut there are, in the order in which they are offered. */
export const CUT_KINDS = {
  'v-carve': vCarveKind,
  pocket: pocketKind,
  profile: profileKind,
  line: lineKind,
  drag: dragKind,
  drill: drillKind,
  inlay: inlayKind,
  plasma: plasmaKind,
  'laser-cut': laserCutKind,
  'laser-score': laserScoreKind,
  'laser-fill': laserFillKind,
  'laser-picture': laserPictureKind,
};

export type CutKindName = keyof typeof CUT_KINDS;

/** A cut of any kind. */
export type Cut = {
  [K in CutKindName]: Parameters<(typeof CUT_KINDS)[K]['rank']>[0];
}[CutKindName];

/** The kind of a cut. @example kindOf({ kind: 'drill' }).verb // 'Drill' */
export function kindOf<C extends BaseCut>(cut: Pick<C, 'kind'>): CutKind<C> {
  return CUT_KINDS[cut.kind as CutKindName] as unknown as CutKind<C>;
}
