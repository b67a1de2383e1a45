import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { base64FromBytes, type JobFile } from '../../core/src/job/job-file.ts';
import { createHash } from 'node:crypto';
import { AtTheBench, pause } from './at-the-bench.ts';
import { MemoryOfAll } from './memory-of-all.ts';
import { type Dictionary, mutated, mutatedJson, nudged, oneOf, type Random, upTo } from './mutants.ts';
import { random } from './random.ts';

// Seeded mutants of drawings, job files, job documents and requests through the real server and its processes. Every
// answer is 2xx to 4xx and says what is wrong. `./kerbe soak --fuzz` makes 20,000 of each.
const COUNT = Number(process.env.KERBE_MUTANTS ?? 15);
const SEED = Number(process.env.KERBE_SEED ?? 1);
/** One in so many drawings that are taken is carved and cleared as well. */
const CARVED = Number(process.env.KERBE_CARVED ?? 8);
const ROOT = new URL('../../', import.meta.url).pathname;

let bench: AtTheBench;
let memory: MemoryOfAll;
beforeAll(async () => {
  bench = await AtTheBench.open(SEED);
  memory = new MemoryOfAll();
}, 300_000);
afterAll(() => {
  console.log(`most memory at once: ${memory?.stop()}`);
  bench?.close();
});

const drawings = [
  ...readdirSync(`${ROOT}demo/artwork`),
  ...readdirSync(`${ROOT}tests/drawings`).map((n) => `../../tests/drawings/${n}`),
]
  .filter((name) => name.endsWith('.svg'))
  .map((name) => readFileSync(join(ROOT, 'demo/artwork', name), 'utf8'));
const files = readdirSync(`${ROOT}demo/jobs`).map(
  (name) => JSON.parse(readFileSync(`${ROOT}demo/jobs/${name}`, 'utf8')) as JobFile,
);
const SVG: Dictionary = {
  words: [
    '<use href="#moon"/>', '<use href="#edge" x="5"/>', '<g id="moon">', '</g>', '<symbol id="star">', 'transform="matrix(1e9 0 0 1 0 0)"',
    'transform="rotate(45) scale(-1 0)"', 'A1e9 1e9 0 1 1 5 5', 'A0 5 0 0 1 9 9', 'C1e5 1e5 0 0 9 9', 'M0 0L0 0L0 0z', 'q1 1 2 2t9 9', 'm0 0',
    'viewBox="0 0 0 0"', 'width="1e9in"', 'height="-5mm"', 'preserveAspectRatio="none"', '<!DOCTYPE svg [<!ENTITY a "b">]>', '<![CDATA[', '<!--',
    '<image/>', '<text>a</text>', '<script/>', 'onload="x"', '<rect width="1e4" height="1e4" rx="1e9"/>', '<circle r="9999"/>', '<path d=""/>',
    '<polygon points="0 0 1 1 0 0 1 1"/>', 'style="display:none"', 'fill-rule="evenodd"', 'class="a b"', '<style>.a{fill:none}', '</style>', '* > g ~ rect + *:not(.a){display:none}', 'clip-path="url(#moon)"',
    'style="clip-path:url(#edge)"', '<clipPath id="moon">', '</clipPath>', '<svg width="50%" viewBox="0 0 1 1">', '</svg>', '<switch>',
    '<?xml version="1.0" encoding="utf-16"?>', 'clipPathUnits="objectBoundingBox"', '&#x0;', '&lol;', '<svg>', 'xmlns:x="y"',
  ],
  nest: ['<g>', '</g>'],
}; // prettier-ignore

/** What an answer must be; a copy of what was sent stays where it is not. */
async function demand(kind: string, index: number, response: Response, sent: Uint8Array | string): Promise<string> {
  const text = await response.text();
  if (response.status >= 500 || /at .*\.(ts|js):\d+|ZodError|RangeError|TypeError|undefined is not/.test(text)) {
    mkdirSync(`${ROOT}.data/mutants`, { recursive: true });
    const file = `${ROOT}.data/mutants/${kind}-${SEED}-${index}`;
    writeFileSync(file, sent);
    throw new Error(`${kind} ${index} of seed ${SEED}: ${response.status} ${text.slice(0, 300)} (kept in ${file})`);
  }
  if (response.status >= 400) {
    const said = JSON.parse(text || '{}') as { problem?: string; message?: string; error?: { message?: string } };
    const { problem } = said;
    const message = said.message ?? said.error?.message;
    expect(problem ?? message, `${kind} ${index}: ${response.status} ${text.slice(0, 200)}`).toMatch(/^\S.*[.!?]$/s);
    expect(problem ?? '').not.toMatch(/expected|received|Invalid (input|type)|Too (small|big)|must match pattern/);
  }
  return text;
}

