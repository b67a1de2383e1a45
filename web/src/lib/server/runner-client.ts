import { z } from 'zod';
import type { Command, From } from '@kerbe/machine/runner/commands';
import type { RunnerState } from '@kerbe/machine/runner/runner-state';
import { config } from './config.ts';

/** The bench runner's answer that something cannot be done, as a sentence and with its reason. */
export class BenchProblem extends Error {
  override name = 'BenchProblem';
  constructor(
    message: string,
    readonly reason?: string,
  ) {
    super(message);
  }
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

const Refused = z.object({ problem: z.string(), reason: z.string().optional() });

/** Tells the runner to do something. @throws {BenchProblem} with its sentence where it refuses. */
export async function tellRunner(command: Command, from: From): Promise<RunnerState> {
  const response = await ask('/command', { method: 'POST', body: JSON.stringify({ from, command }) });
  const data: unknown = await response.json();
  if (!response.ok) {
    const { problem, reason } = Refused.catch({ problem: ABSENT }).parse(data);
    throw new BenchProblem(problem, reason);
  }
  return data as RunnerState;
}

/** The runner's events as they come, for passing on to a page. */
export async function runnerEvents(page: string, signal: AbortSignal): Promise<ReadableStream<Uint8Array>> {
  const response = await ask(`/events?page=${encodeURIComponent(page)}`, { signal });
  if (!response.ok || !response.body) throw new BenchProblem(ABSENT);
  return response.body;
}

const EndsSchema = z.object({
  next: z.number(),
  ends: z.array(
    z.object({
      id: z.string(),
      phase: z.enum(['done', 'stopped', 'failed', 'lost']),
      why: z.string().optional(),
      minutes: z.number(),
      waited: z.number(),
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
