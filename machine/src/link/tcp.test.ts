import { getEventListeners } from 'node:events';
import { createServer, type Server } from 'node:net';
import { afterEach, expect, test } from 'vitest';
import { tcp } from './tcp.ts';

let server: Server | undefined;
afterEach(() => void server?.close());

async function listening(got: (text: string) => void = () => {}): Promise<number> {
  server = createServer((socket) => socket.on('error', () => {}).on('data', (bytes) => got(String(bytes))));
  await new Promise<void>((resolve) => server!.listen(0, '127.0.0.1', resolve));
  return (server.address() as { port: number }).port;
}
const events = { line: () => {}, closed: () => {} };

test('a link that stands does not hang on the signal it was made by, however many are made', async () => {
  let told: (text: string) => void = () => {};
  const got = new Promise<string>((resolve) => (told = resolve));
  const port = await listening((text) => told(text));
  const connecting = new AbortController();
  let closed = 0;
  const links = [];
  for (let k = 0; k < 20; k++) links.push(await tcp(port)({ ...events, closed: () => closed++ }, connecting.signal));
  expect(getEventListeners(connecting.signal, 'abort')).toHaveLength(0);
  connecting.abort(new Error('too late'));
  links[0].send('there');
  expect(await got).toBe('there\n');
  expect(closed).toBe(0);
  for (const link of links) link.close();
});

test('connecting is given up with the signal’s reason', async () => {
  const gone = AbortSignal.abort(new Error('given up'));
  await expect(tcp(1)(events, gone)).rejects.toThrow('given up');
  const cancel = new AbortController();
  const waiting = tcp(await listening())(events, cancel.signal);
  cancel.abort(new Error('not now'));
  await expect(waiting).rejects.toThrow('not now');
});
