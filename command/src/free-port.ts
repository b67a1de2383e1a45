import { createServer } from 'node:net';

/** The first free port on loopback from `wanted` on; says so where it is another. 0 finds any. */
export async function freePort(wanted: number, what: string): Promise<number> {
  for (let port = wanted; port < wanted + 200; port++) {
    const found = await new Promise<number>((resolve) => {
      const server = createServer();
      server.on('error', () => resolve(-1));
      server.listen(port, '127.0.0.1', () => {
        const address = server.address();
        server.close(() => resolve(typeof address === 'object' && address ? address.port : -1));
      });
    });
    if (found < 0) continue;
    if (wanted !== 0 && found !== wanted) console.log(`Port ${wanted} is in use; ${what} takes ${found}.`);
    return found;
  }
  throw new Error(`No free port near ${wanted} for ${what}; close some programs and try again.`);
}
