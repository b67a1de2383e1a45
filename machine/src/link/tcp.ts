import { connect } from 'node:net';
import type { OpenTransport } from './transport.ts';

/** A controller on a loopback port. Lines end with a line feed; what a broken link cut off is not passed on. */
export function tcp(port: number): OpenTransport {
  return (events, signal) =>
    new Promise((resolve, reject) => {
      signal.throwIfAborted();
      const socket = connect({ port, host: '127.0.0.1' });
      // The signal is that of the connecting: a link that stands is none of it any more.
      const giveUp = () => socket.destroy(signal.reason as Error);
      const settled = () => signal.removeEventListener('abort', giveUp);
      signal.addEventListener('abort', giveUp);
      socket.setNoDelay(true).setEncoding('utf8');
      let rest = '';
      socket.on('data', (text: string) => {
        const lines = (rest + text).split('\n');
        rest = lines.pop()!;
        for (const line of lines) events.line(line);
      });
      socket.on('error', reject);
      socket.on('close', () => {
        settled();
        events.closed();
      });
      socket.on('connect', () => {
        settled();
        resolve({
          send: (line) => void socket.write(line + '\n'),
          close: () => void socket.destroy(),
        });
      });
    });
}
