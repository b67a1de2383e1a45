import { Hub, type Source } from './hub';
import type { FromPage } from './messages';

/** The shared worker that has the stream of all pages of this browser. */
const hub = new Hub((url) => new EventSource(url) as unknown as Source);

(self as unknown as { onconnect: (event: MessageEvent) => void }).onconnect = ({ ports: [port] }) => {
  const watched = new Set<string>();
  port.onmessage = ({ data: { key, at, lock } }: MessageEvent<FromPage>) => {
    hub.join(key, at, (told) => port.postMessage(told));
    if (watched.has(key)) return;
    watched.add(key);
    // Given when the page is gone, however it went.
    void navigator.locks.request(lock, () => hub.leave(key));
  };
};
