import { formatFeed, formatLength, formatMinutes } from '../quantity/format.ts';
import type { LengthUnit } from '../quantity/units.ts';
import { MM_PER_INCH } from '../quantity/units.ts';
import type { Path } from '../motion/path.ts';
import type { Dialect } from './dialect.ts';

/** One cut of a program, in the order they are made. */
export interface ProgramCut {
  id: string;
  title: string;
  bit: { number: number; name: string };
  path: Path;
  /** Deepest point below the top of the stock, mm. */
  depth: number;
  feed: number;
  plunge: number;
  speed: number;
  minutes: number;
}

export interface ProgramHeading {
  job: string;
  revision: string;
  date: string;
  stock: string;
  zero: string;
  bench: string;
  unit: LengthUnit;
  lift: number;
  minutes: number;
}

/** Which move a line makes: `cut` counts the program's cuts, `point` the path's points. */
export interface LineMove {
  line: number;
  cut: number;
  point: number;
}

export interface Program {
  text: string;
  /** Bit the program is for, where each bit has a program of its own. */
  bit?: string;
  /** For every cut: the first line and the line after its last. */
  cuts: { id: string; from: number; to: number }[];
  /** For every line that moves along a cut's path. */
  moves: LineMove[];
}

/** Seconds the spindle gets to reach its speed. */
const SPINDLE_SECONDS = 3;

/**
 * Writes RS-274 (NISTIR 6556) for some cuts: a heading that says what it is, units and modes, and each bit's cuts.
 * Coordinates are from the program's zero.
 *
 * @param zero where zero lies on the sheet, mm; sheet coordinates minus zero are program coordinates.
 */
export function writeProgram(
  heading: ProgramHeading,
  cuts: readonly ProgramCut[],
  zero: { x: number; y: number; z: number },
  dialect: Dialect,
): Program {
  const { unit } = heading;
  const perUnit = unit === 'in' ? MM_PER_INCH : 1;
  const decimals = unit === 'in' ? dialect.decimals + 1 : dialect.decimals;
  const lines: string[] = [];
  const moves: LineMove[] = [];
  const ranges: Program['cuts'] = [];
  const number = (mm: number) => {
    const text = (mm / perUnit).toFixed(decimals).replace(/\.?0+$/, '');
    return text === '-0' || text === '' ? '0' : text;
  };
  const feedNumber = (mm: number) => String(Number((mm / perUnit).toFixed(unit === 'in' ? 2 : 0)) || 1);
  const say = (text: string) => lines.push(`(${comment(text)})`);

  say(`${heading.job} - revision ${heading.revision}, ${heading.date}`);
  say(`stock: ${heading.stock}`);
  say(`zero: ${heading.zero}`);
  say(`bench: ${heading.bench}`);
  say(`lift ${formatLength(heading.lift, unit)}, planned ${formatMinutes(heading.minutes)}`);
  for (const cut of cuts)
    say(
      `${cut.title}: ${cut.bit.name}, ${formatLength(cut.depth, unit, 3)} deep, feed ${formatFeed(cut.feed, unit)}, plunge ${formatFeed(cut.plunge, unit)}, ${cut.speed} rpm, ${formatMinutes(cut.minutes)}`,
    );
  lines.push(`G17 G40 G49 ${unit === 'in' ? 'G20' : 'G21'} G90 G94`, 'G54');

  let bit = -1;
  let speed = -1;
  cuts.forEach((cut, cutIndex) => {
    if (cut.bit.number !== bit) {
      if (bit >= 0) lines.push('M5');
      bit = cut.bit.number;
      say(`bit ${bit}: ${cut.bit.name}`);
      lines.push(`T${bit} M6`);
      speed = -1;
    }
    if (cut.speed !== speed) {
      speed = cut.speed;
      if (dialect.spindle === 'operator') {
        say(`start the spindle at ${speed} rpm`);
        lines.push('M0');
      } else lines.push(`S${speed} M3`, `G4 P${SPINDLE_SECONDS}`);
    }
    const from = lines.length;
    say(cut.title);
    const { xyz, feed } = cut.path;
    let [X, Y, Z] = ['', '', ''];
    let G = '';
    let F = '';
    for (let i = 0; i < feed.length; i++) {
      const x = number(xyz[3 * i] - zero.x);
      const y = number(xyz[3 * i + 1] - zero.y);
      const z = number(xyz[3 * i + 2] - zero.z);
      const words: string[] = [];
      if (i === 0) {
        // Up first, then across: the bit may be anywhere.
        lines.push(`G0 Z${z}`);
        lines.push(`G0 X${x} Y${y}`);
        moves.push({ line: lines.length - 1, cut: cutIndex, point: 0 });
        [X, Y, Z, G] = [x, y, z, 'G0'];
        continue;
      }
      if (x !== X) words.push(`X${x}`);
      if (y !== Y) words.push(`Y${y}`);
      if (z !== Z) words.push(`Z${z}`);
      if (words.length === 0) continue;
      const g = feed[i] > 0 ? 'G1' : 'G0';
      if (g !== G) words.unshift(g);
      if (g === 'G1') {
        const f = feedNumber(feed[i]);
        if (f !== F) words.push(`F${f}`);
        F = f;
      }
      lines.push(words.join(' '));
      moves.push({ line: lines.length - 1, cut: cutIndex, point: i });
      [X, Y, Z, G] = [x, y, z, g];
    }
    ranges.push({ id: cut.id, from, to: lines.length });
  });
  lines.push('M5', `G0 Z${number(heading.lift - zero.z)}`, 'G0 X0 Y0', 'M30');
  return { text: lines.join('\n') + '\n', cuts: ranges, moves };
}

/** Comments may not hold brackets; letters beyond ASCII are written without their accents, for old controllers. */
function comment(text: string): string {
  return text
    .replace(/[()]/g, ' ')
    .replace(/×/g, 'x')
    .replace(/°/g, ' deg')
    .replace(/[–—−]/g, '-')
    .normalize('NFKD')
    .replace(/[^\x20-\x7e]/g, '')
    .slice(0, 240);
}
