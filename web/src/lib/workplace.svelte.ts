import { machineKindOf } from '@kerbe/core/machines/kinds';
import { getContext, setContext } from 'svelte';
import type { Cut } from '@kerbe/core/cuts/kinds';
import type { Target } from '@kerbe/core/document/cut';
import type { Takes } from '@kerbe/core/document/groups';
import { chooseLayer, chooseShapes, chosenOf } from '@kerbe/core/document/targets';
import type { JobSession } from './job-session.svelte';
import type { ForeignProgram } from './workers/job-view';

/** A line across the work, sheet coordinates, mm. */
export interface ChalkLine {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

/** The first tool of a job that the machine of its bench holds. */
function firstHeld({ bits, bench }: JobSession['job']): JobSession['job']['bits'][number] | undefined {
  const tools: readonly string[] = machineKindOf(bench).tools;
  return bits.find(({ kind }) => tools.includes(kind)) ?? bits[0];
}

/** What the sheet, the section and the card of one window share besides the job. */
export class Workplace {
  selected = $state<string>();
  private atHand = $state<string>();
  chalk = $state.raw<ChalkLine>({ x0: 0, y0: 0, x1: 0, y1: 0 });
  /** Someone has moved it. */
  chalkByHand = false;
  selectedBit = $state<string>();
  /** Shapes that are chosen while no cut is at hand, by their items: what a new cut takes. */
  picked = $state.raw<ReadonlyMap<string, ReadonlySet<number>>>(new Map());
  /** What a click on a shape takes in; or that it takes none, and shows the cut that is made of it. */
  takes = $state<Takes | 'cut'>('shape');
  /** How shapes are chosen on the sheet. */
  chooseBy = $state<'click' | 'box' | 'lasso'>('click');
  /** What the list of outlines has the focus on, to be shown on the sheet. */
  pointedAt = $state.raw<{ item: string; shapes: readonly number[] }>();
  /** Where a broken run is gone on with as it was checked, on the sheet. */
  goesOn = $state.raw<{ x: number; y: number }>();
  /** What stands in the sheet's place: at Proof the piece instead of the paths, at Set-up the machine instead of the sheet. */
  showPiece = $state(false);
  /** A program from elsewhere that Proof shows in place of the job's own paths. */
  foreign = $state.raw<ForeignProgram>();
  foreignFile = $state.raw<{ name: string; text: string }>();
  showMachine = $state(true);

  constructor(readonly session: JobSession) {
    this.layChalk(0.6);
    this.selected = session.job.artwork[0]?.id;
    this.atHand = session.job.cuts[0]?.id;
    this.selectedBit = session.job.cuts[0]?.bit ?? firstHeld(session.job)?.id;
  }

  /** Lays the chalk line straight across the stock, so much of its width up. */
  layChalk(share: number): void {
    const { length, width } = this.session.job.stock;
    this.chalk = { x0: 0, y0: width * share, x1: length, y1: width * share };
    this.chalkByHand = false;
  }

  /** The cut at hand; none where it was put down, or undone. */
  get activeCut(): string | undefined {
    return this.session.job.cuts.some(({ id }) => id === this.atHand) ? this.atHand : undefined;
  }
  set activeCut(id: string | undefined) {
    this.atHand = id;
  }

  /** How many shapes are chosen for a new cut. */
  get pickedCount(): number {
    return [...this.picked.values()].reduce((sum, shapes) => sum + shapes.size, 0);
  }

  /** Targets of what is chosen for a new cut. */
  pickedTargets(): Target[] {
    return [...this.picked].flatMap(([item, numbers]) => {
      const shapes = this.session.items.find(({ id }) => id === item)?.shapes;
      return shapes ? chooseShapes([], item, [...numbers], true, shapes) : [];
    });
  }

  /**
   * Takes shapes into the cut at hand, or out of it where it has all of them; while none is at hand, into what a new cut
   * will take.
   * @param layer where they are a whole layer: what comes to lie in it is meant, too.
   */
  choose(shapes: ReadonlyMap<string, readonly number[]>, layer?: string): void {
    const views = this.session.items;
    const cut = this.session.job.cuts.find(({ id }) => id === this.activeCut);
    const has = (item: string) => {
      const view = views.find(({ id }) => id === item);
      return cut && view ? chosenOf(cut.targets, item, view.shapes).numbers : (this.picked.get(item) ?? NONE);
    };
    const on = ![...shapes].every(([item, numbers]) => numbers.every((n) => has(item).has(n)));
    if (!cut) {
      const next = new Map(this.picked);
      for (const [item, numbers] of shapes) {
        const own = new Set(next.get(item));
        for (const n of numbers)
          if (on) own.add(n);
          else own.delete(n);
        next.set(item, own);
      }
      this.picked = next;
      return;
    }
    this.session.update((job) => {
      const found = job.cuts.find(({ id }) => id === cut.id)!;
      for (const [item, numbers] of shapes) {
        const view = views.find(({ id }) => id === item);
        if (!view) continue;
        found.targets =
          layer === undefined
            ? chooseShapes(found.targets, item, numbers, on, view.shapes)
            : chooseLayer(found.targets, item, layer, on, view.shapes);
      }
    });
  }

  /** Puts the cut at hand that is made of a shape; of several the one after that which is. */
  showCutOf(item: string, shape: number): void {
    const shapes = this.session.items.find(({ id }) => id === item)?.shapes;
    if (!shapes) return;
    const made = this.cuts.filter(({ targets }) => chosenOf(targets, item, shapes).numbers.has(shape));
    if (made.length === 0) return;
    this.activeCut = made[(made.findIndex(({ id }) => id === this.activeCut) + 1) % made.length].id;
  }

  /** Cuts in the order they will be made; those not computed yet come last. */
  get cuts(): Cut[] {
    const order = this.session.view?.cuts.filter((part) => part.id === part.cut).map((part) => part.cut) ?? [];
    const place = (id: string) => (order.includes(id) ? order.indexOf(id) : order.length);
    return [...this.session.job.cuts].sort((a, b) => place(a.id) - place(b.id));
  }

  /** The number a cut goes by on every stop, from 1. */
  cutNumber(id: string): number {
    return this.cuts.findIndex((cut) => cut.id === id) + 1;
  }
}

const NONE: ReadonlySet<number> = new Set();
const KEY = Symbol('workplace');

export function provideWorkplace(workplace: Workplace): void {
  setContext(KEY, workplace);
}

export function useWorkplace(): Workplace {
  return getContext<Workplace>(KEY);
}
