import { randomInt } from 'node:crypto';
import { createServer } from 'node:net';

/** Ports for any use lie here: below those that the system gives to whoever asks for any (RFC 6335 has those from 49152, Linux from 32768). */
const ANY = { from: 12_000, to: 32_000 };
const TRIES = 200;
/** What was told before, and is taken soon: chance may come to it again. */
const given = new Set<number>();

/**
 * The first free port on loopback from `wanted` on; says so where it is another. 0 finds any, by chance: it is taken only
 * later, and shops that start at the same time must not choose the same.
 */
export async function freePort(wanted: number, what: string): Promise<number> {
  for (let k = 0; k < TRIES; k++) {
    const port = wanted === 0 ? randomInt(ANY.from, ANY.to) : wanted + k;
    if ((wanted === 0 && given.has(port)) || !(await isFree(port))) continue;
    given.add(port);
    if (wanted !== 0 && port !== wanted) console.log(`Port ${wanted} is in use; ${what} takes ${port}.`);
    return port;
  }
  throw new Error(`No free port near ${wanted} for ${what}; close some programs and try again.`);
}

function isFree(port: number): Promise<boolean> {
  return new Promise((resolve) => {
    const server = createServer();
    server.on('error', () => resolve(false));
    server.listen(port, '127.0.0.1', () => server.close(() => resolve(true)));
  });
}
