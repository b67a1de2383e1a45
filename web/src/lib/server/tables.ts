import type { CutJob } from '@kerbe/core/job/job';
import type { ColumnType, Generated } from 'kysely';
import type { BaseTool } from '@kerbe/core/document/tool';
import type { BaseBench } from '@kerbe/core/document/bench';

/** JSON columns go in as text and come out parsed. */
type Json<T> = ColumnType<T, string, string>;
type Written = ColumnType<Date, never, never>;

export interface Tables {
  jobs: {
    id: string;
    head: ColumnType<string | null, number | string | null, number | string | null>;
    created: Written;
  };
  revisions: {
    id: Generated<string>;
    job_id: string;
    parent: ColumnType<string | null, string | null, never>;
    /** Where redo goes: the revision that undo came from. */
    forward: ColumnType<string | null, never, string | null>;
    document: Json<CutJob>;
    created: Written;
  };
  assets: { hash: string; name: string; bytes: Buffer; created: Written };
  bits: { id: string; position: number; document: Json<BaseTool> };
  benches: { id: string; position: number; document: Json<BaseBench> };
  programs: {
    hash: string;
    job_id: string;
    revision_id: string;
    name: string;
    text: string;
    cuts: Json<ProgramCutRow[]>;
    minutes: number;
    created: Written;
  };
  runs: {
    id: string;
    job_id: string;
    program_hash: string;
    /** What the bench was called, and its id. */
    bench: string;
    bench_id: string;
    phase: string;
    why: string | null;
    planned_minutes: number;
    minutes: number | null;
    settings: Json<RunSettings>;
    note: Generated<string>;
    /** The last line whose moves were all made, of how many; the line it began at, from 0; the run it took up. */
    line: Generated<number | null>;
    lines: Generated<number | null>;
    waited: Generated<number | null>;
    from_line: Generated<number | null>;
    takes_up: Generated<string | null>;
    /** Where it ended, from zero, mm. */
    line_unknown: Generated<boolean>;
    stopped_at: ColumnType<{ x: number; y: number } | null, never, string | null>;
    operator: Generated<string>;
    started: Written;
    ended: Date | null;
  };
  made: { key: string; result: Json<unknown>; made: Written };
  marks: { name: string; value: string };
}

export interface ProgramCutRow {
  title: string;
  from: number;
  to: number;
  bit: string;
}

/** What a run was made with, kept with it whatever becomes of the job. */
export interface RunSettings {
  job: string;
  stock: string;
  zero: string;
  /** How its program was made otherwise than the job alone says, a sentence’s part each. */
  notes?: string[];
  /** Nothing was on, and nothing was cut. */
  dry?: boolean;
  cuts: {
    title: string;
    bit: string;
    /** Of a beam: how much of its power, 0 to 1. */
    power?: number;
    depth: number;
    feed: number;
    plunge: number;
    speed: number;
    /** Of tools that take nothing away, and that do not turn; programs of before have neither. */
    pressed?: number;
    turns?: boolean;
    length: number;
  }[];
}
