import { connect } from 'node:net';
import type { OpenTransport } from './transport.ts';

/** A controller on a loopback port. Lines end with a line feed; what a broken link cut off is not passed on. */
export function tcp(port: number): OpenTransport {
  return (events, signal) =>
    new Promise((resolve, reject) => {
      const socket = connect({ port, host: '127.0.0.1', signal });
      socket.setNoDelay(true).setEncoding('utf8');
      let rest = '';
      socket.on('data', (text: string) => {
        const lines = (rest + text).split('\n');
        rest = lines.pop()!;
        for (const line of lines) events.line(line);
      });
      socket.on('error', reject);
      socket.on('close', () => events.closed());
      socket.on('connect', () =>
        resolve({
          send: (line) => void socket.write(line + '\n'),
          close: () => void socket.destroy(),
        }),
      );
    });
}
