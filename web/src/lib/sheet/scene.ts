import type { Look } from '@kerbe/core/cuts/look';
import { type Cut, kindOf } from '@kerbe/core/cuts/kinds';
import { widthLeft } from '@kerbe/core/tools/leaves';
import { chosenOf } from '@kerbe/core/document/targets';
import type { CutView, ForeignProgram, ItemView } from '../workers/job-view.ts';
import { type Group, whole } from './paint.ts';

/** What is drawn of a job. */
export interface Shown {
  items: readonly ItemView[];
  cuts: readonly Cut[];
  /** What they came to. */
  made: readonly CutView[];
  /** The cut whose outlines are shown as chosen. */
  active?: string;
  /** Shapes that are chosen while no cut is at hand, by their items. */
  picked?: ReadonlyMap<string, ReadonlySet<number>>;
  /** Cuts that are done; the others are shown as yet to come. */
  done?: ReadonlySet<string>;
  /** Ways of the bit are shown, and what lies beside them. */
  ways: boolean;
  marks: boolean;
  foreign?: ForeignProgram;
}

const FREE: Look = { tone: 'ink', line: 1.2, dash: [2, 3] };
const FREE_OPEN: Look = { ...FREE, tone: 'signal' };
const PICTURE: Look = { tone: 'ink', fill: 'raster' };
const TO_COME: Look = { tone: 'ink', line: 1.2 };
const OPEN: Look = { tone: 'signal', line: 1.2 };
const CHOSEN: Look = { tone: 'signal', line: 2.5 };
export const LINK: Look = { tone: 'signal', line: 1, dash: [1, 4] };
export const FOLLOWED: Look = { tone: 'carved', line: 1 };

/**
 * The artwork of a job as groups to be drawn, item by item. A shape in several cuts shows the looks of all of them.
 */
export function artworkGroups({ items, cuts, done }: Pick<Shown, 'items' | 'cuts' | 'done'>): Map<string, Group[]> {
  return new Map(
    items.map(({ id, shapes, lines }) => {
      const groups: Group[] = [];
      const add = (numbers: Iterable<number>, look: Look) => {
        const ranges = Array.from(numbers, (n) => shapes[n]);
        if (ranges.length > 0) groups.push({ lines, ranges, look });
      };
      const taken = cuts.some(({ targets }) => targets.some(({ item }) => item === id));
      // A picture lies under all else; where a cut burns it, how it comes out is drawn over it.
      if (lines.raster) groups.push({ lines, ranges: [], look: { ...PICTURE, strength: taken ? 0.1 : 0.7 } });
      const chosen = cuts.map((cut) => ({ cut, numbers: chosenOf(cut.targets, id, shapes).numbers }));
      const free = new Set(shapes.keys());
      for (const { cut, numbers } of chosen) {
        const { mark, closedOnly } = kindOf(cut);
        const all = [...numbers];
        for (const n of all) free.delete(n);
        const open = closedOnly ? all.filter((n) => shapes[n].open) : [];
        const come = done && !done.has(cut.id) && mark.look.fill === 'solid';
        add(closedOnly ? all.filter((n) => !shapes[n].open) : all, come ? TO_COME : mark.look);
        add(open, OPEN);
      }
      const loose = [...free];
      add(loose.filter((n) => !shapes[n].open), FREE); // prettier-ignore
      add(loose.filter((n) => shapes[n].open), FREE_OPEN); // prettier-ignore
      return [id, groups];
    }),
  );
}

/** What the cut at hand has, whatever other cuts it is in, or what is chosen for a new one; drawn over all else. */
export function chosenGroups({
  items,
  cuts,
  active,
  picked,
}: Pick<Shown, 'items' | 'cuts' | 'active' | 'picked'>): Group[] {
  const own = cuts.find(({ id }) => id === active);
  return items.flatMap(({ id, shapes, lines }): Group[] => {
    const numbers = own ? chosenOf(own.targets, id, shapes).numbers : picked?.get(id);
    if (!numbers?.size) return [];
    return [{ lines, ranges: Array.from(numbers, (n) => shapes[n]), look: CHOSEN }];
  });
}

/** The ways of the bit and what lies beside them, over the artwork. */
export function wayGroups({ cuts, made, active, done, ways, marks, foreign }: Shown): Group[] {
  const groups: Group[] = [];
  const add = (lines: CutView['way'], look: Group['look']) => groups.push({ lines, ranges: whole(lines), look });
  if (foreign) {
    add(foreign.way, { ...FOLLOWED, tone: 'ink' });
    add(foreign.links, LINK);
    return groups;
  }
  for (const part of made) {
    const cut = cuts.find(({ id }) => id === part.cut);
    const mark = cut && kindOf(cut).mark;
    for (const { look, always, lines } of part.marks)
      if (always || marks) add(lines, always && done && !done.has(part.cut) ? TO_COME : look);
    // A picture is seen as it comes out, and not by its millions of lines.
    if (part.marks.some(({ lines }) => lines.raster)) continue;
    // What leaves a width on the surface is drawn as wide as it comes out, so that stripes and overlaps are seen.
    const across = part.leaves.kind === 'groove' ? {} : { across: widthLeft(part.leaves, 0) };
    const arrows = mark?.directed && ways ? { arrows: true as const } : {};
    const followed = { ...FOLLOWED, ...across, ...arrows };
    if (mark?.way && !part.problem)
      add(part.way, { ...mark.way, ...across, ...(part.cut === active ? CHOSEN : {}), ...arrows });
    else if (ways) add(part.way, mark?.look.fill === 'solid' ? { ...followed, tone: 'wood' } : followed);
    if (ways) add(part.links, LINK);
  }
  return groups;
}
