import type { Job } from '../../document/job.ts';
import { ArcLength } from '../../geometry/arc-length.ts';
import type { Clipper } from '../../geometry/clipper.ts';
import { contains, lengthOf } from '../../geometry/outline.ts';
import type { Closing } from '../../motion/piercing.ts';
import { PathBuilder } from '../../motion/path.ts';
import { formatLength } from '../../quantity/format.ts';
import { thickest } from '../../stock/stock.ts';
import type { Nozzle } from '../../tools/nozzle/fields.ts';
import { CutProblem } from '../../ways/cut-problem.ts';
import { Freed } from '../../ways/freed.ts';
import { innerFirst, type Nested } from '../../ways/inner-first.ts';
import { type KerfLoop, kerfLoops } from '../../ways/kerf-loops.ts';
import { closesUp } from '../../ways/moved-outlines.ts';
import { type CutRound, type ScrapBetween, scrapBetween } from '../../ways/scrap-between.ts';
import { type ScrapLead, scrapLeads } from '../../ways/scrap-leads.ts';
import { tightArcs } from '../../ways/tight-arcs.ts';
import type { CutArtwork } from '../cut-artwork.ts';
import { type CutPart, cutPart, nothingToCut } from '../cut-part.ts';
import { areaKept } from './area-kept.ts';
import type { PlasmaFacts } from './facts.ts';
import type { PlasmaCut } from './fields.ts';
import { missed } from './missed.ts';

/** Room beside what was cut free when it is gone round, mm. */
const ROOM = 3;

/** One go of the torch: from where it pierces to where the arc goes out. */
interface Stroke extends Nested {
  points: number[];
  /** Of all its feed, and of single moves, from point 0 to 1 first. */
  slow: boolean;
  tight?: Uint8Array;
  /** The controller leads the torch beside it. */
  beside?: boolean;
  /** The kerf that it closes, and where: what lies inside is free then. */
  frees?: { loop: KerfLoop; at: Closing };
}

/**
 * A hole so many times as wide as the sheet is thick, and as the kerf, comes out. Common practice for air: one and a half to
 * twice the thickness; with oxygen and the finest nozzles as wide as it is thick.
 */
const COMES_OUT = { sheet: 1.5, kerf: 2 };

/** Shorter lines than this are points, mm. */
const SHORTEST = 0.05;

/**
 * Kerfs beside the lines and on them: each loop pierced in the scrap, what lies inside first, and never low over what was cut free.
 *
 * @throws {CutProblem} for what cannot be cut.
 */
