import { createServer, type Socket } from 'node:net';
import { createInterface } from 'node:readline';
import { HandSchema } from './hands.ts';
import { StandInRouter } from './router.ts';

/**
 * The simulated router as a process: `main.ts --port N [--rate R] [--seed S]`. It listens on loopback, takes one client
 * at a time, and runs its clock at `rate` times real time. See `docs/stand-in.md` for what may be sent.
 */
const argument = (name: string, fallback: string) => {
  const index = process.argv.indexOf(`--${name}`);
  return index >= 0 ? process.argv[index + 1] : fallback;
};
const port = Number(argument('port', '0'));
const rate = Number(argument('rate', '1'));
const TICK = 10;

let client: Socket | undefined;
let every = 0;
let sinceState = 0;
const send = (message: Record<string, unknown>) => client?.write(JSON.stringify(message) + '\n');
const router = new StandInRouter(send, Number(argument('seed', '1')));

const server = createServer((socket) => {
  if (client) {
    // Unread words at the close would reset the connection, and the refusal might be lost with it.
    socket.on('error', () => {}).resume();
    socket.end(JSON.stringify({ error: 'Another program is linked to this machine already.' }) + '\n');
    return;
  }
  client = socket;
  every = 0;
  socket.setNoDelay(true);
  send({ hello: 'stand-in router' });
  router.connected();
  const lines = createInterface({ input: socket });
  // A broken socket is told by its own events; the reader only passes them on.
  lines.on('error', () => {});
  lines.on('line', (line) => {
    try {
      take(line);
    } catch (error) {
      send({ error: error instanceof Error ? error.message : String(error) });
    }
  });
  const gone = () => {
    if (client !== socket) return;
    client = undefined;
    // Nobody commands it any more: stand still, and let the hands at the machine decide.
    router.control('hold', '');
  };
  socket.on('close', gone);
  socket.on('error', gone);
});

function take(line: string): void {
  if (!line.startsWith(':')) return router.block(line);
  const space = line.indexOf(' ');
  const command = space < 0 ? line.slice(1) : line.slice(1, space);
  const rest = space < 0 ? '' : line.slice(space + 1);
  if (command === 'state') {
    every = Math.max(0, Number(rest) || 0);
    send({ state: router.state() });
  } else if (command === 'echo') send({ echo: Number(rest), state: router.state() });
  else if (command === 'look') send({ look: router.look() });
  else if (command === 'piece') send({ piece: router.piece() });
  else if (command === 'hand') {
    router.hand(HandSchema.parse(JSON.parse(rest)));
    send({ state: router.state() });
  } else router.control(command, rest);
}

let last = performance.now();
setInterval(() => {
  const now = performance.now();
  // A stalled process must not leap: what it missed is time that did not pass.
  const elapsed = Math.min(now - last, 5 * TICK);
  last = now;
  router.advance((elapsed / 1000) * rate);
  sinceState += elapsed;
  if (every > 0 && sinceState >= every) {
    sinceState = 0;
    send({ state: router.state() });
  }
}, TICK);

server.listen(port, '127.0.0.1', () => {
  const address = server.address();
  console.log(JSON.stringify({ listening: typeof address === 'object' && address ? address.port : port }));
});
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => process.exit(0));
