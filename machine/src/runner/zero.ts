import { z } from 'zod';
import { text } from '@kerbe/core/schema/text';

const Size = z.number().min(0).max(10_000);
const Place = z.number().min(-10_000).max(10_000);

/** A bit as the bench knows it: by identity, since two bits may have one name. */
export const BitSchema = z.object({
  id: text(60, 1),
  name: text(80),
  diameter: z.number().positive(),
  /** Included angle of a V-bit, degrees. */
  angle: z.number().positive().optional(),
  tip: z.number().min(0),
  /** Whether it turns, and whether it carries current, so that the touch plate feels it. */
  turns: z.boolean().default(true),
  conducts: z.boolean().default(true),
  /** What gives behind it when it is pressed: how far, mm, from which force on, N, and how wide it draws, mm. */
  spring: z
    .object({ travel: z.number().positive(), force: z.number().min(0), width: z.number().positive() })
    .nullable()
    .default(null),
  /** All that its kind calls its shape, and the same in words; older records have neither. */
  shape: z.record(text(30), z.union([text(60), z.number(), z.boolean(), z.null()])).optional(),
  words: text(400).optional(),
});
export type BitShape = z.infer<typeof BitSchema>;

/** A bit without when and by whom it was put in. */
export const shapeOf = ({
  id,
  name,
  diameter,
  angle,
  tip,
  turns,
  conducts,
  spring,
  shape,
  words,
}: BitShape): BitShape => ({ id, name, diameter, angle, tip, turns, conducts, spring, shape, words });

/**
 * Whether two are the same bit: the same of the job, of the same shape. What it is called may differ.
 *
 * @example sameBit(drill, { ...drill, diameter: 4 }) // false
 */
export function sameBit(a: BitShape, b: BitShape): boolean {
  const known = ({ id, diameter, angle, tip, turns, conducts, spring }: BitShape) =>
    JSON.stringify([id, diameter, angle ?? null, tip, turns, conducts, spring?.travel, spring?.force, spring?.width]);
  if (known(a) !== known(b)) return false;
  if (!a.shape || !b.shape) return true;
  const keys = new Set([...Object.keys(a.shape), ...Object.keys(b.shape)]);
  return [...keys].every((key) => (a.shape![key] ?? null) === (b.shape![key] ?? null));
}

/** Why a program that begins with a bit is not begun with the one that was said to be in; nothing where it is that one. */
export function otherBit(said: BitShape | undefined, needed: BitShape): string | undefined {
  if (said?.id !== needed.id) return `This begins with ${needed.name}; put it in and say so at Set-up.`;
  if (sameBit(said, needed)) return undefined;
  return `This begins with ${needed.name}, which is ${needed.words ?? 'of another shape'}; what was said to be in is ${said.words ?? 'not'}. See which is in, say so at Set-up, and find its height anew.`;
}

/** What a zero is a zero of: taken from the job when it is set, and compared with the job as it is now. */
export const BasisSchema = z.object({
  job: z.object({ id: text(60), name: text(120) }),
  stock: z.object({ material: text(60), length: Size, width: Size }),
  fixture: text(40),
  /** Where zero lies: which corner or the centre, and the top of the stock or the spoilboard. */
  placeXY: text(20),
  placeZ: z.enum(['stock', 'spoilboard']),
  /** The same place on the sheet, mm from its lower left corner. */
  at: z.object({ x: Place, y: Place }),
  /** Thickness at the lower left, lower right, upper right and upper left corner, mm. */
  corners: z.tuple([Size, Size, Size, Size]),
  /** The touch plate of a bench that has one, mm. */
  plate: z.object({ thickness: Size, side: Size, size: Size }).optional(),
});
export type Basis = z.infer<typeof BasisSchema>;

export const METHODS = ['corner', 'flat', 'spoilboard'] as const;
export const CORNERS = ['lower-left', 'lower-right', 'upper-right', 'upper-left'] as const;
/** How a zero is found with the touch plate: over a corner for X, Y and Z, flat on the stock or on the spoilboard for Z. */
export type Method = (typeof METHODS)[number];

