import { expect } from 'vitest';
import type { BaseTool } from '@kerbe/core/document/tool';
import { CarvedMoves } from '@kerbe/core/carving/section';
import type { JobResult } from '@kerbe/core/compute/compute';
import type { Job } from '@kerbe/core/document/job';
import { thickest, zeroOf } from '@kerbe/core/stock/stock';
import { SPOILBOARD_TOP } from '../kinds/router/stand-in/table.ts';
import type { FittedBit } from '../kinds/router/stand-in/workpiece.ts';
import { ExactSweep, type SweptMove } from './exact-sweep.ts';
import { bitShapeOf } from './of-job.ts';
import type { TestBench } from './test-bench.ts';

/** Points of a piece that are compared, and how far apart depths may be, mm; walls may be as far apart sideways. */
const POINTS = 20_000;
const APART = 0.02;

/** How far off the zero was that each fitting of a bit worked with, mm. */
export type ZeroErrors = Map<number, { x: number; y: number; z: number }>;

export function fitted(bit: BaseTool): FittedBit {
  const { angle, tip } = bitShapeOf([bit], bit.id);
  return {
    name: bit.name,
    diameter: bit.diameter,
    halfAngle: angle === undefined ? undefined : (angle * Math.PI) / 360,
    tipDiameter: tip,
    length: 0,
  };
}

/** Notes with each bit where zero was taken to be, against where the stock really lies. */
export function watchZero(bench: TestBench, job: Job, errors: ZeroErrors, bits: Map<number, FittedBit>): () => boolean {
  const zero = zeroOf(job.stock);
  return () => {
    const { router, state } = bench;
    if (state.bench === 'running' && state.origin && router.bit && !errors.has(router.fitted)) {
      const { corner } = router.table.piece!;
      errors.set(router.fitted, {
        x: state.origin.x - corner.x - zero.x,
        y: state.origin.y - corner.y - zero.y,
        z: state.origin.z - SPOILBOARD_TOP - thickest(job.stock) - zero.z - router.bit.length,
      });
      bits.set(router.fitted, { ...router.bit, length: 0 });
    }
    return false;
  };
}

/** The moves that cut, on the sheet: with each bit's zero error taken out, which is judged by itself. */
export function movesOnSheet(
  bench: TestBench,
  job: Job,
  errors: ZeroErrors,
  bits: Map<number, FittedBit>,
): SweptMove[] {
  const { made, table } = bench.router;
  const { corner } = table.piece!;
  const top = SPOILBOARD_TOP + thickest(job.stock);
  const moves: SweptMove[] = [];
  expect(made.full).toBe(false);
  for (let k = 0; k < made.length; k++) {
    const { from, to, turning, fitted: which } = made.move(k);
    const off = errors.get(which);
    if (!turning || !off) continue;
    const place = (p: typeof from) => ({ x: p.x - corner.x - off.x, y: p.y - corner.y - off.y, z: p.z - top - off.z });
    const [a, b] = [place(from), place(to)];
    if (Math.min(a.z, b.z) < 0) moves.push({ from: a, to: b, bit: bits.get(which)! });
  }
  return moves;
}

interface Place {
  x: number;
  y: number;
  depth: number;
}

const plans = new Map<JobResult, { plan: CarvedMoves; places: Place[] }>();

/** Seeded random places on a job's piece, half of them close to the paths, with the depth that is planned there. */
function planOf(job: Job, result: JobResult): { plan: CarvedMoves; places: Place[] } {
  const known = plans.get(result);
  if (known) return known;
  const plan = new CarvedMoves(result.cuts.filter(({ path }) => path.feed.length > 1));
  let seed = 12345;
  const random = () => (seed = (seed * 1103515245 + 12345) % 2147483648) / 2147483648;
  const places = Array.from({ length: POINTS }, (_, k) => {
    let x = random() * job.stock.length;
    let y = random() * job.stock.width;
    if (k % 2) {
      const { path, radius } = result.cuts[Math.floor(random() * result.cuts.length)];
      const i = Math.floor(random() * path.feed.length);
      x = path.xyz[3 * i] + (random() - 0.5) * 2.4 * radius;
      y = path.xyz[3 * i + 1] + (random() - 0.5) * 2.4 * radius;
    }
    return { x, y, depth: plan.along(x, y, x, y, 1)[0] };
  });
  plans.set(result, { plan, places });
  return { plan, places };
}

/** Compares the piece with its plan: in height where it slopes or lies flat, sideways at its walls. */
export function compare(job: Job, result: JobResult, moves: SweptMove[], points = POINTS): { deepest: number } {
  const { plan, places } = planOf(job, result);
  const piece = new ExactSweep(moves);
  const wrong: string[] = [];
  let deepest = 0;
  for (const { x, y, depth } of places.slice(0, points)) {
    const made = piece.at(x, y);
    deepest = Math.min(deepest, made);
    if (Math.abs(depth - made) <= APART) continue;
    const around = [depth];
    for (let a = 0; a < 16; a++) {
      const [px, py] = [x + APART * Math.cos((a * Math.PI) / 8), y + APART * Math.sin((a * Math.PI) / 8)];
      around.push(plan.along(px, py, px, py, 1)[0]);
    }
    if (made < Math.min(...around) - APART || made > Math.max(...around) + APART)
      wrong.push(`(${x.toFixed(3)}, ${y.toFixed(3)}): planned ${depth.toFixed(4)}, made ${made.toFixed(4)}`);
  }
  expect(wrong.slice(0, 5), `${wrong.length} of ${points} places`).toEqual([]);
  return { deepest };
}

export function zeroIsRight(errors: ZeroErrors): void {
  for (const [which, { x, y, z }] of errors) {
    expect(Math.abs(x), `x of fitting ${which}`).toBeLessThan(APART);
    expect(Math.abs(y), `y of fitting ${which}`).toBeLessThan(APART);
    expect(Math.abs(z), `z of fitting ${which}`).toBeLessThan(APART);
  }
}
