import type { IncomingMessage } from 'node:http';

declare global {
  namespace App {
    interface Error {
      message: string;
    }
    interface Locals {
      /** Fires when whoever asked has gone before the answer. */
      left: AbortSignal;
    }
    interface Platform {
      req: IncomingMessage;
    }
  }
}

export {};
