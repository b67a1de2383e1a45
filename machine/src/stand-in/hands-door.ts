import { timingSafeEqual } from 'node:crypto';
import type { IncomingMessage } from 'node:http';
import { isLoopback } from '../link/loopback.ts';

/**
 * What is asked of the hands beside a simulated machine: the path behind the secret that its address begins with. Nothing for
 * whoever does not know the secret, for a page in a browser, and for a name that is not this computer's own: whoever could
 * lend a hand could press the emergency stop.
 *
 * @example handsPath({ url: '/s3cret/look', headers: { host: '127.0.0.1:4000' } }, 's3cret') // '/look'
 */
export function handsPath(
  { url = '', headers }: Pick<IncomingMessage, 'url' | 'headers'>,
  secret: string,
): string | undefined {
  if (!isLoopback(headers.host) || headers.origin !== undefined) return undefined;
  const [given, known] = [Buffer.from(url.slice(0, secret.length + 1)), Buffer.from(`/${secret}`)];
  if (secret === '' || given.length !== known.length || !timingSafeEqual(given, known)) return undefined;
  const path = url.slice(secret.length + 1);
  return path.startsWith('/') ? path : undefined;
}
