import { chosenOf } from '../document/targets.ts';
import type { BaseCut } from '../document/cut.ts';
import { lengthOf } from '../geometry/outline.ts';
import { formatLength } from '../quantity/format.ts';
import type { Tabs } from './fields/tabs.ts';
import { type JudgedCut, type Remark, setCut } from './remark.ts';

/** Shortest and longest of usual tabs, and their usual height, mm. */
const LENGTH = { least: 2, most: 8 };
const HEIGHT = 3;
/** Tabs that take more of the way round than this hold more than is needed, and are hard to clean off. */
const MOST_OF_PART = 1 / 4;

/**
 * Usual tabs of stock so thick, mm: as long as it is thick, and a third of that high (common practice: 8 by 3 mm in boards,
 * far smaller ones in thin sheets).
 * @example usualTabs(6) // { length: 6, height: 2 }
 */
export const usualTabs = (thick: number): { length: number; height: number } => ({
  length: Math.min(LENGTH.most, Math.max(LENGTH.least, Math.round(2 * thick) / 2)),
  height: Math.min(HEIGHT, Math.round((20 * thick) / 3) / 20),
});

/** The way round the smallest closed outline of a cut, mm; endless where none is closed. */
function smallestOutline<C extends BaseCut>({ items, cut }: JudgedCut<C>): number {
  let least = Infinity;
  for (const { id, shapes } of items)
    for (const number of chosenOf(cut.targets, id, shapes).numbers)
      for (const outline of shapes[number].outlines) if (outline.closed) least = Math.min(least, lengthOf(outline));
  return least;
}

/** Tabs that are large for the smallest part they hold. */
export function judgeLargeTabs<C extends BaseCut & { tabs: Tabs }>(judged: JudgedCut<C>): Remark[] {
  const { cut, index, job, result } = judged;
  const { count, length, at } = cut.tabs;
  if (result.tabs.length === 0 || at.length > 0) return [];
  const round = smallestOutline(judged);
  if (round === Infinity || count * length <= round * MOST_OF_PART) return [];
  const shorter = Math.max(0.5, Math.floor((2 * round * MOST_OF_PART) / count / 2) / 2);
  if (shorter >= length) return [];
  return [
    {
      id: `large-tabs-${cut.id}`,
      stop: 'cuts',
      cut: cut.id,
      weight: 'advice',
      text: `The smallest outline is ${formatLength(round, job.unit, 0)} all the way round, and ${count === 1 ? 'its tab takes' : `its ${count} tabs take`} ${formatLength(count * length, job.unit)} of that: more than holds a part, and much to clean off.`,
      remedies: [
        {
          label: `Make ${count === 1 ? 'it' : 'them'} ${formatLength(shorter, job.unit)} long`,
          patch: setCut(index, { tabs: { ...cut.tabs, length: shorter } }),
        },
      ],
    },
  ];
}
