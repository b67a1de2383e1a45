import { z } from 'zod';
import { BitSchema } from '../bits/bit.ts';
import { LimitsSchema } from '../motion/limits.ts';
import { DIALECT_NAMES } from '../program/dialect.ts';
import { StockSchema } from '../stock/stock.ts';
import { list } from '../schema/list.ts';
import { text } from '../schema/text.ts';

const Id = z.string().regex(/^[A-Za-z0-9_-]{1,40}$/);
const Place = z.number().min(-10_000).max(10_000);
const Hash = z.string().regex(/^[0-9a-f]{64}$/);

export const FACES = ['fraunces', 'josefin', 'rokkitt'] as const;

const Placed = {
  id: Id,
  name: text(120, 1),
  /** Position of the item's own origin on the sheet, mm. */
  x: Place,
  y: Place,
  /** Turn counter-clockwise, degrees. */
  rotation: z.number().min(-360).max(360),
};

export const DrawingItemSchema = z.object({
  ...Placed,
  kind: z.literal('drawing'),
  /** SHA-256 of the imported file, which is kept as it came. */
  asset: Hash,
  scaleX: z.number().positive().max(1000),
  scaleY: z.number().positive().max(1000),
  /** Join the two ends of outlines that were drawn open. */
  closeOpen: z.boolean(),
  /** Draw closed outlines anew with few smooth curves that stray no further than this, mm; 0 leaves them as drawn. */
  refit: z.number().min(0).max(2).default(0),
});

export const LetteringItemSchema = z.object({
  ...Placed,
  kind: z.literal('lettering'),
  text: text(2000),
  face: z.enum(FACES),
  capHeight: z.number().positive().max(2000),
  tracking: z.number().min(-500).max(5000),
  leading: z.number().positive().max(10),
  align: z.enum(['left', 'centre', 'right']),
});

export const ItemSchema = z.discriminatedUnion('kind', [DrawingItemSchema, LetteringItemSchema]);

/** What a cut works on: a whole item, or some of its shapes by number. */
export const TargetSchema = z.object({
  item: Id,
  shapes: z.union([z.literal('all'), list(z.number().int().min(0), 10_000)]),
});

const CutBase = {
  id: Id,
  targets: list(TargetSchema, 500),
  bit: Id,
  feed: z.number().positive().max(50_000),
  plunge: z.number().positive().max(50_000),
  /** Turns of the spindle a minute. */
  speed: z.number().min(0).max(100_000),
};

/** Bits that clear before the cut's own, the largest first. */
const ClearBits = list(Id, 5).default([]);
const Tabs = z.object({
  count: z.number().int().min(0).max(100),
  length: z.number().positive().max(100),
  height: z.number().positive().max(100),
  shape: z.enum(['square', 'ramped']).default('square'),
  /** Places chosen by hand, on the sheet, mm; they take the place of the count. */
  at: list(z.object({ x: Place, y: Place }), 100).default([]),
});
const StartPlace = z.object({ x: Place, y: Place });
const Depths = {
  depth: z.number().positive().max(200),
  depthPerPass: z.number().positive().max(100),
  /** Thickness of a thin last pass, mm; 0 for even passes. */
  lastPass: z.number().min(0).max(20).default(0),
};

export const VCarveCutSchema = z.object({
  ...CutBase,
  kind: z.literal('v-carve'),
  depthLimit: z.number().positive().max(200),
  floorStep: z.number().positive().max(50),
  startDepth: z.number().min(0).max(200).default(0),
  /** Most that is taken at once, mm; null carves in one go. */
  depthPerPass: z.number().positive().max(100).nullable().default(null),
  clearBits: ClearBits,
});

export const ProfileCutSchema = z.object({
  ...CutBase,
  ...Depths,
  kind: z.literal('profile'),
  side: z.enum(['outside', 'inside', 'on']),
  climb: z.boolean(),
  tabs: Tabs,
  /** Left at the bottom of the stock, mm; 0 cuts as deep as asked. */
  skin: z.number().min(0).max(50).default(0),
  /** Wood left on the wall for a last round, mm. */
  finish: z.number().min(0).max(10).default(0),
  lead: z
    .object({ kind: z.enum(['none', 'line', 'arc']), length: z.number().positive().max(100) })
    .default({ kind: 'none', length: 3 }),
  /** Slope of the way down, degrees; 0 plunges. */
  ramp: z.number().min(0).max(45).default(0),
  overlap: z.number().min(0).max(100).default(0),
  /**
   * Where its loops start, on the sheet, mm: each at its point nearest to one of these; none lets Kerbe choose. Older
   * jobs have one place or null.
   */
  start: z
    .union([list(StartPlace, 1000), StartPlace, z.null()])
    .default([])
    .transform((places) => (places === null ? [] : Array.isArray(places) ? places : [places])),
});

