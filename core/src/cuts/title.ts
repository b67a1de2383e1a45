import { kindOf } from './kinds.ts';
import { chosenOf, type Marked } from '../document/targets.ts';
import type { BaseCut } from '../document/cut.ts';
import type { Job } from '../document/job.ts';

/**
 * What a cut is called, such as “Carve Words” or “Cut out Board edge”; with its result, whose shapes are
 * known, “Pocket moon”.
 */
export function titleOf<C extends BaseCut>(cut: C, job: Job, part?: { id: string; works?: string }): string {
  const verb = part && part.id !== cut.id ? 'Clear for' : (kindOf(cut).title?.(cut) ?? kindOf(cut).verb);
  return `${verb} ${part?.works ?? worksOn(cut, job)}`;
}

/** Of more items only two are named. */
const MOST_NAMED = 3;

/** What a cut works on, in words: whole items by their names, single shapes by theirs where they are few. */
export function worksOn(
  cut: BaseCut,
  job: Job,
  items: readonly { id: string; shapes: readonly (Marked & { name: string })[] }[] = [],
): string {
  const names = cut.targets.map((target) => {
    const name = job.artwork.find((a) => a.id === target.item)?.name ?? '?';
    const shapes = items.find((item) => item.id === target.item)?.shapes;
    if (target.shapes === 'all' || !shapes) return name;
    const chosen = [...chosenOf([target], target.item, shapes).numbers].map((n) => shapes[n].name);
    if (chosen.length === 0) return `nothing of ${name}`;
    return chosen.length > 3 ? `${chosen.length} shapes of ${name}` : chosen.join(', ');
  });
  if (names.length > MOST_NAMED) return `${names.slice(0, 2).join(', ')} and ${names.length - 2} more`;
  return names.length ? names.join(' and ') : 'nothing yet';
}
