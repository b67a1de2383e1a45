import { readdirSync } from 'node:fs';
import jsonPatch from 'fast-json-patch';
import { expect, test } from 'vitest';
import type { JobResult } from '../core/src/compute/compute.ts';
import type { Remark } from '../core/src/cuts/remark.ts';
import type { CutJob } from '../core/src/job/job.ts';
import { JobSchema } from '../core/src/job/job.ts';
import { random } from './faults/random.ts';
import { demoJob } from './demo-job.ts';

/**
 * Promises held here, of every remark on jobs changed by chance: its remedy gives a job that can be kept; applied, the remark
 * is gone, or it says something else and offers something else; no remedy brings a remark that keeps a program back which was not there.
 *
 * `KERBE_REMEDIES=40` tries more jobs; a failure names its seed, `KERBE_SEED` begins there.
 */
const COUNT = Number(process.env.KERBE_REMEDIES ?? 2);
const FIRST = Number(process.env.KERBE_SEED ?? 1);
const NAMES = readdirSync('demo/jobs').map((file) => file.replace('.kerbe.json', ''));

type Dice = () => number;
const between = (dice: Dice, from: number, to: number) => from + dice() * (to - from);
const oneOf = <T>(dice: Dice, of: readonly T[]) => of[Math.floor(dice() * of.length)];

/** A few things that someone may do to a job, no two numbers alike. */
function disturb(job: CutJob, dice: Dice): void {
  const { stock } = job;
  const change: (() => unknown)[] = [
    () => (stock.length = Math.round(stock.length * between(dice, 0.5, 1.2))),
    () => (stock.width = Math.round(stock.width * between(dice, 0.5, 1.2))),
    () =>
      (stock.corners = stock.corners.map(
        (t) => Math.round((t + between(dice, -1, 1)) * 10) / 10,
      ) as typeof stock.corners),
    () => {
      for (const item of job.artwork) {
        item.x += Math.round(between(dice, -40, 40));
        item.y += Math.round(between(dice, -30, 30));
      }
    },
    () =>
      stock.keepOuts.push({
        id: `by-chance-${stock.keepOuts.length}`,
        kind: oneOf(dice, ['clamp', 'pin'] as const),
        x: between(dice, 0, stock.length),
        y: between(dice, 0, stock.width),
        length: between(dice, 5, 60),
        width: between(dice, 5, 40),
        height: between(dice, 2, 40),
      }),
    () => (stock.lift = Math.round(between(dice, 1, 12))),
    () => (stock.zeroXY = oneOf(dice, ['lower-left', 'upper-right', 'centre'] as const)),
    () => {
      const cut = oneOf(dice, job.cuts);
      if (cut && 'bit' in cut) cut.bit = oneOf(dice, job.bits).id;
    },
    ...[
      'depth',
      'depthLimit',
      'depthPerPass',
      'feed',
      'plunge',
      'speed',
      'step',
      'stepover',
      'kerf',
      'power',
      'ramp',
      'floorStep',
    ].map((field) => () => {
      const cut = oneOf(dice, job.cuts) as unknown as Record<string, unknown>;
      if (typeof cut[field] === 'number') cut[field] = Math.round(cut[field] * between(dice, 0.3, 3) * 100) / 100;
    }),
  ];
  for (let k = 0; k < 3; k++) oneOf(dice, change)();
}

const HEAVY = ['advice', 'wrong'];

/** Pairs of keep-outs that lie over each other. */
const overlaps = ({ stock: { keepOuts } }: CutJob) =>
  keepOuts.flatMap((a, k) =>
    keepOuts
      .slice(k + 1)
      .filter((b) => a.x < b.x + b.length && b.x < a.x + a.length && a.y < b.y + b.width && b.y < a.y + a.width),
  ).length;

/** What a label says of depth and time that is not so, of the cut it is about. */
function untrue({ cut }: Remark, label: string, before: JobResult, after: JobResult): string[] {
  const of = (result: JobResult) => result.cuts.filter((one) => one.cut === cut);
  const depth = (result: JobResult) => Math.max(...of(result).map((one) => one.depth));
  const seconds = (result: JobResult) => 60 * of(result).reduce((sum, { minutes }) => sum + minutes, 0);
  const out: string[] = [];
  const [, by, unit, way] = /([\d.]+) (mm|in) (less deep|deeper),/.exec(label) ?? [];
  if (way) {
    const [said, is] = [
      Number(by) * (unit === 'in' ? 25.4 : 1) * (way === 'deeper' ? 1 : -1),
      depth(after) - depth(before),
    ];
    if (Math.abs(said - is) > 0.06) out.push(`it is ${is.toFixed(2)} mm`);
  }
  const [, hours, minutes, rest, when] =
    /(?:(\d+) h )?(?:(\d+) min ?)?(?:(\d+) s)? (sooner|later)$/.exec(
      /\d (min|s) (sooner|later)$/.test(label) ? label : '',
    ) ?? [];
  if (when) {
    const said =
      (Number(hours ?? 0) * 3600 + Number(minutes ?? 0) * 60 + Number(rest ?? 0)) * (when === 'later' ? 1 : -1);
    const is = seconds(after) - seconds(before);
    if (Math.abs(said - is) > (hours ? 31 : 0.51)) out.push(`it takes ${is.toFixed(1)} s more`);
  }
  return out;
}

test.each(NAMES)('%s', { timeout: 3_600_000 }, async (name) => {
  const { run, changed } = await demoJob(name);
  const found: string[] = [];
  for (let seed = FIRST; seed < FIRST + COUNT; seed++) {
    const dice = random(seed * 7919 + name.length);
    const disturbed = changed((job) => disturb(job, dice));
    const parsed = JobSchema.safeParse(disturbed);
    if (!parsed.success) continue;
    const job = parsed.data;
    const before = await run(job);
    for (const remark of before.remarks)
      for (const { label, patch } of remark.remedies) {
        const said = `seed ${seed}: ${remark.id} “${remark.text}” [${label}]`;
        const mended = JobSchema.safeParse(
          jsonPatch.applyPatch(structuredClone(job), structuredClone(patch)).newDocument,
        );
        if (!mended.success) {
          found.push(`${said} gives a job that cannot be kept: ${mended.error.message}`);
          continue;
        }
        const after = await run(mended.data);
        const again = after.remarks.find(({ id }) => id === remark.id);
        if (again?.text === remark.text) found.push(`${said} changes nothing`);
        else if (again?.remedies.some((remedy) => remedy.label === label))
          found.push(`${said} is offered again: ${again.text}`);
        else if (again && HEAVY.indexOf(again.weight) > HEAVY.indexOf(remark.weight))
          found.push(`${said} makes it worse: ${again.text}`);
        found.push(...untrue(remark, label, before, after).map((not) => `${said}: ${not}`));
        if (overlaps(mended.data) > overlaps(job))
          found.push(`${said} puts what holds the work over something else that does`);
        const had = new Set(before.remarks.filter(({ withholds }) => withholds).map(({ id }) => id));
        for (const worse of after.remarks.filter(({ withholds, id }) => withholds && !had.has(id)))
          found.push(`${said} brings: ${worse.text}`);
      }
  }
  expect(found).toEqual([]);
});