/** How a height is found by hand over the top of the stock: a slip of paper that drags, the eye, or a gauge under the tip. */
export const HAND_HEIGHTS = ['paper', 'eye', 'gauge'] as const;
/** How a place is found by hand: over the mark of zero by sight, or by the corner stop that the stock lies in. */
export const HAND_PLACES = ['sight', 'stop'] as const;
export type HandMethod = (typeof HAND_HEIGHTS)[number] | (typeof HAND_PLACES)[number];

/** How a height is found by a machine that feels for the surface itself. */
export type AnyMethod = Method | HandMethod | 'felt';

/** Whether a zero was found with the touch plate. */
const byPlate = (method: AnyMethod): method is Method => (METHODS as readonly string[]).includes(method);
export type Corner = (typeof CORNERS)[number];

/** What may happen to a zero. */
export type Change =
  | 'other-job'
  | 'other-stock'
  | 'board-moved'
  | 'other-place'
  | 'other-surface'
  | 'other-plate'
  | 'plate-not-used'
  | 'thickness-derived'
  | 'thickness-top'
  | 'thickness-board'
  | 'bit'
  | 'homed'
  | 'link-lost'
  | 'reset'
  | 'position-lost'
  | 'emergency-at-rest';

type Fate = 'kept' | 'void' | 'void until measured';

/** One row of the truth table. */
export interface TruthRow {
  change: Change;
  /** The change in words, as docs/safety.md has it. */
  when: string;
  xy: Fate;
  z: Fate;
  /** Said of a zero that the change made void or that is kept with a warning. */
  says: string;
}

/** What becomes of a zero, X and Y apart from Z. docs/safety.md prints this table, and a test walks it. */
export const TRUTH: readonly TruthRow[] = [
  { change: 'other-job', when: 'another job', xy: 'void', z: 'void', says: 'it was set for another job' },
  {
    change: 'other-stock',
    when: 'other stock: its material or its size is not what it was',
    xy: 'void',
    z: 'void',
    says: 'it was set on other stock',
  },
  {
    change: 'board-moved',
    when: 'the board was moved, turned or held anew',
    xy: 'void',
    z: 'void',
    says: 'the board was moved since it was set',
  },
  {
    change: 'other-place',
    when: 'the job’s zero corner, or the centre, chosen anew',
    xy: 'void',
    z: 'kept',
    says: 'the job’s zero lies elsewhere on the board now',
  },
  {
    change: 'other-surface',
    when: 'zero on the top of the stock ↔ on the spoilboard',
    xy: 'kept',
    z: 'void',
    says: 'the job counts its depths from another surface now',
  },
  {
    change: 'other-plate',
    when: 'other measures of the touch plate it was found with',
    xy: 'kept',
    z: 'void',
    says: 'the bench’s touch plate has other measures now',
  },
  {
    change: 'plate-not-used',
    when: 'other measures of the touch plate, of a zero found by paper, by eye, with a gauge, by sight or by the corner stop',
    xy: 'kept',
    z: 'kept',
    says: 'the bench’s touch plate has other measures now, and it was found without',
  },
  {
    change: 'thickness-derived',
    when: 'a thickness by which the height was reckoned from another place than the one touched: of one corner, or under a zero on the board',
    xy: 'kept',
    z: 'void',
    says: 'it was reckoned with a thickness of the stock that has changed',
  },
  {
    change: 'thickness-top',
    when: 'thickness of the stock, all over alike, with zero on its top',
    xy: 'kept',
    z: 'kept',
    says: 'the thickness was changed since zero was set; the depths are judged by the new one',
  },
  {
    change: 'thickness-board',
    when: 'thickness of the stock, with zero touched on the spoilboard',
    xy: 'kept',
    z: 'kept',
    says: 'the thickness was changed since zero was set; the lift is judged by the new one',
  },
  {
    change: 'bit',
    when: 'the bit taken out or put in: said in the walk, or another length measured',
    xy: 'kept',
    z: 'void until measured',
    says: 'another bit was put in, and its length is not measured yet',
  },
  { change: 'homed', when: 'homed again, with no loss before it', xy: 'kept', z: 'kept', says: '' },
  { change: 'link-lost', when: 'the link was lost', xy: 'void', z: 'void', says: 'the link to the machine was lost' },
  { change: 'reset', when: 'the machine was reset', xy: 'void', z: 'void', says: 'the machine was reset' },
  {
    change: 'position-lost',
    when: 'steps in doubt: an emergency stop in motion, a crash, a limit, the bit driven into something',
    xy: 'void',
    z: 'void',
    says: 'the machine stopped in a way that leaves its position in doubt',
  },
  {
    change: 'emergency-at-rest',
    when: 'the emergency stop pressed while it stands (at a router the usual way to make safe for a bit)',
    xy: 'kept',
    z: 'void until measured',
    says: 'the emergency stop was pressed while it stood, and the tool’s height has not been found since',
  },
];

