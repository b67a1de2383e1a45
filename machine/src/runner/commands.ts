import { z } from 'zod';
import { LimitsSchema } from '@kerbe/core/document/limits';
import { list } from '@kerbe/core/schema/list';
import { text } from '@kerbe/core/schema/text';
import { KIND_FROM_PAGE, KIND_OF_JOB, KIND_WITH_BASIS } from '../kinds/commands.ts';
import { BenchFactsSchema } from '../kinds/facts.ts';
import { BasisSchema, BitSchema } from './zero.ts';

const Step = z.number().min(-102).max(102);
const Share = z.number().min(-1).max(1);
const Id = z.string().regex(/^[A-Za-z0-9_-]{1,60}$/);
const Hash = z.string().regex(/^[0-9a-f]{64}$/);

/** A program as it is handed over to be checked: its text lies in a file named by its hash. */
export const ProgramOrderSchema = z.object({
  hash: Hash,
  job: text(120),
  jobId: text(60),
  revision: text(20),
  basis: BasisSchema,
  bench: BenchFactsSchema,
  plannedMinutes: z.number().min(0),
  /** What its axes can do, by which the ways are planned that only the machine knows; older orders do not say. */
  limits: LimitsSchema.optional(),
  /** Height that clears everything on the work, mm from the job's zero. */
  approach: z.number(),
  /** Whether the program switches the tool on, or waits until the operator has. */
  switchedOnBy: z.enum(['program', 'operator']),
  /** How the stock lies turned about zero, as the program reckons with it, radians. */
  turn: z.number().min(-0.5).max(0.5).default(0),
  /** Nothing is on: a pointer goes where the tool would. */
  dry: z.boolean().default(false),
  cuts: list(
    z.object({
      title: text(300),
      from: z.number().int(),
      to: z.number().int(),
      bit: BitSchema,
      plunge: z.number().min(0),
    }),
    2000,
  ).refine((cuts) => cuts.length > 0, 'needs at least one cut'),
});
export type ProgramOrder = z.infer<typeof ProgramOrderSchema>;

const Simple = ['disconnect', 'take', 'give', 'keep', 'home', 'board-moved', 'resume', 'confirm', 'clear'] as const;
const simple = Simple.map((name) => z.object({ command: z.literal(name) }));

/** Commands that a page may give as they are. */
const FROM_PAGE = [
  ...simple,
  /** One press, told over more than one way, is one. */
  ...(['hold', 'stop'] as const).map((name) => z.object({ command: z.literal(name), press: Id.optional() })),
  z.object({
    command: z.literal('step'),
    axis: z.enum(['x', 'y', 'z']),
    by: Step,
    feed: z.number().positive().max(6000),
  }),
  z.object({
    command: z.literal('jog'),
    /** One press of a key or button; renewed under the same name, and over once it has ended. */
    press: Id,
    on: z.boolean(),
    x: Share.default(0),
    y: Share.default(0),
    z: Share.default(0),
    feed: z.number().positive().max(2000).default(1000),
  }),
  z.object({ command: z.literal('tick'), step: text(30), on: z.boolean(), job: text(60) }),
  z.object({ command: z.literal('feed'), percent: z.number().int().min(10).max(200) }),
  ...KIND_FROM_PAGE,
] as const;

/** Commands that name a job; the server puts what the job says in its place. */
const OF_JOB = [
  z.object({ command: z.literal('connect'), job: text(60) }),
  z.object({ command: z.literal('go-to-zero'), job: text(60) }),
  z.object({ command: z.literal('use-here'), job: text(60) }),
  ...KIND_OF_JOB,
] as const;

/** Everything a page may tell a bench. Runs are started through their job and are not in it. */
export const PageCommandSchema = z.discriminatedUnion('command', [
  ...(FROM_PAGE as unknown as [(typeof FROM_PAGE)[number], ...(typeof FROM_PAGE)[number][]]),
  ...OF_JOB,
]);
export type PageCommand = z.infer<typeof PageCommandSchema>;

/** Everything the runner may be told. */
export const CommandSchema = z.discriminatedUnion('command', [
  ...(FROM_PAGE as unknown as [(typeof FROM_PAGE)[number], ...(typeof FROM_PAGE)[number][]]),
  z.object({ command: z.literal('connect'), port: z.number().int().min(1).max(65535), bench: BenchFactsSchema }),
  ...KIND_WITH_BASIS,
  z.object({
    command: z.literal('go-to-zero'),
    basis: BasisSchema,
    /** Height to end at over zero, mm. */
    lift: z.number().positive().max(200),
  }),
  z.object({ command: z.literal('use-here'), basis: BasisSchema }),
  z.object({ command: z.literal('check'), program: ProgramOrderSchema }),
  z.object({ command: z.literal('run'), id: Id, token: text(60), hash: Hash }),
  z.object({
    command: z.literal('take-up'),
    id: Id,
    token: text(60),
    hash: Hash,
    /** The run that broke, and the last of its lines that was acknowledged. */
    broken: Id,
    acknowledged: z.number().int().min(0),
    line: z.number().int().min(0),
  }),
]);
export type Command = z.infer<typeof CommandSchema>;

/** Who gives a command: one page of one browser, and what its person is called. */
export const FromSchema = z.object({ page: Id, name: text(40).default('') });
export type From = z.infer<typeof FromSchema>;
