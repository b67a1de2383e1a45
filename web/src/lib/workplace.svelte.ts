import { getContext, setContext } from 'svelte';
import type { Cut } from '@kerbe/core/cuts/kinds';
import type { JobSession } from './job-session.svelte';
import type { ForeignProgram } from './workers/job-view';

/** A line across the work, sheet coordinates, mm. */
export interface ChalkLine {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

/** What the sheet, the section and the card of one window share besides the job. */
export class Workplace {
  selected = $state<string>();
  activeCut = $state<string>();
  chalk = $state.raw<ChalkLine>({ x0: 0, y0: 0, x1: 0, y1: 0 });
  selectedBit = $state<string>();
  /** What stands in the sheet's place: at Proof the piece instead of the paths, at Set-up the machine instead of the sheet. */
  showPiece = $state(false);
  /** A program from elsewhere that Proof shows in place of the job's own paths. */
  foreign = $state.raw<ForeignProgram>();
  foreignFile = $state.raw<{ name: string; text: string }>();
  showMachine = $state(true);

  constructor(readonly session: JobSession) {
    const { length, width } = session.job.stock;
    const margin = length * 0.025;
    this.chalk = { x0: -margin, y0: width * 0.6, x1: length + margin, y1: width * 0.6 };
    this.selected = session.job.artwork[0]?.id;
    this.activeCut = session.job.cuts[0]?.id;
    this.selectedBit = session.job.cuts[0]?.bit ?? session.job.bits[0]?.id;
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

const KEY = Symbol('workplace');

export function provideWorkplace(workplace: Workplace): void {
  setContext(KEY, workplace);
}

export function useWorkplace(): Workplace {
  return getContext<Workplace>(KEY);
}