const ROW = new Map(TRUTH.map((row) => [row.change, row]));
export const truthOf = (change: Change): TruthRow => ROW.get(change)!;

/** A thickness counts as changed from here, mm. */
const SAME = 0.0005;

/** One part of a zero, X and Y or Z: what it was found with, when and by whom, and what has made it void since. */
export interface ZeroPart {
  at: string;
  by: string;
  method: AnyMethod;
  corner?: Corner;
  /** How the sheet lies turned about zero, radians, where a second place on its edge was pointed at. */
  turn?: number;
  /** Found by hand: how far the tip stood over the surface, mm. */
  over?: number;
  bit: BitShape;
  basis: Basis;
  /** Void for this reason, until it is set (or measured) again. */
  void?: Change;
  /** Moved by hand since, mm. */
  nudged?: number;
}

/** The zero of a bench. Its parts are `undefined` where they were never set. */
export interface Zero {
  xy?: ZeroPart;
  z?: ZeroPart & {
    /** Where this bit touched the tool setter, machine coordinates, mm; a bit measured later is compared with it. */
    reading?: number;
  };
}

/** Height of the surface that is touched over the spoilboard, mm, by the thicknesses typed. */
export function surfaceUnder({ corners }: Basis, method: AnyMethod, corner: Corner = 'lower-left'): number {
  if (method === 'spoilboard') return 0;
  const [ll, lr, ur, ul] = corners;
  return method === 'corner' ? corners[CORNERS.indexOf(corner)] : (ll + lr + ur + ul) / 4;
}

/** From the surface that is touched up to the job's zero, mm. On even stock of 9 mm touched on its top: 0. */
export function riseOf(basis: Basis, method: AnyMethod, corner?: Corner): number {
  return (basis.placeZ === 'stock' ? Math.max(...basis.corners) : 0) - surfaceUnder(basis, method, corner);
}

/** From the corner that is touched to the job's zero across the sheet, mm. */
export function acrossFrom({ at, stock }: Basis, corner: Corner): { x: number; y: number } {
  return {
    x: at.x - (corner.endsWith('right') ? stock.length : 0),
    y: at.y - (corner.startsWith('upper') ? stock.width : 0),
  };
}