export function burnt(
  job: Job,
  cut: PlasmaCut,
  _: Nozzle,
  artwork: CutArtwork,
  clipper: Clipper,
): CutPart<PlasmaFacts>[] {
  const { unit, stock } = job;
  if (cut.cutHeight > cut.pierceHeight)
    throw new CutProblem(
      `It is to pierce ${formatLength(cut.pierceHeight, unit, 2)} high and to cut higher, at ${formatLength(cut.cutHeight, unit, 2)}; pierce at least as high as it cuts.`,
    );
  if (cut.rise < cut.pierceHeight)
    throw new CutProblem(
      `Between cuts the torch is ${formatLength(cut.rise, unit, 2)} over the sheet, and pierces higher; make the rise at least ${formatLength(cut.pierceHeight, unit, 2)}.`,
    );
  const { open: openCount, overlaps } = artwork.area();
  const { area, islands, crossing, touching } = areaKept(cut, artwork, clipper);
  const offset = cut.by === 'here' ? cut.kerf / 2 : 0;
  const keptOnRight = cut.swirl === 'right';
  const side = sideOf(cut);
  const loops = kerfLoops(area, { side, offset, keptOnRight }, clipper);
  const open = artwork.lines().filter(({ closed }) => !closed);
  const lines = open.filter((line) => lengthOf(line) > SHORTEST);
  if (loops.length === 0 && lines.length === 0) {
    if (area.length > 0)
      throw new CutProblem(
        `The kerf of ${formatLength(cut.kerf, unit, 2)} is wider than all that is chosen; draw it larger, or take a nozzle with a finer kerf.`,
      );
    if (open.length > 0)
      throw new CutProblem('All that is chosen are points, or lines whose points lie in one place; choose lines, or drill holes there.'); // prettier-ignore
    throw nothingToCut(openCount);
  }
  const thick = thickest(stock);
  const least = Math.max(COMES_OUT.sheet * thick, COMES_OUT.kerf * cut.kerf);
  const across = (loop: KerfLoop) => Math.min(loop.bounds.maxX - loop.bounds.minX, loop.bounds.maxY - loop.bounds.minY) + 2 * offset; // prettier-ignore
  const small = loops.filter((loop) => loop.scrapInside && across(loop) < least);
  const marked = new Set(cut.tooSmall === 'cut' ? [] : small);
  // What is not cut leaves its place in the nest to what goes round it.
  const kept = loops.filter((loop) => !marked.has(loop));
  const around = (k: number): number => (k < 0 ? -1 : marked.has(loops[k]) ? around(loops[k].within) : kept.indexOf(loops[k])); // prettier-ignore
  const within = new Map(loops.map((loop) => [loop, around(loop.within)]));

  const pieces = Math.max(1, cut.tabs);
  const leads = scrapLeads(
    kept,
    {
      lead: cut.lead,
      out: cut.out,
      kerf: cut.kerf,
      straight: cut.by === 'controller' ? cut.kerf : 0,
      keptOnRight,
      starts: cut.start,
      lines: lines.map(({ points }) => points),
      sheet: stock,
    },
    pieces,
  );
  const strokes: Stroke[] = [];
  const starts: { x: number; y: number }[] = [];
  const rounds: CutRound[] = [];
  kept.forEach((loop, k) => {
    const slow = loop.scrapInside && across(loop) <= cut.small;
    const along = new ArcLength(loop.points);
    const ways = leads[k].flatMap((lead) => {
      const { x, y } = along.pointAt(lead.start);
      return [
        [...lead.in, x, y],
        [x, y, ...lead.out],
      ];
    });
    rounds.push({ loop, ways: ways.filter(({ length }) => length > 2) });
    leads[k].forEach((lead, piece) => {
      const { x, y } = along.pointAt(lead.start);
      starts.push({ x, y });
      const next = leads[k][(piece + 1) % pieces].start;
      const whole = pieces === 1 && cut.tabs === 0;
      const length = whole
        ? along.total + (loop.scrapInside ? cut.overburn : 0)
        : along.wrap(next - lead.start - 1e-9) - cut.tab + (pieces === 1 ? 1e-9 : 0);
      if (length > 0) strokes.push(loopStroke(loop, along, lead, length, slow, whole, within.get(loop)!, cut));
    });
  });
  // `within` counts loops so far; strokes count now. Of a loop in pieces nothing comes free.
  const numberOf = new Map<KerfLoop, number>();
  strokes.forEach((stroke, k) => {
    if (stroke.frees) numberOf.set(stroke.frees.loop, k);
  });
  const strokeRound = (k: number): number =>
    k < 0 ? -1 : (numberOf.get(kept[k]) ?? strokeRound(within.get(kept[k])!));
  for (const stroke of strokes) stroke.within = strokeRound(stroke.within);
  const nest = (x: number, y: number): number => {
    let best = -1;
    kept.forEach((loop, k) => {
      const { bounds: b } = loop;
      if (x < b.minX || x > b.maxX || y < b.minY || y > b.maxY || !contains(loop.points, x, y)) return;
      if (best < 0 || loop.area < kept[best].area) best = k;
    });
    return strokeRound(best);
  };
  if (cut.tooSmall === 'mark')
    for (const { bounds } of small) {
      const at = { x: (bounds.minX + bounds.maxX) / 2, y: (bounds.minY + bounds.maxY) / 2 };
      strokes.push({ from: at, to: at, within: nest(at.x, at.y), turnable: false, points: [at.x, at.y], slow: false });
    }
  for (const { points } of lines) {
    const [from, to] = [{ x: points[0], y: points[1] }, { x: points.at(-2)!, y: points.at(-1)! }]; // prettier-ignore
    strokes.push({ from, to, within: nest(from.x, from.y), turnable: true, points: [...points], slow: false, tight: tightArcs(points, cut.small / 2, 0) }); // prettier-ignore
  }

  const { path, pierces, lifted, ...points } = laid(strokes, scrapBetween(rounds, beyondOf(cut), clipper), cut, job);
  const closes = cut.by === 'here' && closesUp(area, loops, side);
  const facts: PlasmaFacts = {
    pierces,
    starts,
    shorter: leads.flat().filter(({ share }) => share > 0 && share < 1).length,
    noLead: cut.lead.kind === 'none' ? 0 : leads.flat().filter(({ share }) => share === 0).length,
    ...missed(area, side, cut.kerf, closes, clipper),
    closes,
    tooSmall: small.map((loop) => ({ ...middle(loop), diameter: across(loop) })),
    islands,
    overlaps: cut.side === 'nested' ? Number(crossing) : overlaps,
    touching,
    empty: open.length - lines.length,
    lifted,
    kerf: cut.kerf,
    by: cut.by,
  };
  return [
    cutPart<PlasmaFacts>({ ...cut, plunge: plungeOf(job), speed: 0 }, rankOf(cut), {
      path,
      facts,
      pierce: { ...points, delay: cut.pierceDelay, scrapOnLeft: keptOnRight },
      leaves: { kind: 'kerf', width: cut.kerf, depth: thick },
      kerf: cut.by,
      approach: overFreed(cut),
    }),
  ];
}

