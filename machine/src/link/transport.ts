/** A way to a machine that carries lines of text both ways. */
export interface Transport {
  send(line: string): void;
  close(): void;
}

/** What a transport tells its owner. */
export interface TransportEvents {
  line(text: string): void;
  /** The other side is gone, or the way to it. */
  closed(): void;
}

/** Makes a transport. @throws where nothing is reached; also when the signal says so. */
export type OpenTransport = (events: TransportEvents, signal: AbortSignal) => Promise<Transport>;
