import { formatLength, formatMinutes } from '../quantity/format.ts';
import type { LengthUnit } from '../quantity/units.ts';
import { decimalsIn, mmPer, unitWord } from '../quantity/units.ts';
import type { Path, Shade } from '../motion/path.ts';
import type { Piercing } from '../motion/piercing.ts';
import type { Dwells } from '../motion/plan.ts';
import type { Hole } from '../ways/drill.ts';
import { PLUNGE_CLEARANCE } from '../ways/plunge-clearance.ts';
import type { BesideCut } from './between-cuts.ts';
import { BlockWriter } from './block-writer.ts';
import type { Dialect } from './dialect.ts';
import type { Begins, PostLine } from './post.ts';
import { howDriven } from './how-driven.ts';
import { fitArcs, type FittedMove } from './fit-arcs.ts';
import { LineList } from './line-list.ts';

/** One cut of a program, in the order they are made. */
export interface ProgramCut {
  id: string;
  title: string;
  bit: { number: number; name: string };
  path: Path;
  /** Deepest point below the top of the stock, and how far a tool is pressed that takes nothing away, mm. */
  depth: number;
  pressed: number;
  turns: boolean;
  /** Its tool stays at one height. */
  flat?: true;
  /** How much of its power it cuts with at most, 0 to 1, where that is set. */
  power?: number;
  air?: boolean;
  feed: number;
  plunge: number;
  speed: number;
  minutes: number;
  /** How much wider the bit cuts a mm of depth, mm; 0 where its walls are upright. */
  slope?: number;
  /** Further settings for the heading: steps, sides, allowances. */
  details?: string;
  /** Only of drilling, for controllers that do it by cycles of their own. */
  drilling?: { holes: readonly Hole[]; depth: number; peck: number; retract: 'full' | 'short'; dwell: number };
  dwells?: Dwells;
  pierce?: Piercing;
  /** What the program spends beside this cut. */
  beside: BesideCut;
}

