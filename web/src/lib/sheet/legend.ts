import type { CutKind, Handle } from '@kerbe/core/cuts/kind';
import { CUT_KINDS, kindOf } from '@kerbe/core/cuts/kinds';
import type { Look } from '@kerbe/core/cuts/look';
import type { Job } from '@kerbe/core/document/job';
import { machineKindOf } from '@kerbe/core/machines/kinds';
import type { CutView } from '../workers/job-view.ts';
import { FOLLOWED, LINK } from './scene.ts';

/** A mark of the sheet: how it looks, and what it is. */
export interface Key {
  look: Look | 'tab' | 'start' | 'keep' | 'chalk';
  /** It marks places by circles, and not lines. */
  round?: true;
  word: string;
}

interface Shown {
  job: Pick<Job, 'cuts' | 'stock' | 'bench'>;
  made: readonly CutView[];
  /** What of the cut at hand can be moved. */
  handles: readonly Handle[];
  /** So many handles are in sight that none can be taken. */
  crowded?: boolean;
  /** What is not cut is marked; ways of the bit are drawn; the chalk line lies there. */
  marked: boolean;
  ways: boolean;
  chalk: boolean;
}

/** Each mark on the sheet once: of the kinds of cut, ways only where they are made, and all that lies beside them. */
export function keysOf({ job, made, handles, crowded, marked, ways, chalk }: Shown): Key[] {
  const along = made.filter(
    ({ cut: id, problem }) => !problem && job.cuts.some((cut) => cut.id === id && kindOf(cut).mark.way),
  );
  const kinds = Object.values<CutKind>(CUT_KINDS).filter(({ mark }) =>
    mark.way
      ? job.cuts.some((cut) => kindOf(cut).mark.word === mark.word && along.some(({ cut: id }) => cut.id === id))
      : job.cuts.some((cut) => cut.targets.length > 0 && kindOf(cut).mark.word === mark.word),
  );
  const shownAs = new Map(made.flatMap(({ marks }) => marks.filter(({ always }) => always).map(({ word, look }) => [word, look]))); // prettier-ignore
  const keys: Key[] = [
    // What a part shows everywhere says what it is better than the outline that it came from: the hole, not the circle.
    ...kinds.map(({ mark }) => ({ look: mark.way ?? shownAs.get(mark.word) ?? mark.look, word: mark.word })),
    ...(along.some((cut) => cut.tabs.length) && !handles.some(({ look }) => look === 'tab')
      ? [{ look: 'tab' as const, word: 'tab' }]
      : []),
    ...handles.map(({ look, word }) => ({ look, word: `${word}: ${crowded ? 'look closer to drag it' : 'drag it'}` })),
    ...(marked ? made.flatMap(({ marks }) => marks.filter(({ always }) => !always)) : []),
    ...(ways
      ? [
          { look: FOLLOWED, word: `path of the ${machineKindOf(job.bench).words.tool}` },
          { look: LINK, word: 'lifted over' },
        ]
      : []),
    ...(job.stock.keepOuts.length
      ? [{ look: 'keep' as const, word: [...new Set(job.stock.keepOuts.map(({ kind }) => kind))].join(', ') }]
      : []),
    ...(chalk ? [{ look: 'chalk' as const, word: 'chalk line: drag A or B' }] : []),
  ];
  return [...new Map(keys.map(({ look, word, round }) => [word, { look, word, ...(round && { round }) }])).values()];
}
