import { z } from 'zod';
import type { Job } from '../document/job.ts';
import { approachOver } from '../program/approach.ts';
import { type BesideCut, betweenCuts } from '../program/between-cuts.ts';
import { degrees } from '../quantity/units.ts';
import { Told } from '../schema/told.ts';
import { type CutResult, retimed } from '../sequence/cut-result.ts';
import { dryCuts } from '../sequence/dry-cuts.ts';
import { FRAMES, framingCut } from '../sequence/framing-cut.ts';
import { fromStroke, type NotTakenUp, TAKEN_UP_BY, takenUp } from '../sequence/taken-up.ts';
import { turnedCuts } from '../sequence/turned-cuts.ts';
import { zeroOf } from '../stock/stock.ts';
import { machineKindOf } from './kinds.ts';
import { programsFor } from './programs.ts';

const Place = z.object({ x: z.number(), y: z.number() });

/** How a job’s programs are made otherwise than the job alone says: what the bench knows, and what is made already. */
export const VariantSchema = z.object({
  /** How the stock lies turned about zero, radians. */
  turn: z.number().min(-0.5).max(0.5).default(0),
  /** With nothing on, high over the work, the pointer where the tool would be. */
  dry: z.boolean().default(false),
  /** What a dry run goes round. */
  frame: z.enum(FRAMES).default('paths'),
  /** The first stroke to be made, of those that pierce, from 0. */
  from: z.number().int().min(0).default(0),
  /** What has stopped, the first first: in which of the programs, after which line, where from zero, and how it goes on. */
  stopped: z
    .array(
      z.object({
        which: z.number().int().min(0),
        line: z.number().int().min(0),
        at: Place,
        by: z.enum(TAKEN_UP_BY),
      }),
    )
    .max(50)
    .default([]),
});
export type Variant = z.infer<typeof VariantSchema>;

/** As the job says, and nothing else. */
export const PLAIN: Variant = { turn: 0, dry: false, frame: 'paths', from: 0, stopped: [] };

/** A variant cannot be made; the message is one sentence. */
export class NoVariant extends Told {
  override name = 'NoVariant';
}

export interface Varied {
  cuts: CutResult[];
  beside: BesideCut[];
  /** For the heading and the log, each as it goes on from “this program”. */
  notes: string[];
  /** Where what has stopped is gone on with, from zero, mm. */
  seam?: { x: number; y: number };
}

/**
 * The cuts of a job as a variant has them, with their times.
 * @throws {NoVariant} with one sentence.
 */
export function varied(job: Job, result: { cuts: readonly CutResult[] }, variant: Variant): Varied {
  const { bench, stock } = job;
  const kind = machineKindOf(bench);
  const dialect = kind.dialect(bench);
  const zero = zeroOf(stock);
  const timed = (cuts: readonly CutResult[]): Pick<Varied, 'cuts' | 'beside'> => {
    const all = cuts.filter(({ path }) => path.feed.length > 0).map((cut) => retimed(cut, bench, dialect.post));
    return { cuts: all, beside: betweenCuts(all, approachOver(stock, all), dialect, bench.limits) };
  };
  const notes: string[] = [];
  const whole = timed(turnedCuts(result.cuts, variant.turn, zero));
  let now = whole;
  if (variant.turn !== 0)
    notes.push(`is turned by ${degrees(variant.turn).toFixed(2)} deg about zero, as the stock lies on the bench`);
  if (variant.from > 0) {
    const rest = fromStroke(now.cuts, variant.from);
    if (rest.length === 0) throw new NoVariant('There are not so many pierces in this job; choose an earlier one.');
    now = timed(rest);
    notes.push(`begins at pierce ${variant.from + 1}`);
  }
  let seam: Varied['seam'];
  const kerfs = whole.cuts.map(({ path }) => path);
  const [sin, cos] = [Math.sin(variant.turn), Math.cos(variant.turn)];
  const onStock = (x: number, y: number, room: number) => {
    const [dx, dy] = [x - zero.x, y - zero.y];
    const [sx, sy] = [zero.x + dx * cos + dy * sin, zero.y + dy * cos - dx * sin];
    return sx >= room && sy >= room && sx <= stock.length - room && sy <= stock.width - room;
  };
  for (const { which, line, at, by } of variant.stopped) {
    const program = programsFor(job, now, { revision: '', date: '', notes })[which];
    if (!program) throw new NoVariant('The program that stopped is not one of this job’s any more.');
    const cuts = now.cuts.filter(({ id }) => program.cuts.some((cut) => cut.id === id));
    const last = program.moves.findLast((move) => move.line < line) ?? program.moves[0];
    const on = { cut: program.cuts[last.cut].id, point: last.point, at: { x: at.x + zero.x, y: at.y + zero.y } };
    const rest = takenUp(cuts, on, by, { kerfs, onStock });
    if (typeof rest === 'string') throw new NoVariant(WHY_NOT[rest]);
    now = timed(rest.cuts);
    kerfs.push(...now.cuts.map(({ path }) => path));
    seam = { x: rest.seam.x - zero.x, y: rest.seam.y - zero.y };
    notes.push(`takes up after line ${line} of the program before: ${BY[by]}`);
  }
  if (variant.dry) {
    const pointer = kind.pointer?.(bench);
    if (!pointer) throw new NoVariant(`${bench.name} has no pointer to go round with.`);
    const round = variant.frame === 'paths' ? now.cuts : framingCut(now.cuts, variant.frame, bench.limits.speed);
    now = timed(dryCuts(round, pointer));
    notes.push('is a dry run: nothing is on, and the pointer goes where the tool would');
  }
  return { ...now, notes, seam };
}

const WHY_NOT: Record<NotTakenUp, string> = {
  'no-room':
    'There is no room in the scrap beside where it stopped; take it up at the next pierce, and cut what is left of this part by hand.',
  'open-kerf':
    'So much of it is cut that the arc would die over the open kerf from its own lead; take it up in the scrap beside where it stopped.',
  'nothing-left': 'Nothing is left of this program; it had come to its end.',
};

const BY: Record<Variant['stopped'][number]['by'], string> = {
  beside: 'pierced in the scrap beside where it stopped',
  stroke: 'from the lead of what was being cut',
  next: 'from the next pierce, the rest being skipped',
};
