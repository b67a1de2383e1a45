import { z } from 'zod';
import type { Command, From } from '@kerbe/machine/runner/commands';
import { pressToken } from '@kerbe/machine/runner/press-door';
import type { RunnerState } from '@kerbe/machine/runner/runner-state';
import { type BenchDoor, config } from './config.ts';
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

/** Ids of the benches that are linked. */
export const linkedBenches = (): string[] => config().KERBE_BENCHES.map(({ id }) => id);

/** Where a bench is found. @throws {BenchProblem} for one that is not linked. */
export function doorOf(bench: string): BenchDoor {
  const door = config().KERBE_BENCHES.find(({ id }) => id === bench);
  if (!door) throw new BenchProblem('There is no linked bench of that name; choose one at Set-up.', undefined, 404);
  return door;
}

async function ask(bench: string, path: string, init: RequestInit = {}): Promise<Response> {
  const { KERBE_RUNNER_TOKEN } = config();
  const { runner } = doorOf(bench);
  try {
    return await fetch(new URL(path, runner), {
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

/** Tells the runner of a bench to do something. @throws {BenchProblem} with its sentence where it refuses. */
export async function tellRunner(bench: string, command: Command, from: From): Promise<RunnerState> {
  const response = await ask(bench, '/command', { method: 'POST', body: JSON.stringify({ from, command }) });
  const data: unknown = await response.json().catch(() => {
    throw new RunnerAbsent();
  });
  if (!response.ok) {
    const { problem, reason } = Refused.catch({ problem: ABSENT }).parse(data);
    throw new BenchProblem(problem, reason);
  }
  return data as RunnerState;
}

/** What each linked bench is called and is at; `unknown` where its runner does not answer. */
export async function benchStates(): Promise<{ id: string; name: string; bench: string }[]> {
  return Promise.all(
    config().KERBE_BENCHES.map(async ({ id, name }) => {
      try {
        const { bench } = (await (
          await ask(id, '/state', { signal: AbortSignal.timeout(1000) })
        ).json()) as RunnerState;
        return { id, name, bench };
      } catch {
        return { id, name, bench: 'unknown' };
      }
    }),
  );
}

/** Where a page sends Hold and Stop straight to each bench, and what lets it. */
export function pressDoors(): { id: string; url: string; token: string }[] {
  const { KERBE_BENCHES, KERBE_RUNNER_TOKEN } = config();
  const token = pressToken(KERBE_RUNNER_TOKEN);
  return KERBE_BENCHES.map(({ id, runner }) => ({ id, url: new URL('/press', runner).href, token }));
}

/** What a bench is at. */
export async function benchState(bench: string): Promise<RunnerState> {
  return (await (await ask(bench, '/state', { signal: AbortSignal.timeout(5000) })).json()) as RunnerState;
}

/** The runner's events as they come; these pages are there for as long as they are read. */
export async function runnerEvents(
  bench: string,
  pages: readonly string[],
  signal: AbortSignal,
): Promise<ReadableStream<Uint8Array>> {
  const query = new URLSearchParams(pages.map((page) => ['page', page]));
  const response = await ask(bench, `/events?${query}`, { signal });
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
      planned: z.number().optional(),
      waited: z.number(),
      line: z.number(),
      lineUnknown: z.literal(true).optional(),
      stopped: z.object({ x: z.number(), y: z.number() }).optional(),
      at: z.string(),
    }),
  ),
});

/** How runs of a bench ended since record number `from`. */
export async function runEnds(bench: string, from: number): Promise<z.infer<typeof EndsSchema>> {
  const response = await ask(bench, `/ends?from=${from}`);
  return EndsSchema.parse(await response.json());
}
