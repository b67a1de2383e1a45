import { randomBytes } from 'node:crypto';
import { createServer as createHttpServer, type IncomingMessage } from 'node:http';
import { createServer, type AddressInfo, type Server } from 'node:net';
import type { z } from 'zod';
import type { Controller, Simulated } from './controller.ts';
import { handsPath } from './hands-door.ts';

/** What someone beside a simulated machine does and sees. */
export interface Beside<H> {
  hand: z.ZodType<H>;
  does(hand: H): void;
  look(): object;
  piece(): object;
}

/** An argument of the process: `--seed 3`. */
export const argument = (name: string, fallback: string): string => {
  const index = process.argv.indexOf(`--${name}`);
  return index >= 0 ? process.argv[index + 1] : fallback;
};

/** The machine's clock ticks so often, ms. */
const TICK = 10;

/**
 * A simulated machine as a process: `--port N [--hands M] [--rate R] [--seed S] [--made JSON]`. On the one port it is a
 * controller and takes one client at a time; on the other, over HTTP, are the hands and eyes of someone beside it, under a
 * path that begins with a secret (KERBE_HANDS, else one of its own, which it prints). Both on loopback. See `docs/stand-in.md` for what may be sent.
 */
export async function serve<M extends Simulated, H>(machine: Controller<M>, beside: Beside<H>): Promise<void> {
  const rate = Number(argument('rate', '1'));
  const controller = createServer((socket) => {
    if (machine.busy) {
      // Unread words at the close would reset the connection, and the refusal might be lost with it.
      socket.on('error', () => {}).resume();
      socket.end(JSON.stringify({ error: 'Another program is linked to this machine already.' }) + '\n');
      return;
    }
    socket.setNoDelay(true).setEncoding('utf8');
    machine.connect((text) => void socket.write(text + '\n'));
    let there = true;
    socket.on('data', (text: string) => machine.hear(text));
    const gone = () => {
      if (there) machine.disconnect();
      there = false;
    };
    socket.on('close', gone);
    socket.on('error', gone);
  });

  // The hands, behind a secret: GET /look, GET /piece, POST / with what a hand does.
  const secret = process.env.KERBE_HANDS ?? randomBytes(24).toString('hex');
  const hands = createHttpServer((request, response) => {
    const answer = (status: number, value: unknown) =>
      response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(value));
    const path = handsPath(request, secret);
    if (path === undefined) return answer(403, { problem: 'The hands do not know who asks.' });
    if (request.method === 'GET' && path === '/look') return answer(200, beside.look());
    if (request.method === 'GET' && path === '/piece') return answer(200, beside.piece());
    if (request.method !== 'POST' || path !== '/') return answer(404, { problem: 'There is nothing here.' });
    body(request)
      .then(
        (text) => {
          beside.does(beside.hand.parse(JSON.parse(text)));
          answer(200, beside.look());
        },
        () => answer(400, { problem: 'No hand does that.' }),
      )
      .catch(() => answer(400, { problem: 'No hand does that.' }));
  });

  let last = performance.now();
  setInterval(() => {
    const now = performance.now();
    // A stalled process must not leap: what it missed is time that did not pass.
    const elapsed = Math.min(now - last, 5 * TICK);
    last = now;
    machine.pass((elapsed / 1000) * rate, elapsed);
  }, TICK);

  const listen = (server: Server, port: number) =>
    new Promise<number>((resolve) =>
      server.listen(port, '127.0.0.1', () => resolve((server.address() as AddressInfo).port)),
    );
  const listening = await listen(controller, Number(argument('port', '0')));
  console.log(JSON.stringify({ listening, hands: await listen(hands, Number(argument('hands', '0'))), secret }));
  for (const stream of [process.stdout, process.stderr]) stream.on('error', () => {});
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => process.exit(0));
}

/** Longest that is heard of a hand, characters. */
const LONGEST = 100_000;

async function body(request: IncomingMessage): Promise<string> {
  let text = '';
  for await (const part of request.setEncoding('utf8') as AsyncIterable<string>) {
    text += part;
    if (text.length > LONGEST) throw new Error('too long');
  }
  return text;
}
