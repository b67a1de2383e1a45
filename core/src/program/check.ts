import { intrusion } from '../carving/intrusion.ts';
import type { Job } from '../document/job.ts';
import type { Path } from '../motion/path.ts';
import { planMotion } from '../motion/plan.ts';
import { formatFeed, formatLength } from '../quantity/format.ts';
import { obstaclesOf } from '../stock/obstacles.ts';
import { toolKindOf } from '../tools/kinds.ts';
import { presses } from '../tools/presses.ts';
import { thickest, zeroOf } from '../stock/stock.ts';
import type { ReadProgram } from './read.ts';

/** A program seen against a job’s stock, zero and bench. */
export interface CheckedProgram {
  /** The way of the bit on the sheet, mm. */
  path: Path;
  /** With its dwells, without bit changes. */
  minutes: number;
  /** Below the top of the stock, mm. */
  deepest: number;
  /** What to see to before it is run, one sentence each. */
  findings: string[];
}

/**
 * Lays a program that was read on a job’s sheet by the job’s zero, times it on the job’s bench, and looks at what can be
 * known without its bits: reach, depth, edges, clamps, feeds.
 */
export function checkProgram(
  { path, dwell, turned, bits: called }: ReadProgram,
  { stock, bench, bits, unit }: Job,
): CheckedProgram {
  const zero = zeroOf(stock);
  const thick = thickest(stock);
  const laid: Path = {
    ...path,
    xyz: path.xyz.map((v, i) => v + [zero.x, zero.y, zero.z][i % 3]),
  };
  const { xyz, feed, rapid } = laid;
  let lowest = 0;
  let off = 0;
  let plunged = false;
  const [least, most] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ];
  // A point that is pressed on the stock goes into nothing; where no bit is called it may be any of the job's.
  const pressed = bits.map(presses);
  const anyCuts = pressed.length === 0 || pressed.includes(false);
  let next = 0;
  let cuts = anyCuts;
  for (let i = 0; i < feed.length; i++) {
    for (; next < called.length && called[next].point <= i; next++)
      cuts = !(pressed[called[next].number - 1] ?? !anyCuts);
    const [x, y, z] = [xyz[3 * i], xyz[3 * i + 1], xyz[3 * i + 2]];
    for (const [k, v] of [x, y, z].entries()) {
      least[k] = Math.min(least[k], v);
      most[k] = Math.max(most[k], v);
    }
    if (cuts) lowest = Math.min(lowest, z);
    if (z < -1e-6) off = Math.max(off, -x, -y, x - stock.length, y - stock.width);
    if (i > 0 && rapid[i] && z < -1e-6 && z < xyz[3 * i - 1] - 1e-6) plunged = true;
  }
  const length = (mm: number) => formatLength(mm, unit);
  const findings: string[] = [];
  for (const { number, line } of turned)
    for (const bit of number > 0 ? bits.slice(number - 1, number) : bits)
      if (!toolKindOf(bit).turns)
        findings.push(
          number > 0
            ? `Line ${line + 1} has the spindle turn while “${bit.name}” (bit ${number}) is in, which must never be turned; do not run it.`
            : `Line ${line + 1} has the spindle turn, and nothing says which bit is in; “${bit.name}” of this job must never be turned.`,
        );
  if (-lowest > thick + stock.spoilboard)
    findings.push(`It goes ${length(-lowest)} deep: through the stock and right through the spoilboard.`);
  else if (-lowest > thick + 1e-6) findings.push(`It goes ${length(-lowest - thick)} into the spoilboard.`);
  if (off > 1e-6) findings.push(`It cuts up to ${length(off)} beside the stock.`);
  if (plunged) findings.push('It goes down into the wood by a rapid move.');
  for (const [k, axis] of (['x', 'y', 'z'] as const).entries())
    if (most[k] - least[k] > bench.travel[axis] + 1e-6)
      findings.push(
        `It spans ${length(most[k] - least[k])} along ${axis.toUpperCase()}, and ${bench.name} reaches ${length(bench.travel[axis])}.`,
      );
  const fast = fasterThan(laid, bench.limits.speed);
  if (fast)
    findings.push(
      `It asks for ${formatFeed(fast.asked, unit)} where ${bench.name} does ${formatFeed(fast.most, unit)}; the time here reckons with that.`,
    );
  for (const keepOut of obstaclesOf({ stock, bench }))
    if (intrusion(laid, 0.001, keepOut) > 0)
      findings.push(`The middle of its bit meets the ${keepOut.kind} at ${length(keepOut.x)}, ${length(keepOut.y)}.`);
  return {
    path: laid,
    minutes: planMotion(laid, bench.limits).minutes + dwell / 60,
    deepest: Math.max(0, -lowest),
    findings,
  };
}

/** The move whose feed rate is furthest beyond what the axes do in its direction, mm/min; nothing where none is. */
function fasterThan({ xyz, feed, rapid }: Path, speed: { x: number; y: number; z: number }) {
  let worst: { asked: number; most: number } | undefined;
  for (let i = 1; i < feed.length; i++) {
    if (rapid[i]) continue;
    const along = [0, 1, 2].map((k) => Math.abs(xyz[3 * i + k] - xyz[3 * i + k - 3]));
    const length = Math.hypot(...along);
    if (length === 0) continue;
    const most = Math.min(...[speed.x, speed.y, speed.z].map((of, k) => (of * length) / along[k]));
    if (feed[i] > most * (1 + 1e-6) && (!worst || feed[i] / most > worst.asked / worst.most))
      worst = { asked: feed[i], most };
  }
  return worst;
}
