import { z } from 'zod';
import type { Clipper } from '../geometry/clipper.ts';
import type { Job } from '../document/job.ts';
import { approachOver } from '../program/approach.ts';
import { type BesideCut, betweenCuts } from '../program/between-cuts.ts';
import { formatLength } from '../quantity/format.ts';
import { degrees } from '../quantity/units.ts';
import { Told } from '../schema/told.ts';
import { type CutResult, retimed } from '../sequence/cut-result.ts';
import { dryCuts } from '../sequence/dry-cuts.ts';
import { FRAMES, framingCut } from '../sequence/framing-cut.ts';
import { fromStroke, type NotTakenUp, cutWays, TAKEN_UP_BY, takenUp } from '../sequence/taken-up.ts';
import { turnedCuts } from '../sequence/turned-cuts.ts';
import { onSheet } from '../stock/on-sheet.ts';
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
  /** What has stopped, the first first: in which of the programs, after which line, where from zero if that is known, and how it goes on. */
  stopped: z
    .array(
      z.object({
        which: z.number().int().min(0),
        line: z.number().int().min(0),
        at: Place.optional(),
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
export function varied(job: Job, result: { cuts: readonly CutResult[] }, variant: Variant, clipper: Clipper): Varied {
  const { bench, stock } = job;
  const kind = machineKindOf(bench);
  const dialect = kind.dialect(bench);
  const zero = zeroOf(stock);
  const timed = (cuts: readonly CutResult[]): Pick<Varied, 'cuts' | 'beside'> => {
    const all = cuts.filter(({ path }) => path.feed.length > 0).map((cut) => retimed(cut, bench, dialect.post));
    return { cuts: all, beside: betweenCuts(all, approachOver(job, all), dialect, bench.limits) };
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
  const acceleration = Math.min(bench.limits.acceleration.x, bench.limits.acceleration.y);
  let before = whole.cuts.flatMap(({ path }) => cutWays(path)).slice(0, variant.from);
  const kerfs = whole.cuts.map(({ path }) => path);
  const onStock = (x: number, y: number, room: number) => {
    const at = onSheet({ x: x - zero.x, y: y - zero.y }, stock, variant.turn);
    return at.x >= room && at.y >= room && at.x <= stock.length - room && at.y <= stock.width - room;
  };
  for (const { which, line, at, by } of variant.stopped) {
    const programs = programsFor(job, now, { revision: '', date: '', notes });
    const program = programs[which];
    if (!program) throw new NoVariant('The program that stopped is not one of this job’s any more.');
    const cutsOf = ({ cuts }: typeof program) => now.cuts.filter(({ id }) => cuts.some((cut) => cut.id === id));
    // Programs of other tools came before it.
    before = [
      ...before,
      ...programs
        .slice(0, which)
        .flatMap(cutsOf)
        .flatMap(({ path }) => cutWays(path)),
    ];
    const { moves } = program;
    const k = Math.max(
      0,
      moves.findLastIndex((move) => move.line < line),
    );
    const { cut, point } = moves[k];
    const towards = moves.slice(k + 1, k + 1 + LINES_ON).filter((move) => move.cut === cut).at(-1)?.point ?? point + 1; // prettier-ignore
    const on = { point, towards, at: at && { x: at.x + zero.x, y: at.y + zero.y }, acceleration };
    const rest = takenUp(cutsOf(program), { ...on, cut: program.cuts[cut].id }, by, {
      kerfs,
      before,
      onStock,
      clipper,
    });
    if (typeof rest === 'string') throw new NoVariant(WHY_NOT[rest]);
    now = timed(rest.cuts);
    kerfs.push(...now.cuts.map(({ path }) => path));
    before = rest.done;
    seam = { x: rest.seam.x - zero.x, y: rest.seam.y - zero.y };
    const how = rest.closed === undefined ? BY[by] : closedWords(rest.closed, job.unit);
    notes.push(`takes up after line ${line} of the program before: ${how}`);
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

/** How many lines on from the last one made it may have come. */
const LINES_ON = 4;

const WHY_NOT: Record<NotTakenUp, string> = {
  'no-room':
    'There is no room in the scrap beside where it stopped; take it up at the next pierce, and cut what is left of this part by hand.',
  fallen:
    'The scrap beside where it stopped may have come free with what is cut already, and nothing is to be pierced in that; take it up at the next pierce, and cut what is left of this part by hand.',
  'open-kerf':
    'So much of it is cut that the arc would die over the open kerf from its own lead; take it up in the scrap beside where it stopped.',
  'last-free':
    'It stopped so near to where its last kerf closes that nothing holds that piece any more, and nothing else is left; break it out, and file what stands.',
  'nothing-left': 'Nothing else is left of this program to be cut.',
};

/** How it goes on where what it was cutting was free already. */
const closedWords = (left: number, unit: Job['unit']) =>
  left < 0.05
    ? 'from the next pierce, what was being cut having closed'
    : `from the next pierce, nothing holding what was being cut: ${formatLength(left, unit, 2)} of its kerf is to be broken and filed`;

const BY: Record<Variant['stopped'][number]['by'], string> = {
  beside: 'pierced in the scrap beside where it stopped, where the seam comes',
  stroke: 'from the lead of what was being cut',
  next: 'from the next pierce, the rest being skipped',
};