/** Sends many at once, as many pages would, each by its own seed. */
async function each(count: number, at: number, one: (index: number, rng: Random) => Promise<void>): Promise<void> {
  let next = 0;
  const hand = async () => {
    for (let index = next++; index < count; index = next++)
      await one(index, random(SEED * 1_000_003 + index * 7919 + at));
  };
  await Promise.all([hand(), hand(), hand(), hand()]);
}

/**
 * A connection that rested while a mutant was made may have been closed at the other end: it is tried once more. That
 * the server itself has never ended is asked at the end.
 */
async function sent(path: string, init: RequestInit): Promise<Response> {
  const once = () => fetch(new URL(path, bench.shop.address), { ...init, signal: AbortSignal.timeout(300_000) });
  try {
    return await once();
  } catch (error) {
    if (!(error instanceof TypeError)) throw error;
    // While a large one was made here nothing was heard of connections that were closed: now it is.
    await pause(300);
    return once().catch((again: unknown) => {
      const { body } = init;
      throw new Error(
        `${init.method} ${path} with ${typeof body === 'string' ? body.length : 0} characters: nobody answered`,
        { cause: again },
      );
    });
  }
}

const post = (path: string, body: Uint8Array | string, headers: Record<string, string> = {}) =>
  sent(path, {
    method: 'POST',
    headers: { 'content-type': 'application/octet-stream', 'x-kerbe-page': 'mutants', ...headers },
    body: body as BodyInit,
  });

/** A job that carves, clears, cuts out and drills a drawing, as a file. */
function jobOf(svg: Uint8Array, rng: Random): JobFile {
  const file = structuredClone(files[0]);
  const hash = createHash('sha256').update(svg).digest('hex');
  const { bits } = file.job;
  const v = bits.find((bit) => bit.kind === 'v')!;
  const end = bits.find((bit) => bit.kind === 'end')!;
  const drive = { targets: [{ item: 'd', shapes: 'all' as const }], feed: 2000, plunge: 600, speed: 18_000 };
  const entry = { kind: oneOf(rng, ['ramp', 'helix', 'plunge'] as const), angle: 5 };
  const deep = { depth: 5, depthPerPass: 2.5, lastPass: 0 };
  file.job.artwork = [
    { id: 'd', name: 'mutant', kind: 'drawing', asset: hash, x: 0, y: 0, rotation: 0, scaleX: 1, scaleY: 1, closeOpen: rng() < 0.5, refit: 0 },
  ]; // prettier-ignore
  file.job.cuts = [
    { ...drive, id: 'v', kind: 'v-carve', bit: v.id, depthLimit: 6, floorStep: 0.5, startDepth: 0, depthPerPass: null, clearBits: [] },
    { ...drive, ...deep, id: 'p', kind: 'pocket', bit: end.id, startDepth: 0, step: end.diameter * 0.4, pattern: oneOf(rng, ['rings', 'lines'] as const), angle: 30, climb: true, finish: 0, entry, slots: false, clearBits: [] },
    { ...drive, ...deep, id: 'o', kind: 'profile', bit: end.id, side: oneOf(rng, ['outside', 'inside', 'on'] as const), climb: true, tabs: { count: 3, length: 6, height: 2, shape: 'square', at: [] }, skin: 0, finish: 0, lead: { kind: 'arc', length: 3 }, ramp: 5, overlap: 3, start: [] },
  ]; // prettier-ignore
  file.assets = { [hash]: { name: 'mutant.svg', base64: base64FromBytes(svg) } };
  return file;
}

test('who sends more than anything may be long reads why it is refused', async () => {
  const body = '{"a":"' + 'x'.repeat(90_000_000) + '"}';
  for (let k = 0; k < 4; k++) {
    const response = await post('/api/jobs/import', body);
    expect(response.status).toBe(413);
    await demand('large', k, response, body);
  }
}, 120_000);

