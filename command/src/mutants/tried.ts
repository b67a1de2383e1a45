import { existsSync, readFileSync } from 'node:fs';
import { z } from 'zod';

const Status = z.enum([
  'Killed',
  'Timeout',
  'Survived',
  'NoCoverage',
  'RuntimeError',
  'Ignored',
  'CompileError',
  'Pending',
]);

/** A mutant that was tried. */
export const TriedSchema = z.object({
  /** What it is known by: file, text, mutator, replacement, and how many like it stand before it. */
  key: z.string(),
  /** File and line. */
  place: z.string(),
  text: z.string(),
  replacement: z.string(),
  status: Status,
  by: z.string().optional(),
});
export type Tried = z.infer<typeof TriedSchema>;

/** Mutants that change nothing anyone could see, each with the reason. */
const EquivalentSchema = z.array(z.object({ key: z.string(), reason: z.string().min(10) }));

/** The last that became of each mutant of a record, by its key. */
export function readTried(file: string): Map<string, Tried> {
  const lines = existsSync(file) ? readFileSync(file, 'utf8').split('\n') : [];
  return new Map(
    lines
      .filter(Boolean)
      .map((line) => TriedSchema.parse(JSON.parse(line)))
      .map((one) => [one.key, one]),
  );
}

/** Keys of the mutants that are known to change nothing. */
export function readEquivalent(file: string): Set<string> {
  return new Set(EquivalentSchema.parse(JSON.parse(readFileSync(file, 'utf8'))).map(({ key }) => key));
}

/** Whether the tests noticed a mutant: a test failed, or did not come to its end. */
export const isNoticed = ({ status }: Tried): boolean => status === 'Killed' || status === 'Timeout';
