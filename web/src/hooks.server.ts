import type { Handle, HandleServerError, ServerInit } from '@sveltejs/kit';
import { building } from '$app/environment';
import { sweepLeft } from '$lib/server/body';
import { OURS } from '$lib/server/door';
import { log } from '$lib/server/log';
import { pressDoors } from '$lib/server/runner-client';
import { Refused } from '$lib/server/refusal';
import { shop } from '$lib/server/shop';

export const init: ServerInit = () => {
  // Not waited for: without its database the server comes up all the same, and the bench can be held and stopped.
  if (building) return;
  sweepLeft().catch((error: unknown) => log.warn({ error: String(error) }, 'what was left of uploads stays'));
  shop().catch((error: unknown) => log.warn({ error: String(error) }, 'the database is away'));
};

/** Pages send Hold and Stop straight to the runners, and nothing else anywhere but here. */
const CONNECTS = building
  ? ''
  : `connect-src 'self' ${pressDoors()
      .map(({ url }) => url)
      .join(' ')}`;
const HOSTS = new Set(['127.0.0.1', 'localhost', '[::1]']);

export const handle: Handle = async ({ event, resolve }) => {
  // Loopback only, by name as well: a foreign name that was pointed here gets nothing.
  const host = (event.request.headers.get('host') ?? '').replace(/:\d+$/, '');
  if (!HOSTS.has(host)) return new Response('This address is not served here.', { status: 421 });
  const origin = event.request.headers.get('origin');
  const from = origin && URL.canParse(origin) ? new URL(origin).host : origin;
  if (origin && event.request.method !== 'GET' && from !== event.request.headers.get('host'))
    return new Response('This was sent from another site.', { status: 403 });
  const started = performance.now();
  // The request’s own signal does not fire any more once its body was read.
  const leave = new AbortController();
  const gone = () => leave.abort(new Refused('Nobody waits for this any more.', 499));
  const socket = event.platform?.req.socket;
  if (socket?.destroyed) gone();
  socket?.once('close', gone);
  event.locals.left = leave.signal;
  const response = await resolve(event);
  socket?.off('close', gone);
  // What no route has read is read here, or the connection would wait for it for ever.
  if (response.status >= 400) await event.request.body?.pipeTo(new WritableStream()).catch(() => {});
  const policy = response.headers.get('content-security-policy');
  if (policy) response.headers.set('content-security-policy', policy.replace("connect-src 'self'", CONNECTS));
  response.headers.set('x-content-type-options', 'nosniff');
  response.headers.set('referrer-policy', 'no-referrer');
  log.debug(
    {
      method: event.request.method,
      path: event.url.pathname,
      status: response.status,
      ms: Math.round(performance.now() - started),
    },
    'request',
  );
  return response;
};

export const handleError: HandleServerError = ({ error, event, status }) => {
  if (status >= 500)
    log.error({ path: event.url.pathname, error: String(error), stack: (error as Error)?.stack }, 'failed');
  return {
    message: status < 500 ? 'There is nothing under this address; go back to the list of jobs.' : OURS,
  };
};