/** Where it comes among other cuts; see `CutKind.rank`. */
export const rankOf = ({ side }: PlasmaCut): number => (side === 'nested' || side === 'outside' ? 4 : 3);

/** How high the torch goes over what was cut free, mm. */
const overFreed = ({ rise, over }: PlasmaCut): number => Math.max(rise, over);

/** On which side of the area’s lines the kerf lies. */
const sideOf = ({ side }: PlasmaCut): 'outside' | 'inside' | 'on' => (side === 'nested' ? 'outside' : side);

const middle = ({ bounds }: KerfLoop) => ({ x: (bounds.minX + bounds.maxX) / 2, y: (bounds.minY + bounds.maxY) / 2 });

/** Down to the surface, and from where it pierces to where it cuts: half as fast as its axis may, and never in a rush, mm/min. */
const plungeOf = ({ bench }: Job): number => Math.min(1500, bench.limits.speed.z / 2);

/** A stretch of a loop with its way in and out. */
function loopStroke(
  loop: KerfLoop,
  along: ArcLength,
  lead: ScrapLead,
  length: number,
  slow: boolean,
  whole: boolean,
  within: number,
  cut: PlasmaCut,
): Stroke {
  const points: number[] = [...lead.in];
  const from = lead.start;
  const push = (s: number) => {
    const { x, y } = along.pointAt(s);
    points.push(x, y);
  };
  push(from);
  const { at, total, loop: corners } = along;
  let closing: Closing | undefined;
  const reached = (s: number) => {
    if (s >= from + total - 1e-6) closing ??= { point: points.length / 2 - 1, before: Math.max(0, s - from - total) };
  };
  // Every corner between the ends, once for every time round.
  for (let turn = 0; turn * total < from + length; turn++)
    for (let i = 0; i + 1 < at.length; i++) {
      const s = at[i] + turn * total;
      if (s <= from + 1e-6 || s >= from + length - 1e-6) continue;
      points.push(corners[2 * i], corners[2 * i + 1]);
      reached(s);
    }
  push(from + length);
  reached(from + length);
  const cutTo = points.length / 2;
  points.push(...lead.out);
  // The leads are no part of the shape, and what goes round a corner at half a kerf is no arc of it.
  const first = lead.in.length / 2;
  const tight = new Uint8Array(points.length / 2 - 1);
  tight.set(tightArcs(points.slice(2 * first, 2 * cutTo), cut.small / 2, cut.kerf), first);
  return {
    from: { x: points[0], y: points[1] },
    to: { x: points.at(-2)!, y: points.at(-1)! },
    within,
    turnable: false,
    points,
    slow,
    tight,
    beside: cut.by === 'controller' && cut.side !== 'on',
    ...(whole && closing ? { frees: { loop, at: closing } } : {}),
  };
}

