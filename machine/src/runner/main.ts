import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { timingSafeEqual } from 'node:crypto';
import { z } from 'zod';
import { CommandSchema, FromSchema } from './commands.ts';
import { EventStream } from './event-stream.ts';
import { Journal, type JournalRecord } from './journal.ts';
import { LengthBook } from './length-book.ts';
import { ProgramFolder } from './program-store.ts';
import { isLoopback } from '../link/loopback.ts';
import { isPressToken, pageOrigin, PressSchema } from './press-door.ts';
import { CommandRefused } from './reasons.ts';
import { Runner } from './runner.ts';
import type { RunState } from './runner-state.ts';

/**
 * The runner as a process: `main.ts --port N --journal FILE --programs FOLDER --lengths FILE`, with KERBE_RUNNER_TOKEN in
 * its environment. It listens on loopback and answers only to who knows the token: GET /state, GET /events?page=ID&page=ID
 * (server-sent; those pages are there while it is listened to), GET /ends?from=N and POST /command with `{ from, command }`.
 * Pages of this computer that were given the token for it may POST /press: Hold and Stop.
 */
const argument = (name: string, fallback: string) => {
  const index = process.argv.indexOf(`--${name}`);
  return index >= 0 ? process.argv[index + 1] : fallback;
};
const token = process.env.KERBE_RUNNER_TOKEN ?? '';
if (token.length < 16) throw new Error('KERBE_RUNNER_TOKEN is missing; start the runner with ./kerbe start.');
const journal = new Journal(argument('journal', '.data/runs.jsonl'));
const listeners = new Set<EventStream>();
let queued = false;

const record = (run: RunState, phase: JournalRecord['phase']): boolean =>
  journal.write({
    id: run.id,
    hash: run.hash,
    phase,
    why: run.why,
    minutes: run.minutes,
    planned: run.plannedMinutes,
    waited: run.waited,
    line: run.line,
    lineUnknown: run.lineUnknown,
    stopped: run.at,
    at: new Date().toISOString(),
  });

/** Tells every listener, at most twenty times a second, whatever the machine sends. */
function tellAll(): void {
  if (queued) return;
  queued = true;
  setTimeout(() => {
    queued = false;
    const text = JSON.stringify(runner.state);
    for (const listener of listeners) listener.tell(text);
  }, 50);
}

const runner = new Runner({
  programs: new ProgramFolder(argument('programs', '.data/programs')),
  lengths: new LengthBook(argument('lengths', '.data/lengths.json')),
  changed: () => tellAll(),
  began: (run) => {
    if (record(run, 'begun')) return;
    journal.forget(run.id);
    throw new CommandRefused('no-journal');
  },
  ended: (run) => void record(run, run.phase === 'on' ? 'failed' : run.phase),
  endOf: (run) => journal.endOf(run),
});

/** How far a run has come is written down this often, ms; what a full disk refused is tried again as often. */
const NOTE_EVERY = 1000;
let noted = '';
setInterval(() => {
  const { run } = runner.state;
  const now = run && !run.endedAt ? `${run.id} ${run.line}` : noted;
  if (run && now !== noted) record(run, 'on');
  noted = now;
  const unwritten = !journal.flush() || undefined;
  if (unwritten !== runner.state.unwritten) {
    runner.state.unwritten = unwritten;
    tellAll();
  }
}, NOTE_EVERY);

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

/** Hold or Stop, straight from a page. */
async function pressed(request: IncomingMessage, response: ServerResponse): Promise<void> {
  const origin = pageOrigin(request.headers.origin);
  if (!isLoopback(request.headers.host) || !origin)
    return json(response, 403, { problem: 'This was sent from another site.' });
  response.setHeader('access-control-allow-origin', origin);
  const { token: given, command, press, page, name } = PressSchema.parse(JSON.parse(await body(request)));
  if (!isPressToken(given, token)) return json(response, 401, { problem: 'The runner does not know who asks.' });
  await runner.do({ command, press }, { page, name });
  json(response, 200, { bench: runner.state.bench });
}

async function answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
  if (request.method === 'POST' && request.url === '/press') return pressed(request, response);
  if (!known(request)) return json(response, 401, { problem: 'The runner does not know who asks.' });
  const url = new URL(request.url ?? '/', 'http://runner');
  if (request.method === 'GET' && url.pathname === '/state') return json(response, 200, runner.state);
  if (request.method === 'GET' && url.pathname === '/ends')
    return json(response, 200, journal.ends(Number(url.searchParams.get('from')) || 0));
  if (request.method === 'GET' && url.pathname === '/events') {
    const stream = new EventStream(response);
    stream.tell(JSON.stringify(runner.state));
    listeners.add(stream);
    const pages = url.searchParams.getAll('page');
    for (const page of pages) runner.seen(page, true);
    response.on('close', () => {
      listeners.delete(stream);
      for (const page of pages) runner.seen(page, false);
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
// Whoever read what it prints may be gone; the machine is not.
for (const stream of [process.stdout, process.stderr]) stream.on('error', () => {});
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => process.exit(0));
