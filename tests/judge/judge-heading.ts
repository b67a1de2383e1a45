import { say } from './finding.ts';
import type { Move } from './moves.ts';
import type { Asked } from './asked.ts';

/** The heading says the depth and the feeds that the program has. */
export function judgeHeading(text: string, moves: Move[], { options }: Asked): string[] {
  const found: string[] = [];
  const unit = options.includes('--units in') ? 25.4 : 1;
  const lines = [...text.matchAll(/^\(.*: .*?, ([\d.]+) (?:mm|in) deep, feed ([\d.]+) .*?, plunge ([\d.]+) /gm)];
  if (lines.length === 0) return ['has no heading'];
  const fed = moves.filter((m) => m.feed > 0);
  const low = fed.reduce((least, m) => Math.min(least, m.bz), 0);
  const deep = Math.max(...lines.map((line) => Number(line[1]) * unit));
  if (Math.abs(deep + low) > 0.0006 * unit + 1e-3) found.push(`the heading says ${deep} mm deep, and it is ${-low}`);
  // A slope is fed no faster downwards than a plunge, and so at something between the two.
  const said = lines.map((line) => [Number(line[2]), Number(line[3])].map((f) => f * unit).sort((a, b) => a - b));
  const odd = fed.find(({ feed }) => !said.some(([least, most]) => feed >= least - unit && feed <= most + unit));
  if (odd) found.push(say(odd, `feeds ${odd.feed} mm/min, which no heading says`));
  return found;
}
