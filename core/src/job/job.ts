import { z } from 'zod';
import { type Job, jobSchemaOf } from '../document/job.ts';
import { CutSchema } from '../cuts/cut-schema.ts';
import type { Cut } from '../cuts/kinds.ts';
import { BenchSchema } from '../machines/bench-schema.ts';
import { ToolSchema } from '../tools/tool-schema.ts';
import { upgraded } from './older-job.ts';

/** A job whose cuts are of known kinds. */
export type CutJob = Job<Cut>;

/** The job document with the fields of its cuts; documents of older versions are brought up to date. */
export const JobSchema = z.preprocess(upgraded, jobSchemaOf(CutSchema, ToolSchema, BenchSchema));
