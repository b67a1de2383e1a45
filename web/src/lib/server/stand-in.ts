import type { Hand } from '@kerbe/machine/stand-in/hands';
import { config } from './config.ts';
import { BenchProblem } from './runner-client.ts';

/** What someone beside the simulated machine sees. */
export async function look(): Promise<unknown> {
  return ask('/look');
}

/** What a hand does there; answers with what is seen then. */
export async function lend(hand: Hand): Promise<unknown> {
  return ask('/', { method: 'POST', body: JSON.stringify(hand) });
}

async function ask(path: string, init?: RequestInit): Promise<unknown> {
  let response: Response;
  try {
    response = await fetch(new URL(path, config().KERBE_STAND_IN_HANDS), {
      ...init,
      signal: AbortSignal.timeout(3000),
    });
  } catch {
    throw new BenchProblem('Nobody stands at the simulated machine; see whether ./kerbe start is still running.');
  }
  if (!response.ok) throw new BenchProblem('No hand can do that at the simulated machine.');
  return response.json();
}