export interface ProgramHeading {
  job: string;
  revision: string;
  date: string;
  stock: string;
  zero: string;
  bench: string;
  unit: LengthUnit;
  /** What else someone has to know of it, a line each, as it goes on from “this program”. */
  notes?: readonly string[];
  lift: number;
  /** Height at which the bit comes from anywhere, over all that holds the work, mm above the stock. */
  approach: number;
  /** The bench’s parking place, machine coordinates, mm; without one the bit is parked over zero. */
  park: { x: number; y: number } | null;
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
  cuts: { id: string; title: string; bit: string; from: number; to: number }[];
  /** For every line that moves along a cut's path. */
  moves: LineMove[];
  /** Planned, with all it spends between its cuts, without bit changes. */
  minutes: number;
}

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
  const perUnit = mmPer(unit);
  const decimals = decimalsIn(dialect.decimals, unit);
  const lines = new LineList();
  const moves: LineMove[] = [];
  const ranges: Program['cuts'] = [];
  const number = (mm: number) => {
    const text = (mm / perUnit).toFixed(decimals).replace(/\.?0+$/, '');
    return text === '-0' || text === '' ? '0' : text;
  };
  /** A height of a bit that widens upwards is rounded upwards, so that rounding never cuts past the line. */
  const height = (mm: number, slope: number) =>
    number(slope > 0 ? (Math.ceil((mm / perUnit) * 10 ** decimals - 1e-6) / 10 ** decimals) * perUnit : mm);
  const feedNumber = (mm: number) => {
    if (!(mm > 0)) throw new Error('A move that cuts has no feed.');
    return String(Number((mm / perUnit).toFixed(decimalsIn(0, unit))) || 1);
  };
  const fine = 10 ** decimals;
  const block = new BlockWriter(decimals);
  const minutes = cuts.reduce((sum, cut) => sum + cut.beside.before + cut.minutes + cut.beside.after, 0);
  const zeroAt = [zero.x, zero.y, zero.z];
  const { post } = dialect;
  const put = (all: readonly PostLine[]) => {
    for (const one of all)
      if ('say' in one) say(one.say);
      else lines.push(one.line);
  };
  const say = (text: string) =>
    lines.push(dialect.comment === 'brackets' ? `(${comment(text)})` : `; ${comment(text)}`);

  say(`${heading.job} - revision ${heading.revision}, ${heading.date}`);
  say(`stock: ${heading.stock}`);
  say(`zero: ${heading.zero}`);
  say(`bench: ${heading.bench}`);
  const flat = cuts.every((cut) => cut.flat);
  say(`${flat ? '' : `lift ${formatLength(heading.lift, unit)}, `}planned ${formatMinutes(minutes)}`);
  for (const note of heading.notes ?? []) say(`this program ${note}`);
  for (const cut of cuts)
    say([`${cut.title}: ${cut.bit.name}`, ...howDriven(cut, unit), cut.details, formatMinutes(cut.minutes)].filter(Boolean).join(', ')); // prettier-ignore
  if (cuts.some(({ turns }) => !turns)) say(NEVER_TURNED);
  const modes = `G17 ${unitWord(unit)} G90 G94 G54`;
  const park = dialect.park === 'place' && !heading.park ? 'zero' : dialect.park;
  say(`at the end: ${(flat ? PARKED_LEVEL : PARKED)[park]}`);
  lines.push('G40 G49', modes);

  const follow = (cut: ProgramCut, cutIndex: number) => {
    const { path } = cut;
    const { xyz, feed, rapid, power, shades } = path;
    const { slope = 0 } = cut;
    const placeOf = (point: number) => [
      number(xyz[3 * point] - zeroAt[0]),
      number(xyz[3 * point + 1] - zeroAt[1]),
      height(xyz[3 * point + 2] - zeroAt[2], slope),
    ];
    const dwells = new Set(cut.dwells?.points);
    const touches = new Set(cut.pierce?.touches);
    const level = new Set(cut.pierce?.level);
    const beside = new Set(cut.pierce?.beside);
    const strokes = strokeEnds(path);
    // Up first, then across: the bit may be anywhere.
    let at = placeOf(0);
    const high = number(heading.approach - zero.z);
    if (cut.flat) lines.push(`G0 X${at[0]} Y${at[1]}`);
    else {
      lines.push(`G0 Z${high}`, `G0 X${at[0]} Y${at[1]}`);
      if (high !== at[2]) lines.push(`G0 Z${at[2]}`);
    }
    moves.push({ line: lines.length - 1, cut: cutIndex, point: 0 });
    let G = 'G0';
    let F = '';
    const words = new Map<number, string>();
    /** Of dots there are two powers: what was said last, and before that, is at hand. */
    let [lastShare, lastWord, otherShare, otherWord] = [NaN, '', NaN, ''];
    const powerWord = (share: number): string => {
      if (share === lastShare) return lastWord;
      if (share === otherShare) return otherWord;
      let word = words.get(share);
      if (word === undefined) {
        const said = post.power(share);
        words.set(share, (word = said ? ` ${said}` : ''));
      }
      otherShare = lastShare;
      otherWord = lastWord;
      lastShare = share;
      lastWord = word;
      return word;
    };
    /** A straight move whose power changes along it: a line for each stretch, as far as rounding leaves it one. */
    const writeShaded = (point: number, { ends, power: shares }: Shade) => {
      const [ax, ay] = [xyz[3 * point - 3] - zero.x, xyz[3 * point - 2] - zero.y];
      const [dx, dy] = [xyz[3 * point] - zero.x - ax, xyz[3 * point + 1] - zero.y - ay];
      const length = ends[ends.length - 1];
      const f = feedNumber(feed[point]);
      let [x, y] = [Math.round(Number(at[0]) * fine), Math.round(Number(at[1]) * fine)];
      // The loop of millions: nothing in it is looked up further away than here.
      const [perX, perY, toFine] = [dx / length, dy / length, fine / perUnit];
      const n = ends.length;
      let power = on;
      let said = false;
      for (let k = 0; k < n; k++) {
        const nextX = dx === 0 ? x : Math.round((ax + perX * ends[k]) * toFine);
        const nextY = dy === 0 ? y : Math.round((ay + perY * ends[k]) * toFine);
        if (nextX === x && nextY === y) continue;
        if (!said && G !== 'G1') block.word('G1 ');
        if (nextX !== x) block.number(LETTER_X, nextX);
        if (nextY !== y) {
          if (nextX !== x) block.word(' ');
          block.number(LETTER_Y, nextY);
        }
        if (!said && f !== F) block.word(` F${f}`);
        said = true;
        if (shares[k] !== power) block.word(powerWord((power = shares[k])));
        block.end();
        x = nextX;
        y = nextY;
      }
      if (said) [G, F, on] = ['G1', f, power];
      lines.block(block.take());
      moves.push({ line: lines.length - 1, cut: cutIndex, point });
      at = [number((x / fine) * perUnit), number((y / fine) * perUnit), at[2]];
    };
    const fitted: FittedMove[] =
      dialect.arcs === 'none'
        ? Array.from({ length: feed.length - 1 }, (_, i) => ({ point: i + 1 }))
        : fitArcs(path, { slope, mostTurn: dialect.arcs === 'radius' ? MOST_TURN_BY_RADIUS : undefined });
    let before = 0;
    /** How much power is on: 0 between strokes. */
    let on = 0;
    let led: Pick<Begins, 'beside'> = {};
    const closeStroke = () => {
      if (on > 0) put(post.end(led));
      on = 0;
    };
    for (const { point, arc } of fitted) {
      const to = placeOf(point);
      const centre = arc && arcWords(at, to, [arc.x - zero.x, arc.y - zero.y], arc.clockwise);
      // An arc whose rounded numbers no longer describe one is written as the moves it stood for.
      const ends = arc && !centre ? Array.from({ length: point - before }, (_, k) => before + 1 + k) : [point];
      for (const end of ends) {
        const words: string[] = [];
        const target = end === point ? to : placeOf(end);
        'XYZ'.split('').forEach((letter, k) => {
          if (target[k] !== at[k] || (centre && k < 2)) words.push(`${letter}${target[k]}`);
        });
        const shade = shades?.get(end);
        if (shade) writeShaded(end, shade);
        else if (touches.has(end) && post.touch) {
          closeStroke();
          put(post.touch({ z: (over) => number(over - zeroAt[2]), feed: feedNumber(feed[end]) }));
          moves.push({ line: lines.length - 1, cut: cutIndex, point: end });
          [G, F, at] = ['', '', target];
        } else if (words.length > 0) {
          // Kept in single precision; a hundredth of a per cent is all that a machine is told.
          const share = Math.round(power[end] * 1e4) / 1e4;
          const set = post.powerInMoves && on !== share ? post.power(share) : undefined;
          if (post.powerInMoves) {
            // Said in the move itself.
          } else if (share === 0) closeStroke();
          else if (on === 0) {
            led = beside.has(strokes[end]) ? { beside: cut.pierce!.scrapOnLeft ? 'left' : 'right' } : {};
            put(post.begin(share, { delay: cut.pierce?.delay ?? 0, level: level.has(strokes[end]), ...led }));
          } else if (on !== share) words.push(...[post.power(share)].filter((word) => word !== undefined));
          on = share;
          const g = centre ? (arc!.clockwise ? 'G2' : 'G3') : rapid[end] ? 'G0' : 'G1';
          if (g !== G) words.unshift(g);
          if (centre) words.push(centre);
          if (g !== 'G0') {
            const f = feedNumber(feed[end]);
            if (f !== F) words.push(`F${f}`);
            F = f;
          }
          if (set !== undefined) words.push(set);
          lines.push(words.join(' '));
          moves.push({ line: lines.length - 1, cut: cutIndex, point: end });
          G = g;
          at = target;
        }
        if (dwells.has(end)) lines.push(`G4 P${cut.dwells!.seconds}`);
      }
      before = point;
    }
    closeStroke();
  };

  /** I and J, or R, of an arc between rounded ends; nothing where the rounding breaks it. */
  const arcWords = (from: string[], to: string[], centre: number[], clockwise: boolean): string | undefined => {
    const [fx, fy, tx, ty] = [from[0], from[1], to[0], to[1]].map((text) => Number(text) * perUnit);
    if (fx === tx && fy === ty) return undefined;
    const [i, j] = [number(centre[0] - fx), number(centre[1] - fy)];
    const [ci, cj] = [fx + Number(i) * perUnit, fy + Number(j) * perUnit];
    const r = Math.hypot(fx - ci, fy - cj);
    // NISTIR 6556 §3.5.3.2 lets the two radii differ by 0.002 mm.
    if (r < 0.01 || Math.abs(r - Math.hypot(tx - ci, ty - cj)) > 0.0018) return undefined;
    const turn = Math.atan2(
      (fx - ci) * (ty - cj) - (fy - cj) * (tx - ci),
      (fx - ci) * (tx - ci) + (fy - cj) * (ty - cj),
    );
    if (clockwise ? turn >= 0 : turn <= 0) return undefined;
    if (dialect.arcs === 'centre') return `I${i} J${j}`;
    const mean = (r + Math.hypot(tx - ci, ty - cj)) / 2;
    const half = Math.hypot(tx - fx, ty - fy) / 2;
    const written = number(Math.max(mean, half + 0.0005));
    // From a rounded radius the controller finds another centre, the further the more the arc turns.
    const rise = (radius: number) => Math.sqrt(Math.max(0, radius * radius - half * half));
    return Math.abs(rise(Number(written) * perUnit) - rise(mean)) > 0.003 ? undefined : `R${written}`;
  };

  /** The cycle that drills just as its path does; nothing where none says a short retract, or a dwell after pecks. */
  const cycleFor = ({ peck, depth, retract, dwell }: NonNullable<ProgramCut['drilling']>): string | undefined => {
    if (peck > 0 && peck < depth) return retract === 'full' && dwell === 0 ? `G83 Q${number(peck)}` : undefined;
    return dwell > 0 ? `G82 P${Number(dwell.toFixed(2))}` : 'G81';
  };

  const drillByCycle = (cut: ProgramCut, cutIndex: number, cycle: string) => {
    const { holes, depth } = cut.drilling!;
    const top = Math.min(heading.lift, PLUNGE_CLEARANCE);
    // A cycle goes over from hole to hole at the height it began at.
    lines.push(`G0 Z${number(heading.approach - zero.z)}`);
    holes.forEach(({ x, y }, k) => {
      const place = `X${number(x - zero.x)} Y${number(y - zero.y)}`;
      lines.push(
        k === 0
          ? `G98 ${cycle} ${place} Z${number(-depth - zero.z)} R${number(top - zero.z)} F${feedNumber(cut.plunge)}`
          : place,
      );
      moves.push({ line: lines.length - 1, cut: cutIndex, point: lastPointAt(cut.path, x, y) });
    });
    lines.push('G80');
  };

  let bit = -1;
  let set: ProgramCut | undefined;
  cuts.forEach((cut, cutIndex) => {
    if (cut.bit.number !== bit) {
      put(post.tool({ ...cut.bit, turns: cut.turns }, modes, bit >= 0));
      bit = cut.bit.number;
      set = undefined;
    }
    if (!set || !post.alike(set, cut)) put(post.set(cut));
    set = cut;
    const from = lines.length;
    say(cut.title);
    const cycle = cut.drilling && dialect.drilling === 'cycles' ? cycleFor(cut.drilling) : undefined;
    if (cycle) drillByCycle(cut, cutIndex, cycle);
    else follow(cut, cutIndex);
    ranges.push({ id: cut.id, title: cut.title, bit: cut.bit.name, from, to: lines.length });
  });
  if (!flat) lines.push(`G0 Z${number(heading.approach - zero.z)}`);
  put(post.off());
  if (park !== 'stay' && !flat) lines.push('G53 G0 Z0');
  if (park === 'place') lines.push(`G53 G0 X${number(heading.park!.x)} Y${number(heading.park!.y)}`);
  else if (park === 'zero') lines.push('G0 X0 Y0');
  lines.push('M30');
  return { text: lines.text(dialect.numbers), cuts: ranges, moves, minutes };
}

