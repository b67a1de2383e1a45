import type { Hand } from '@kerbe/machine/kinds/hands';
import { BenchProblem, doorOf } from './runner-client.ts';

/** So long a glance is waited for, and a hand, which is not to be taken for lost while the computer is busy, ms. */
const WITHIN = { look: 3000, hand: 30_000 };

/** What someone beside the simulated machine sees. */
export async function look(bench: string): Promise<unknown> {
  return ask(bench, '/look', WITHIN.look);
}

/** What a hand does there; answers with what is seen then. */
export async function lend(bench: string, hand: Hand): Promise<unknown> {
  return ask(bench, '/', WITHIN.hand, { method: 'POST', body: JSON.stringify(hand) });
}

async function ask(bench: string, path: string, within: number, init?: RequestInit): Promise<unknown> {
  const { hands } = doorOf(bench);
  let response: Response;
  try {
    response = await fetch(hands + path, {
      ...init,
      signal: AbortSignal.timeout(within),
    });
  } catch {
    throw new BenchProblem('Nobody stands at the simulated machine; see whether ./kerbe start is still running.');
  }
  if (!response.ok) throw new BenchProblem('No hand can do that at the simulated machine.');
  return response.json();
}