/** How far outside the lines that are gone along a kerf reaches, mm. */
const beyondOf = ({ by, side, kerf }: PlasmaCut): number => (by === 'controller' && side !== 'on' ? kerf : kerf / 2);

/** The path of all strokes, in their order. @param between scrap that comes free between them. */
function laid(strokes: readonly Stroke[], between: readonly ScrapBetween[], cut: PlasmaCut, job: Job) {
  const { bench } = job;
  const builder = new PathBuilder();
  const freed = new Freed({ low: cut.rise, high: overFreed(cut), room: ROOM, limits: bench.limits });
  const done = new Set<KerfLoop>();
  const closings: Closing[] = [];
  const touches: number[] = [];
  const level: number[] = [];
  const ends: number[] = [];
  const pierces: { x: number; y: number }[] = [];
  const down = plungeOf(job);
  const slower = (cut.feed * cut.slower) / 100;
  let lifted = 0;
  for (const { item, reversed } of innerFirst(strokes, { x: 0, y: 0 })) {
    const { points: drawn, slow, tight, beside, frees } = strokes[item];
    const points = reversed ? backwards(drawn) : drawn;
    const n = points.length / 2;
    const [x, y] = points;
    if (builder.length > 0) {
      builder.rapid(builder.x, builder.y, cut.rise);
      const way = freed.way(builder.x, builder.y, x, y);
      if (way[2] > cut.rise) lifted++;
      for (let i = 0; i < way.length; i += 3) builder.rapid(way[i], way[i + 1], way[i + 2]);
    } else builder.rapid(x, y, cut.rise);
    builder.to(x, y, 0, down, 0);
    touches.push(builder.length - 1);
    builder.rapid(x, y, cut.pierceHeight);
    pierces.push({ x, y });
    builder.to(x, y, cut.cutHeight, down, 1);
    if (cut.cutHeight === cut.pierceHeight && n === 1) builder.to(x, y, cut.cutHeight - 0.1, down, 1);
    for (let i = 1; i < n; i++) {
      const k = reversed ? n - 1 - i : i - 1;
      builder.to(points[2 * i], points[2 * i + 1], cut.cutHeight, slow || tight?.[k] ? slower : cut.feed);
      if (i === frees?.at.point) closings.push({ point: builder.length - 1, before: frees.at.before });
    }
    if (slow) level.push(builder.length - 1);
    if (beside) ends.push(builder.length - 1);
    if (!frees) continue;
    const { loop } = frees;
    freed.add(loop.points, loop.bounds);
    done.add(loop);
    for (const { points: scrap, bounds, by } of between)
      if (by.includes(loop) && by.every((each) => done.has(each))) freed.add(scrap, bounds);
  }
  builder.rapid(builder.x, builder.y, cut.rise);
  return { path: builder.done(), touches, level, beside: ends, frees: closings, pierces, lifted }; // prettier-ignore
}

function backwards(points: readonly number[]): number[] {
  const out: number[] = [];
  for (let i = points.length - 2; i >= 0; i -= 2) out.push(points[i], points[i + 1]);
  return out;
}
