import { z } from 'zod';
import { list } from '../schema/list.ts';
import { IdSchema, PlaceSchema } from './names.ts';

/** What a cut works on: a whole item, or some of its shapes by number. */
export const TargetSchema = z.object({
  item: IdSchema,
  shapes: z.union([z.literal('all'), list(z.number().int().min(0), 10_000)]),
});

const CutBase = {
  id: IdSchema,
  targets: list(TargetSchema, 500),
  bit: IdSchema,
  feed: z.number().positive().max(50_000),
  plunge: z.number().positive().max(50_000),
  /** Turns of the spindle a minute. */
  speed: z.number().min(0).max(100_000),
};

/** Bits that clear before the cut's own, the largest first. */
const ClearBits = list(IdSchema, 5).default([]);
const Tabs = z.object({
  count: z.number().int().min(0).max(100),
  length: z.number().positive().max(100),
  height: z.number().positive().max(100),
  shape: z.enum(['square', 'ramped']).default('square'),
  /** Places chosen by hand, on the sheet, mm; they take the place of the count. */
  at: list(z.object({ x: PlaceSchema, y: PlaceSchema }), 100).default([]),
});
const StartPlace = z.object({ x: PlaceSchema, y: PlaceSchema });
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
  shift: z.object({ x: PlaceSchema, y: PlaceSchema }),
});

export const CutSchema = z.discriminatedUnion('kind', [
  VCarveCutSchema,
  ProfileCutSchema,
  PocketCutSchema,
  DrillCutSchema,
  InlayCutSchema,
]);

export type Target = z.infer<typeof TargetSchema>;
export type Cut = z.infer<typeof CutSchema>;
export type VCarveCut = z.infer<typeof VCarveCutSchema>;
export type ProfileCut = z.infer<typeof ProfileCutSchema>;
export type PocketCut = z.infer<typeof PocketCutSchema>;
export type DrillCut = z.infer<typeof DrillCutSchema>;
export type InlayCut = z.infer<typeof InlayCutSchema>;