/** For every point with power on the last point of its stroke. */
function strokeEnds({ power }: Path): Uint32Array {
  const out = new Uint32Array(power.length);
  for (let i = power.length - 1; i >= 0; i--) out[i] = i + 1 < power.length && power[i + 1] > 0 ? out[i + 1] : i;
  return out;
}

/** What a heading warns of where a tool in it must not be turned. */
const NEVER_TURNED = 'a tool of this program does not turn: the spindle is never on while it is in';

const [LETTER_X, LETTER_Y] = [88, 89];

/** Arcs given by their radius turn less, radians: the nearer to half a turn, the more its rounding moves them. */
const MOST_TURN_BY_RADIUS = (100 * Math.PI) / 180;

/** What a program’s heading says of where it ends. */
const PARKED = {
  place: 'lifted, to the parking place of the bench',
  zero: 'lifted as high as it goes, over zero',
  stay: 'lifted where it is',
} as const;

/** The same of a tool that stays at its height. */
const PARKED_LEVEL = { place: 'to the parking place of the bench', zero: 'over zero', stay: 'where it is' } as const;

/** The last of a path's points over a place. */
function lastPointAt({ xyz }: Path, x: number, y: number): number {
  for (let i = xyz.length - 3; i >= 0; i -= 3) if (xyz[i] === x && xyz[i + 1] === y) return i / 3;
  return 0;
}

/** Comments may not hold brackets; letters beyond ASCII are written without their accents, for old controllers. */
function comment(text: string): string {
  return (
    text
      .replace(/×/g, 'x')
      .replace(/°/g, ' deg')
      .replace(/[–—−]/g, '-')
      .normalize('NFKD')
      .replace(/[^\x20-\x7e]/g, '')
      // Last: wide brackets and the like have become plain ones by now.
      .replace(/[()]/g, ' ')
      .replace(/;/g, ',')
      .slice(0, 240)
  );
}
