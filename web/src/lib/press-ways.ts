import type { Answer, Way } from './hold-and-stop';
import { me } from './me.svelte';
import { Refusal, send } from './send';

/** Where Hold and Stop go straight to the runner of a bench, and what lets them. */
export interface PressDoor {
  id: string;
  url: string;
  token: string;
}

type Command = 'hold' | 'stop';

/** Past the server, to the runner itself, whatever else this browser and the server are at. */
export const straightTo =
  ({ url, token }: PressDoor, command: Command): Way =>
  async (press, signal) => {
    const response = await fetch(url, {
      method: 'POST',
      body: JSON.stringify({ token, command, press, page: me.page, name: me.name }),
      // Text, so that it goes without being asked for first; and on, where this page is closed meanwhile.
      headers: { 'content-type': 'text/plain' },
      keepalive: true,
      priority: 'high',
      signal,
    });
    if (response.ok) return { taken: true };
    return refused(((await response.json()) as { problem: string }).problem, response.status);
  };

/** As every other command. */
export const throughServer =
  (bench: string, command: Command): Way =>
  async (press, signal) => {
    try {
      await send('POST', `/api/benches/${bench}/command`, { command, press }, signal);
      return { taken: true };
    } catch (error) {
      if (error instanceof Refusal) return refused(error.message, error.status);
      throw error;
    }
  };

/** What a bench refused was heard. @throws where it may not have been */
function refused(problem: string, status: number): Answer {
  if (status !== 409) throw new Error(problem);
  return { taken: false, why: problem };
}