/** What has changed between the basis of a zero's part and the one it is to be used with now. */
function changes(part: ZeroPart, now: Basis): Change[] {
  const then = part.basis;
  const out: Change[] = [];
  if (then.job.id !== now.job.id) out.push('other-job');
  const other = (a: number, b: number) => Math.abs(a - b) > SAME;
  if (
    then.stock.material !== now.stock.material ||
    other(then.stock.length, now.stock.length) ||
    other(then.stock.width, now.stock.width)
  )
    out.push('other-stock');
  if (then.fixture !== now.fixture) out.push('board-moved');
  if (then.placeXY !== now.placeXY) out.push('other-place');
  if (then.placeZ !== now.placeZ) out.push('other-surface');
  else if (then.corners.some((thick, k) => other(thick, now.corners[k]))) {
    // Where the way from the touched place to zero is another, zero itself would be; else only the judging changes.
    if (other(riseOf(then, part.method, part.corner), riseOf(now, part.method, part.corner)))
      out.push('thickness-derived');
    else out.push(now.placeZ === 'stock' ? 'thickness-top' : 'thickness-board');
  }
  const plate = (['thickness', 'side', 'size'] as const).some((key) =>
    other(then.plate?.[key] ?? 0, now.plate?.[key] ?? 0),
  );
  if (plate) out.push(byPlate(part.method) ? 'other-plate' : 'plate-not-used');
  return out;
}

export interface ZeroJudgement {
  xy: 'kept' | 'void' | 'not set';
  z: 'kept' | 'void' | 'not set';
  /** Why a part is void. */
  voidXY?: Change;
  voidZ?: Change;
  /** Changes that void nothing and are to be said. */
  said: Change[];
  /** The tool that Z was found with was measured: another is brought along by measuring it. */
  measurable?: boolean;
}

/**
 * Whether a zero still holds for a job as it is now.
 *
 * @example set on the top of the stock, the job's zero now on the spoilboard: xy kept, z void by `other-surface`
 */
export function judgeZero(zero: Zero | undefined, now: Basis): ZeroJudgement {
  const said: Change[] = [];
  const judge = (part: ZeroPart | undefined, axes: 'xy' | 'z'): ['kept' | 'void' | 'not set', Change?] => {
    if (!part) return ['not set'];
    if (part.void) return ['void', part.void];
    for (const change of changes(part, now)) {
      const row = truthOf(change);
      if (row[axes] !== 'kept') return ['void', change];
      if (axes === 'z' && row.z === 'kept' && row.xy === 'kept') said.push(change);
    }
    return ['kept'];
  };
  const [xy, voidXY] = judge(zero?.xy, 'xy');
  const [z, voidZ] = judge(zero?.z, 'z');
  return { xy, z, voidXY, voidZ, said, ...(zero?.z?.reading !== undefined && { measurable: true }) };
}

/** What a happening at the bench leaves of a zero. A part that is void already keeps its first reason. */
export function afterwards(zero: Zero, change: Change): Zero {
  const row = truthOf(change);
  const mark = <P extends ZeroPart>(part: P | undefined, fate: Fate): P | undefined =>
    part && fate !== 'kept' && (!part.void || (fate === 'void' && truthOf(part.void).z === 'void until measured'))
      ? { ...part, void: change }
      : part;
  return { xy: mark(zero.xy, row.xy), z: mark(zero.z, row.z) };
}

/** Why a zero cannot be used, in one sentence; nothing where it can. */
export function zeroTrouble({ xy, z, voidXY, voidZ, measurable }: ZeroJudgement): string | undefined {
  const missing = [xy === 'not set' && 'X and Y', z === 'not set' && 'Z'].filter(Boolean);
  if (missing.length === 2) return 'Zero is not set for this job; set it at Set-up.';
  if (missing.length === 1) return `Zero in ${missing[0]} is not set; set it at Set-up.`;
  const parts: string[] = [];
  if (voidXY && voidXY === voidZ)
    return `Zero does not hold any more: ${truthOf(voidXY).says}. Set it again at Set-up.`;
  if (voidXY) parts.push(`Zero in X and Y does not hold any more: ${truthOf(voidXY).says}.`);
  if (voidZ) parts.push(`Zero in Z does not hold any more: ${truthOf(voidZ).says}.`);
  if (parts.length === 0) return undefined;
  const measure = measurable && voidZ && !voidXY && truthOf(voidZ).z === 'void until measured';
  return `${parts.join(' ')} ${measure ? 'Measure the bit, or set' : 'Set'} it again at Set-up.`;
}
