import { createServer } from 'node:http';
import { connect, type AddressInfo } from 'node:net';
import { expect, test } from 'vitest';
import { EventStream } from './event-stream.ts';

test('a reader that stalls has a bounded backlog, and catches up with the newest', async () => {
  const streams: EventStream[] = [];
  const server = createServer((_request, response) => {
    response.socket?.setNoDelay(true);
    streams.push(new EventStream(response));
  });
  const port = await new Promise<number>((resolve) =>
    server.listen(0, '127.0.0.1', () => resolve((server.address() as AddressInfo).port)),
  );
  const socket = connect(port, '127.0.0.1');
  socket.setEncoding('utf8').pause();
  socket.write('GET / HTTP/1.1\r\nhost: x\r\n\r\n');
  while (streams.length === 0) await new Promise((resolve) => setTimeout(resolve, 5));
  const [stream] = streams;
  const filler = 'x'.repeat(10_000);
  const before = process.memoryUsage().rss;
  for (let k = 0; k < 30_000; k++) {
    stream.tell(JSON.stringify({ k, filler }));
    if (k % 1000 === 0) await new Promise((resolve) => setImmediate(resolve));
  }
  // 300 MB were told; the sockets hold a few.
  expect(process.memoryUsage().rss - before).toBeLessThan(120e6);
  let text = '';
  let read = 0;
  socket.on('data', (part: string) => {
    read += part.length;
    text = (text + part).slice(-40_000);
  });
  socket.resume();
  while (!text.includes('"k":29999')) await new Promise((resolve) => setTimeout(resolve, 10));
  expect(read).toBeLessThan(60e6);
  socket.destroy();
  server.close();
});
