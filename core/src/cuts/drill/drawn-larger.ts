import { roundPlaces } from '../../artwork/round-places.ts';
import { chosenOf } from '../../document/targets.ts';
import type { Target } from '../../document/cut.ts';
import { type JudgedCut, type Remark, type Remedy, setCut } from '../remark.ts';
import { freshCut } from '../fresh-cut.ts';
import { fromJob } from '../from-job.ts';
import { pocketKind } from '../pocket/kind.ts';
import { profileKind } from '../profile/kind.ts';
import { nextSmallerMill } from '../smaller-bit.ts';
import { drawnSizes, drawnWords, SIZE_WORTH_SAYING } from './drawn-sizes.ts';
import type { DrillCut } from './fields.ts';
import type { DrillFacts } from './facts.ts';

/** Circles drawn larger than the bit: cut out or cleared as drawn, if that was meant. */
export function judgeDrawnLarger(judged: JudgedCut<DrillCut, DrillFacts>): Remark[] {
  const { job, cut, index, own: bit, result } = judged;
  const { larger } = drawnSizes(result.facts, bit);
  if (larger.length === 0) return [];
  const mill = nextSmallerMill(job, larger[0]);
  const remedies: Remedy[] = [];
  const { those, rest } = parted(judged, bit.diameter + SIZE_WORTH_SAYING);
  if (mill && mill.flute >= cut.depth && those.length > 0) {
    const through = cut.depth >= Math.min(...job.stock.corners);
    const from = fromJob(job, mill);
    let id = cut.id;
    if (rest.length > 0) for (let n = 2; job.cuts.some((c) => c.id === id); n++) id = `${cut.id}-${n}`;
    const made = through
      ? {
          ...freshCut('profile', profileKind, id, from),
          side: 'inside',
          ramp: 5,
          tabs: { count: 0, length: 6, height: 1.5, shape: 'square', anyway: false, at: [] },
        }
      : freshCut('pocket', pocketKind, id, from);
    const value = { ...made, targets: those, depth: cut.depth };
    remedies.push({
      label: `${through ? 'Cut them out' : 'Clear them'} as drawn with ${mill.name}`,
      patch:
        rest.length === 0
          ? [{ op: 'replace', path: `/cuts/${index}`, value }]
          : [...setCut(index, { targets: rest }), { op: 'add', path: '/cuts/-', value }],
    });
  }
  return [
    {
      stop: 'cuts',
      cut: cut.id,
      id: `drawn-larger-${cut.id}`,
      weight: 'advice',
      text: drawnWords(larger, bit, job.unit),
      remedies,
    },
  ];
}

/** What of a cut is drawn wider than a diameter, and the rest of it; nothing where one shape holds both. */
function parted({ cut, items }: JudgedCut<DrillCut>, diameter: number): { those: Target[]; rest: Target[] } {
  const those: Target[] = [];
  const rest: Target[] = [];
  for (const { item, shapes } of cut.targets) {
    const all = items.find(({ id }) => id === item)?.shapes ?? [];
    const marks = (numbers: readonly number[]) => numbers.map((n) => all[n].mark);
    const chosen = [...chosenOf([{ item, shapes }], item, all).numbers];
    const wide = chosen.filter(
      (n) => all[n] && roundPlaces([all[n]]).places.some((place) => place.diameter > diameter),
    );
    if (wide.some((n) => roundPlaces([all[n]]).places.some((place) => place.diameter <= diameter)))
      return { those: [], rest: [] };
    if (wide.length === chosen.length) those.push({ item, shapes });
    else {
      if (wide.length > 0) those.push({ item, shapes: marks(wide) });
      rest.push({ item, shapes: marks(chosen.filter((n) => !wide.includes(n))) });
    }
  }
  return { those, rest };
}
