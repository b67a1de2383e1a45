import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { timingSafeEqual } from 'node:crypto';
import { z } from 'zod';
import { CommandSchema, FromSchema } from './commands.ts';
import { Journal } from './journal.ts';
import { LengthBook } from './length-book.ts';
import { ProgramFolder } from './program-store.ts';
import { CommandRefused } from './reasons.ts';
import { Runner } from './runner.ts';
import type { RunState } from './runner-state.ts';

/**
 * The runner as a process: `main.ts --port N --journal FILE --programs FOLDER --lengths FILE`, with KERBE_RUNNER_TOKEN in
 * its environment. It listens on loopback and answers only to who knows the token: GET /state, GET /events?page=ID
 * (server-sent), GET /ends?from=N and POST /command with `{ from, command }`.
 */
const argument = (name: string, fallback: string) => {
  const index = process.argv.indexOf(`--${name}`);
  return index >= 0 ? process.argv[index + 1] : fallback;
};
const token = process.env.KERBE_RUNNER_TOKEN ?? '';
if (token.length < 16) throw new Error('KERBE_RUNNER_TOKEN is missing; start the runner with ./kerbe start.');
const journal = new Journal(argument('journal', '.data/runs.jsonl'));
const listeners = new Set<ServerResponse>();
let queued = false;

const record = (run: RunState, phase: 'begun' | 'done' | 'stopped' | 'failed' | 'lost') =>
  journal.write({
    id: run.id,
    phase,
    why: run.why,
    minutes: run.minutes,
    waited: run.waited,
    line: run.line,
    at: new Date().toISOString(),
  });

const runner = new Runner({
  programs: new ProgramFolder(argument('programs', '.data/programs')),
  lengths: new LengthBook(argument('lengths', '.data/lengths.json')),
  changed: () => {
    // At most twenty times a second, whatever the machine sends.
    if (queued) return;
    queued = true;
    setTimeout(() => {
      queued = false;
      const text = `data: ${JSON.stringify(runner.state)}\n\n`;
      for (const listener of listeners) listener.write(text);
    }, 50);
  },
  began: (run) => record(run, 'begun'),
  ended: (run) => record(run, run.phase === 'on' ? 'failed' : run.phase),
});

const BodySchema = z.object({ from: FromSchema, command: CommandSchema });

function known(request: IncomingMessage): boolean {
  const given = Buffer.from(request.headers.authorization ?? '');
  const wanted = Buffer.from(`Bearer ${token}`);
  return given.length === wanted.length && timingSafeEqual(given, wanted);
}

const LARGEST_BODY = 2_000_000;

async function body(request: IncomingMessage): Promise<string> {
  const parts: Buffer[] = [];
  let size = 0;
  for await (const part of request as AsyncIterable<Buffer>) {
    size += part.length;
    if (size > LARGEST_BODY) throw new RangeError('The command is too long.');
    parts.push(part);
  }
  return Buffer.concat(parts).toString('utf8');
}

const server = createServer((request, response) => {
  void answer(request, response).catch((error) => {
    const refused = error instanceof CommandRefused;
    if (!refused) console.error(JSON.stringify({ level: 'error', at: 'runner', message: String(error) }));
    json(response, refused ? 409 : 400, {
      problem: refused ? error.message : 'The runner could not read this command.',
      reason: refused ? error.reason : undefined,
    });
  });
});

function json(response: ServerResponse, status: number, value: unknown): void {
  response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(value));
}

async function answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
  if (!known(request)) return json(response, 401, { problem: 'The runner does not know who asks.' });
  const url = new URL(request.url ?? '/', 'http://runner');
  if (request.method === 'GET' && url.pathname === '/state') return json(response, 200, runner.state);
  if (request.method === 'GET' && url.pathname === '/ends')
    return json(response, 200, journal.ends(Number(url.searchParams.get('from')) || 0));
  if (request.method === 'GET' && url.pathname === '/events') {
    response.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store' });
    response.write(`data: ${JSON.stringify(runner.state)}\n\n`);
    listeners.add(response);
    const page = url.searchParams.get('page') ?? '';
    runner.seen(page, true);
    response.on('close', () => {
      listeners.delete(response);
      runner.seen(page, false);
    });
    return;
  }
  if (request.method === 'POST' && url.pathname === '/command') {
    const { from, command } = BodySchema.parse(JSON.parse(await body(request)));
    await runner.do(command, from);
    return json(response, 200, runner.state);
  }
  json(response, 404, { problem: 'The runner has nothing under this address.' });
}

server.listen(Number(argument('port', '0')), '127.0.0.1', () => {
  const address = server.address();
  console.log(JSON.stringify({ listening: typeof address === 'object' && address ? address.port : 0 }));
});
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => process.exit(0));
