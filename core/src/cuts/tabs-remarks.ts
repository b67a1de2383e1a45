import type { BaseCut } from '../document/cut.ts';
import { thickest } from '../stock/stock.ts';
import type { ProfileFacts } from './profile/facts.ts';
import type { Tabs } from './fields/tabs.ts';
import { type JudgedCut, type Remark, setCut } from './remark.ts';
import { usualTabs } from './usual-tabs.ts';

/** How many of the tabs asked for are missing, each loop of an outline having its own. */
export const tabsMissing = (
  asked: Tabs,
  made: { tabs: readonly unknown[]; starts: readonly unknown[]; heldBy?: HeldBy },
): number => (made.heldBy ? 0 : Math.max(0, (asked.at.length || asked.count * made.starts.length) - made.tabs.length));

/** The sentence of a cut made without a job. */
export const missingWords = (missing: number): string[] =>
  missing > 0
    ? [`${missing} of the tabs have no place where they would stand, and are left out; make them shorter or fewer.`]
    : [];

type HeldBy = ProfileFacts['heldBy'];

/** Why tabs that were asked for do not stand. */
const NOT_NEEDED: Record<NonNullable<HeldBy>, string> = {
  skin: 'the skin holds the part all round',
  stock: 'the cut does not go through the stock, which holds the part',
};

/** The sentence of a cut whose tabs are not needed. */
export const notNeededWords = (heldBy: HeldBy): string[] =>
  heldBy
    ? [`The tabs are left out: ${NOT_NEEDED[heldBy]}. They stand all the same if asked for with --tabs-anyway.`]
    : [];

/** Tabs that are left out since something else holds the part. */
export function judgeNotNeeded<C extends BaseCut & { tabs: Tabs }>(
  { cut, index }: JudgedCut<C>,
  heldBy: HeldBy,
): Remark[] {
  if (!heldBy) return [];
  return [
    {
      id: `tabs-not-needed-${cut.id}`,
      stop: 'cuts',
      cut: cut.id,
      weight: 'advice',
      text: `The tabs are left out: ${NOT_NEEDED[heldBy]}.`,
      remedies: [
        { label: 'Let them stand all the same', patch: setCut(index, { tabs: { ...cut.tabs, anyway: true } }) },
        { label: 'Ask for none', patch: setCut(index, { tabs: { ...cut.tabs, at: [], count: 0 } }) },
      ],
    },
  ];
}

/** Tabs that find no place. */
export function judgeMissing<C extends BaseCut & { tabs: Tabs }>({ cut, index, result }: JudgedCut<C>): Remark[] {
  const missing = result.tabsMissing;
  if (missing === 0) return [];
  return [
    {
      id: `fewer-tabs-${cut.id}`,
      stop: 'cuts',
      cut: cut.id,
      weight: 'advice',
      text: `${missing === 1 ? 'One of the tabs has' : `${missing} of the tabs have`} no place where ${missing === 1 ? 'it' : 'they'} would stand, and ${result.tabs.length === 0 ? 'none is left' : `only ${result.tabs.length} hold the part`}.`,
      remedies: [
        {
          label: 'Make them half as long',
          patch: setCut(index, { tabs: { ...cut.tabs, length: cut.tabs.length / 2 } }),
        },
      ],
    },
  ];
}

/** A part that would come loose, for it is cut right through and nothing holds it. */
export function judgeLoose<C extends BaseCut & { tabs: Tabs; depth: number; skin: number }>(
  judged: JudgedCut<C>,
): Remark[] {
  const { job, cut, index, result } = judged;
  const { stock } = job;
  const through = cut.depth > thickest(stock) - 0.2;
  if (!through || result.tabs.length > 0 || cut.skin > 0 || stock.holdDown === 'tape') return [];
  return [
    {
      id: `tabs-${cut.id}`,
      stop: 'cuts',
      cut: cut.id,
      weight: 'wrong',
      text: 'Nothing holds the part once it is cut free: it has no tabs, and the stock is not taped down.',
      remedies: [
        {
          label: 'Add 4 tabs',
          patch: setCut(index, {
            tabs: { ...cut.tabs, at: [], count: 4, ...usualTabs(thickest(stock)) },
          }),
        },
        { label: 'Hold it with tape', patch: [{ op: 'replace', path: '/stock/holdDown', value: 'tape' }] },
      ],
    },
  ];
}