test(`${COUNT} drawings`, async () => {
  let [taken, usable, carved, left] = [0, 0, 0, 0];
  await each(COUNT, 1, async (index, rng) => {
    const source = oneOf(rng, drawings);
    const bytes = rng() < 0.4 ? nudged(source, rng) : mutated(source, rng, SVG);
    const response = await post('/api/assets?name=mutant.svg', bytes);
    await demand('drawing', index, response, bytes);
    if (!response.ok) return;
    taken++;
    if (usable % CARVED > 0) {
      usable++;
      return;
    }
    const file = JSON.stringify(jobOf(bytes, rng));
    const made = await post('/api/jobs/import', file);
    const answered = await demand('carving', index, made, file);
    // The door only sees that it is a drawing; whether it can be used is found where its outlines are read.
    if (!made.ok) return;
    usable++;
    const { id } = JSON.parse(answered) as { id: string };
    const { revision } = await bench.ask<{ revision: string }>(`/api/jobs/${id}`);
    const asked = post(`/api/jobs/${id}/programs`, JSON.stringify({ revision }));
    // Ten metres of pocket take longer than anyone waits here: whoever leaves ends the work, and others are served.
    const programs = await asked.catch((error: Error) => {
      if (error.name !== 'TimeoutError') throw error;
      left++;
    });
    if (!programs) return;
    await demand('carving', index, programs, file);
    carved++;
  });
  console.log(
    `${COUNT} drawings: ${taken} taken, ${carved} of them carved, cleared and cut out, ${left} left after five minutes`,
  );
  expect(taken).toBeGreaterThan(0);
}, 7_200_000);

test(`${COUNT} job files`, async () => {
  let taken = 0;
  await each(COUNT, 2, async (index, rng) => {
    const file = oneOf(rng, files);
    const text =
      rng() < 0.6
        ? JSON.stringify(mutatedJson(file, rng))
        : mutated(JSON.stringify(file), rng, {
            words: ['"a":', '[', '{}', 'null', '\\ud800', ',', '1e999'],
            nest: ['[', ']'],
          });
    const response = await post('/api/jobs/import', text);
    await demand('job-file', index, response, text);
    if (response.ok) taken++;
  });
  console.log(`${COUNT} job files: ${taken} taken`);
}, 7_200_000);

test(`${COUNT} job documents`, async () => {
  const { id } = await bench.ask<{ id: string }>('/api/jobs', { name: 'Mutants', unit: 'mm' });
  const { revision, job } = await bench.ask<{ revision: string; job: object }>('/api/jobs/entrance-board');
  const statuses = new Map<number, number>();
  await each(COUNT, 3, async (index, rng) => {
    const base = rng() < 0.7 ? revision : oneOf(rng, ['0', '999999999999999999', '-1', 'x']);
    const body = JSON.stringify({ base, job: mutatedJson(job, rng) });
    const path = `/api/jobs/${rng() < 0.8 ? 'entrance-board' : oneOf(rng, [id, 'nobody', '%00', '..%2F', 'x'.repeat(300)])}`;
    const response = await sent(path, {
      method: 'PUT',
      headers: { 'content-type': 'application/json', 'x-kerbe-page': 'mutants' },
      body,
    });
    statuses.set(response.status, (statuses.get(response.status) ?? 0) + 1);
    // Two versions are an answer of their own, without a problem.
    if (response.status === 409) await response.text();
    else await demand('document', index, response, body);
  });
  console.log(`${COUNT} job documents: ${JSON.stringify(Object.fromEntries(statuses))}`);
}, 7_200_000);