export const EntrySchema = z.object({
  kind: z.enum(['ramp', 'helix', 'plunge']),
  /** Slope, degrees. */
  angle: z.number().positive().max(45),
});

export const PocketCutSchema = z.object({
  ...CutBase,
  ...Depths,
  kind: z.literal('pocket'),
  startDepth: z.number().min(0).max(200).default(0),
  step: z.number().positive().max(100),
  pattern: z.enum(['rings', 'lines']),
  /** Direction of lines, degrees from x. */
  angle: z.number().min(-360).max(360).default(0),
  climb: z.boolean(),
  finish: z.number().min(0).max(10).default(0),
  entry: EntrySchema,
  /** Whether rings may begin with a slot as wide as the bit, instead of loops that open the pocket. */
  slots: z.boolean().default(false),
  clearBits: ClearBits,
});

export const DrillCutSchema = z.object({
  ...CutBase,
  kind: z.literal('drill'),
  depth: z.number().positive().max(200),
  peck: z.number().min(0).max(100),
  retract: z.enum(['full', 'short']),
  /** Seconds at the bottom. */
  dwell: z.number().min(0).max(60),
});

export const InlayCutSchema = z.object({
  ...CutBase,
  ...Depths,
  kind: z.literal('inlay'),
  role: z.enum(['recess', 'part']),
  /** Diameter of the bit that makes the counterpart, mm; corners are rounded for the larger of the two. */
  otherDiameter: z.number().positive().max(200),
  /** Gap a side, mm. */
  allowance: z.number().min(-1).max(2),
  /** Step of the recess, mm. */
  step: z.number().positive().max(100),
  climb: z.boolean(),
  entry: EntrySchema,
  /** Of the part only. */
  tabs: Tabs,
  /** Where the part is laid beside its place, mm. */
  shift: z.object({ x: Place, y: Place }),
});

export const CutSchema = z.discriminatedUnion('kind', [
  VCarveCutSchema,
  ProfileCutSchema,
  PocketCutSchema,
  DrillCutSchema,
  InlayCutSchema,
]);

export const BenchSchema = z.object({
  id: Id,
  name: text(80, 1),
  /** What drives it: the simulated router that ships with Kerbe, or nothing (programs are carried over by hand). */
  link: z.enum(['stand-in', 'file']),
  /** Reach of each axis, mm. */
  travel: z.object({ x: z.number().positive(), y: z.number().positive(), z: z.number().positive() }),
  limits: LimitsSchema,
  spindle: z.object({ min: z.number().min(0), max: z.number().positive() }),
  /** Touch plate: thickness over the stock, how far its sides stand out from the corner, and its size, mm. */
  plate: z.object({ thickness: z.number().min(0), side: z.number().min(0), size: z.number().positive() }),
  /** Where the tool setter stands, machine coordinates, mm; null where there is none. */
  setter: z.object({ x: z.number(), y: z.number() }).nullable(),
  dialect: z.enum(DIALECT_NAMES),
  /** Where the bit is parked at the end of a program, machine coordinates, mm; null where there is no such place. */
  park: z
    .object({ x: z.number().min(0).max(10_000), y: z.number().min(0).max(10_000) })
    .nullable()
    .default(null),
  /** Seconds after which the machine lifts and stops its spindle by itself when it hears nothing from Kerbe. */
  spindleAfter: z.number().min(0).max(600).default(20),
  /** Minutes an operator takes for a bit change. */
  bitChangeMinutes: z.number().min(0).max(120),
});

/** The job document: everything a piece of work needs, from artwork to bench. Lengths in mm, feeds in mm/min. */
export const JobSchema = z.object({
  format: z.literal('kerbe-job'),
  version: z.literal(1),
  name: text(120, 1),
  unit: z.enum(['mm', 'in']),
  stock: StockSchema,
  artwork: list(ItemSchema, 500),
  bits: list(BitSchema, 60),
  cuts: list(CutSchema, 200),
  /** Cuts are made in the order listed, as the carver put them, and not by the trade’s rule. */
  ownOrder: z.boolean().default(false),
  bench: BenchSchema,
  notes: text(20_000),
});

export type Job = z.infer<typeof JobSchema>;
export type Item = z.infer<typeof ItemSchema>;
export type DrawingItem = z.infer<typeof DrawingItemSchema>;
export type LetteringItem = z.infer<typeof LetteringItemSchema>;
export type Target = z.infer<typeof TargetSchema>;
export type Cut = z.infer<typeof CutSchema>;
export type VCarveCut = z.infer<typeof VCarveCutSchema>;
export type ProfileCut = z.infer<typeof ProfileCutSchema>;
export type PocketCut = z.infer<typeof PocketCutSchema>;
export type DrillCut = z.infer<typeof DrillCutSchema>;
export type InlayCut = z.infer<typeof InlayCutSchema>;
export type Bench = z.infer<typeof BenchSchema>;
export type Face = (typeof FACES)[number];
