import { z } from 'zod';
import { list } from '../schema/list.ts';
import { text } from '../schema/text.ts';
import type { BaseBench } from './bench.ts';
import type { BaseCut } from './cut.ts';
import { ItemSchema } from './item.ts';
import { LeftRemarkSchema } from './left-remark.ts';
import { StockSchema } from './stock.ts';
import type { BaseTool } from './tool.ts';

/** A step that makes outlines from others. None is known yet; the field is there so that they will need no other document. */
const StepSchema = z.never();

/**
 * The job document: everything a piece of work needs, from artwork to bench. Lengths in mm, feeds in mm/min.
 * @param cut the schema of its cuts, and `tool` and `bench` those of its tools and its bench, which their
 *   kinds know.
 */
export const jobSchemaOf = <C extends BaseCut>(
  cut: z.ZodType<C>,
  tool: z.ZodType<BaseTool>,
  bench: z.ZodType<BaseBench>,
) =>
  z.object({
    format: z.literal('kerbe-job'),
    version: z.literal(3),
    name: text(120, 1),
    unit: z.enum(['mm', 'in']),
    stock: StockSchema,
    artwork: list(ItemSchema, 500),
    steps: list(StepSchema, 100).default([]),
    bits: list(tool, 60),
    cuts: list(cut, 200),
    /** Cuts are made in the order listed, as the carver put them, and not by the trade’s rule. */
    ownOrder: z.boolean().default(false),
    bench,
    notes: text(20_000),
    /** Remarks that are left as they are on purpose. */
    left: list(LeftRemarkSchema, 200).optional(),
  });

export type Job<C extends BaseCut = BaseCut> = z.infer<ReturnType<typeof jobSchemaOf<C>>>;
