import { me } from './me.svelte';

/** A request that the server answered with `{ problem }`; the message is that sentence. */
export class Refusal extends Error {
  override name = 'Refusal';
  constructor(
    message: string,
    readonly status: number,
  ) {
    super(message);
  }
}

/** Sends JSON to the server and returns what it answers. @throws {Refusal} */
export async function send<T>(method: 'GET' | 'POST' | 'PUT' | 'PATCH', path: string, body?: unknown): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      headers: { ...me.headers(), ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
      body: body === undefined ? undefined : JSON.stringify(body),
    });
  } catch {
    throw new Refusal(
      'The server does not answer; see whether ./kerbe start is still running. Your changes are kept in this window.',
      0,
    );
  }
  const data = (await response.json().catch(() => ({}))) as T & { problem?: string };
  if (!response.ok && response.status !== 409)
    throw new Refusal(data.problem ?? 'The server could not do this; try again.', response.status);
  if (response.status === 409 && data.problem) throw new Refusal(data.problem, 409);
  return data;
}
