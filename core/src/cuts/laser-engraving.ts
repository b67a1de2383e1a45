import { radians } from '../quantity/units.ts';
import type { BaseCut } from '../document/cut.ts';
import type { Job } from '../document/job.ts';
import type { Path } from '../motion/path.ts';
import type { Beam, BeamSettings } from '../tools/beam/fields.ts';
import type { Scanning } from '../ways/scan-rows.ts';
import { type CutPart, cutPart } from './cut-part.ts';
import { type Burning, WITHOUT_A_SPINDLE } from './fields/burning.ts';
import type { Scans } from './fields/scanning.ts';
import type { Figure } from './kind.ts';
import { judgeSettings } from './laser-settings.ts';
import { judgeLines, sensibleLines } from './line-density.ts';
import type { JudgedCut } from './remark.ts';

type Engraving = BaseCut & Burning & Scans;

/** What a new one is set to where its beam has no settings. */
const USUAL = { fillPower: 40, fillFeed: 6000, fillLines: 0 };

type Set = Pick<BeamSettings, keyof typeof USUAL>;
const set = ({ fillPower, fillFeed, fillLines }: Set) => ({
  power: fillPower,
  feed: fillFeed,
  ...(fillLines > 0 ? { lines: fillLines } : {}),
});

/** What kinds share that burn a surface by lines side by side. */
export const LASER_ENGRAVING = {
  without: {
    ...WITHOUT_A_SPINDLE,
    'no-air': 'Surfaces are burnt without air unless --air is said; leave --no-air out.',
  },
  tool: 'beam:0.1',
  bits: ['beam'],
  carves: true,
  fresh: ({ bit, preset }: { bit: Beam; preset?: unknown }) => ({
    lines: sensibleLines(bit.diameter),
    ...set((preset as BeamSettings | undefined) ?? USUAL),
  }),
  fromPreset: (_: unknown, preset: BeamSettings) => set(preset),
  toPreset: ({ power, feed, lines }: Burning & Scans, { diameter }: Beam) => ({
    fillPower: power,
    fillFeed: feed,
    fillLines: lines === sensibleLines(diameter) ? 0 : lines,
  }),
  fromBit: ({ diameter }: Beam) => ({ lines: sensibleLines(diameter) }),
  toBench,
  goDeep: () => ({}),
  takenAtOnce: () => 0,
} as const;

/** A cut that is told earlier than the bench says is right, so the beam comes so much later. */
function toBench({ earlier }: Scans, { bench, cuts }: Job) {
  if (earlier === 0) return undefined;
  const lag = Math.round(((bench.lag ?? 0) + earlier / 1000) * 1e6) / 1e6;
  if (lag < 0 || lag > 0.1) return undefined;
  const others = cuts.flatMap((cut, k) => {
    const other = (cut as Partial<Scans>).earlier;
    return other === undefined ? [] : [{ op: 'replace' as const, path: `/cuts/${k}/earlier`, value: Math.round((other - earlier) * 1000) / 1000 }]; // prettier-ignore
  });
  return {
    says: `Keep ${Math.round(lag * 1e5) / 100} ms as how late the beam of ${bench.name} comes`,
    lag,
    patch: [{ op: 'add' as const, path: '/bench/lag', value: lag }, ...others],
  };
}

/** The figure of a kind that burns by lines. */
export const engravingFigure = (caption: string): Figure => ({
  art: '<path d="M8 5H52V25H8Z"/>',
  bits: [{ id: 'beam', kind: 'beam', diameter: 0.6, shank: 30, focus: 40 }],
  fields: { power: 40, feed: 6000, lines: 1.5 },
  caption,
});

/** How the lines of a cut are gone along on a job's bench. */
export const scanningOf = (
  { bench: { limits, lag = 0 } }: Job,
  { angle, feed, ways, earlier }: Scans & Burning,
): Scanning => ({
  angle: radians(angle),
  feed,
  bothWays: ways === 'both',
  limits,
  lag: lag + earlier / 1000,
});

/** The part that such lines come to. */
export const engravedPart = <F>(cut: Engraving, rank: number, path: Path, facts: F): CutPart<F>[] => [
  cutPart({ ...cut, plunge: 0, speed: 0 }, rank, { path, facts, flat: true, power: cut.power / 100, air: cut.air }),
];

/** Whether the beam has settings for the stock, and its spot suits the lines. */
export const judgeEngraving = <C extends Engraving, F>(judged: JudgedCut<C, F, Beam>) => [
  ...judgeSettings(judged),
  ...judgeLines(judged),
];
