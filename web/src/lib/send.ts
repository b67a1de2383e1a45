import { Told } from '@kerbe/core/schema/told';
import { me } from './me.svelte';

/** A request that the server answered with `{ problem }`; the message is that sentence. */
export class Refusal extends Told {
  override name = 'Refusal';
  constructor(
    message: string,
    readonly status: number,
  ) {
    super(message);
  }
}

/** Sends JSON to the server and returns what it answers. @throws {Refusal}; the signal's reason */
export function send<T>(
  method: 'GET' | 'POST' | 'PUT' | 'PATCH',
  path: string,
  body?: unknown,
  signal?: AbortSignal,
): Promise<T> {
  const headers = body === undefined ? undefined : { 'content-type': 'application/json' };
  return asked(path, { method, headers, body: body === undefined ? undefined : JSON.stringify(body), signal });
}

/** Sends a file as it is. @throws {Refusal}; the signal's reason */
export function sendFile<T>(path: string, file: Blob, signal?: AbortSignal): Promise<T> {
  return asked(path, { method: 'POST', headers: { 'content-type': 'application/octet-stream' }, body: file, signal });
}

async function asked<T>(path: string, init: RequestInit): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, { ...init, headers: { ...me.headers(), ...init.headers } });
  } catch (error) {
    init.signal?.throwIfAborted();
    if (error instanceof DOMException) throw error;
    throw new Refusal('The server does not answer at the moment. Your changes are kept in this window.', 0);
  }
  const data = (await response.json().catch(() => ({}))) as T & { problem?: string };
  if (!response.ok && response.status !== 409)
    throw new Refusal(data.problem ?? 'The server could not do this; try again.', response.status);
  if (response.status === 409 && data.problem) throw new Refusal(data.problem, 409);
  return data;
}