test(`${COUNT} requests`, async () => {
  const list = await bench.ask<{ revision: string; job: { bits: object[] } }>('/api/jobs/comet-marker');
  const hash = 'a'.repeat(64);
  const bodies: [method: string, path: string, body?: unknown][] = [
    ['POST', '/api/jobs', { name: 'x', unit: 'mm' }],
    ['GET', '/api/jobs/comet-marker'],
    ['GET', `/api/jobs/comet-marker/revisions/${list.revision}`],
    ['GET', `/api/jobs/comet-marker/thumbnail?revision=${list.revision}`],
    ['POST', '/api/jobs/comet-marker/undo', { base: list.revision }],
    ['POST', '/api/jobs/comet-marker/redo', { base: list.revision }],
    ['POST', '/api/jobs/comet-marker/choose', { base: list.revision, revision: list.revision }],
    ['POST', '/api/jobs/comet-marker/programs', { revision: '1' }],
    ['POST', '/api/jobs/comet-marker/check', { revision: list.revision, which: 0 }],
    ['POST', '/api/jobs/comet-marker/check', { broken: '00000000-0000-4000-8000-000000000000' }],
    ['POST', '/api/jobs/comet-marker/runs', { hash, token: 'x', takeUp: { run: '00000000-0000-4000-8000-000000000000', line: 4 } }],
    ['GET', '/api/jobs/comet-marker/runs'],
    ['GET', '/api/jobs/comet-marker/export'],
    ['PUT', '/api/bits/v90', list.job.bits[0]],
    ['GET', `/api/assets/${hash}`],
    ['GET', `/api/programs/${hash}`],
    ['PATCH', '/api/runs/00000000-0000-4000-8000-000000000000', { note: 'x' }],
    ['GET', '/api/benches/dome-workshop/stand-in'],
    ['POST', '/api/benches/dome-workshop/stand-in', { hand: 'stock', length: 200, width: 180, corners: [9, 9.1, 9, 8.9] }],
    ['POST', '/api/benches/dome-workshop/stand-in', { hand: 'bit', id: 'a', name: 'b', diameter: 6, angle: 60, tip: 0 }],
    ...['connect', 'zero', 'go-to-zero', 'use-here'].map((command): [string, string, unknown] => [
      'POST', '/api/benches/dome-workshop/command', { command, job: 'comet-marker', method: 'corner', corner: 'lower-left' },
    ]),
    ...['take', 'give', 'keep', 'home', 'hold', 'resume', 'stop', 'clear', 'measure', 'confirm'].map((command): [string, string, unknown] => [
      'POST', '/api/benches/dome-workshop/command', { command },
    ]),
    ['POST', '/api/benches/dome-workshop/command', { command: 'jog', press: 'p', on: true, x: 1, y: 0, z: 0, feed: 500 }],
    ['POST', '/api/benches/dome-workshop/command', { command: 'step', axis: 'x', by: 5, feed: 500 }],
    ['POST', '/api/benches/dome-workshop/command', { command: 'bit-in', bit: { id: 'a', name: 'b', diameter: 6, tip: 0 } }],
    ['POST', '/api/benches/dome-workshop/command', { command: 'tick', step: 'pins', on: true, job: 'x' }],
    ['GET', '/'],
    ['GET', '/jobs/comet-marker/artwork'],
    ['GET', '/jobs/nobody/artwork'],
    ['GET', '/jobs/comet-marker/run/__data.json'],
  ]; // prettier-ignore
  const statuses = new Map<number, number>();
  await each(COUNT, 4, async (index, rng) => {
    const [usual, address, body] = oneOf(rng, bodies);
    let [method, path] = [usual, address];
    let text = body === undefined ? undefined : JSON.stringify(rng() < 0.8 ? mutatedJson(body, rng) : body);
    if (text && rng() < 0.1) text = text.slice(0, upTo(rng, text.length));
    if (text && rng() < 0.05) text = text + ' '.repeat(oneOf(rng, [20_000, 2_000_000]));
    if (rng() < 0.25) {
      const steps = path.split('/');
      const strange = oneOf(rng, [
        '%00',
        '%',
        '..%2f..%2f',
        'x'.repeat(3000),
        '%F0%9F%98%80',
        '-1',
        '1e9',
        '%ED%A0%80',
      ]);
      steps[Math.max(1, upTo(rng, steps.length))] = strange;
      path = steps.join('/');
    }
    if (rng() < 0.1) method = oneOf(rng, ['GET', 'POST', 'PUT', 'PATCH', 'DELETE', 'OPTIONS']);
    const headers: Record<string, string> = { 'content-type': 'application/json', accept: 'application/json' };
    const page = oneOf(rng, ['mutants', 'mutants', 'mutants', '', '%00', 'x'.repeat(500), 'a b']);
    if (rng() < 0.9) headers['x-kerbe-page'] = page;
    if (rng() < 0.3) headers['x-kerbe-name'] = oneOf(rng, ['Ann', '%', '%00', 'x'.repeat(500), '%ED%A0%80']);
    const response = await sent(path, {
      method,
      headers,
      body: method === 'GET' ? undefined : text,
      redirect: 'manual',
    });
    statuses.set(response.status, (statuses.get(response.status) ?? 0) + 1);
    if (
      response.status === 409 ||
      (response.status >= 400 && !response.headers.get('content-type')?.includes('json'))
    ) {
      const said = await response.text();
      expect(said).not.toMatch(/at .*\.(ts|js):\d+/);
    } else await demand('request', index, response, `${method} ${path}\n${JSON.stringify(headers)}\n${text ?? ''}`);
  });
  console.log(`${COUNT} requests: ${JSON.stringify(Object.fromEntries(statuses))}`);
}, 7_200_000);

test('no process of the shop has ended over all that', () => {
  const { benches, parts } = bench.shop;
  const all = [...Object.values(benches).flatMap(({ standIn, runner }) => [standIn, runner]), parts.web];
  expect(all.length).toBe(2 * Object.keys(benches).length + 1);
  expect(all.filter(({ restarts }) => restarts > 0)).toEqual([]);
});
