import { z } from 'zod';
import type { Command, From } from '@kerbe/machine/runner/commands';
import type { RunnerState } from '@kerbe/machine/runner/runner-state';
import { config } from './config.ts';
import { Refused as Refusal } from './refusal.ts';

/** The bench runner's answer that something cannot be done, as a sentence and with its reason. */
export class BenchProblem extends Refusal {
  override name = 'BenchProblem';
  constructor(message: string, reason?: string, status = 409) {
    super(message, status, reason);
  }
}

/** The runner did not answer: what it was told may or may not have reached it. */
export class RunnerAbsent extends BenchProblem {
  override name = 'RunnerAbsent';
  constructor() {
    super(ABSENT, undefined, 503);
  }
}

const ABSENT =
  'The bench runner does not answer at the moment; Kerbe starts it again by itself. A run it was driving is held by the machine.';

async function ask(path: string, init: RequestInit = {}): Promise<Response> {
  const { KERBE_RUNNER_URL, KERBE_RUNNER_TOKEN } = config();
  try {
    return await fetch(new URL(path, KERBE_RUNNER_URL), {
      // A check looks through a whole program; everything else is answered at once.
      signal: AbortSignal.timeout(320_000),
      ...init,
      headers: { authorization: `Bearer ${KERBE_RUNNER_TOKEN}`, 'content-type': 'application/json' },
    });
  } catch {
    throw new RunnerAbsent();
  }
}

const Refused = z.object({ problem: z.string(), reason: z.string().optional() });

/** Tells the runner to do something. @throws {BenchProblem} with its sentence where it refuses. */
export async function tellRunner(command: Command, from: From): Promise<RunnerState> {
  const response = await ask('/command', { method: 'POST', body: JSON.stringify({ from, command }) });
  const data: unknown = await response.json().catch(() => {
    throw new RunnerAbsent();
  });
  if (!response.ok) {
    const { problem, reason } = Refused.catch({ problem: ABSENT }).parse(data);
    throw new BenchProblem(problem, reason);
  }
  return data as RunnerState;
}

/** The runner's events as they come, for passing on to a page. */
export async function runnerEvents(page: string, signal: AbortSignal): Promise<ReadableStream<Uint8Array>> {
  const response = await ask(`/events?page=${encodeURIComponent(page)}`, { signal });
  if (!response.ok || !response.body) throw new RunnerAbsent();
  return response.body;
}

const EndsSchema = z.object({
  next: z.number(),
  /** Runs that are on, or have begun since the runner's records began. */
  begun: z.array(z.string()),
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
