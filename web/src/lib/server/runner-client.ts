import { z } from 'zod';
import type { Command } from '@kerbe/machine/runner/commands';
import type { RunnerState } from '@kerbe/machine/runner/runner-state';
import { config } from './config.ts';

/** The bench runner's answer that something cannot be done, as a sentence. */
export class BenchProblem extends Error {
  override name = 'BenchProblem';
}

const ABSENT =
  'The bench runner does not answer; start Kerbe again with ./kerbe start. A run it was driving is held by the machine.';

async function ask(path: string, init: RequestInit = {}): Promise<Response> {
  const { KERBE_RUNNER_URL, KERBE_RUNNER_TOKEN } = config();
  try {
    return await fetch(new URL(path, KERBE_RUNNER_URL), {
      ...init,
      headers: { authorization: `Bearer ${KERBE_RUNNER_TOKEN}`, 'content-type': 'application/json' },
    });
  } catch {
    throw new BenchProblem(ABSENT);
  }
}

/** Tells the runner to do something. @throws {BenchProblem} with its sentence where it refuses. */
export async function tellRunner(command: Command): Promise<RunnerState> {
  const response = await ask('/command', { method: 'POST', body: JSON.stringify(command) });
  const data: unknown = await response.json();
  if (!response.ok)
    throw new BenchProblem(z.object({ problem: z.string() }).catch({ problem: ABSENT }).parse(data).problem);
  return data as RunnerState;
}

/** The runner's events as they come, for passing on to a page. */
export async function runnerEvents(signal: AbortSignal): Promise<ReadableStream<Uint8Array>> {
  const response = await ask('/events', { signal });
  if (!response.ok || !response.body) throw new BenchProblem(ABSENT);
  return response.body;
}

const EndsSchema = z.object({
  next: z.number(),
  ends: z.array(
    z.object({
      id: z.string(),
      phase: z.enum(['done', 'stopped', 'failed']),
      why: z.string().optional(),
      minutes: z.number(),
      line: z.number(),
      at: z.string(),
    }),
  ),
});

/** How runs ended since record number `from`. */
export async function runEnds(from: number): Promise<z.infer<typeof EndsSchema>> {
  const response = await ask(`/ends?from=${from}`);
  return EndsSchema.parse(await response.json());
}
