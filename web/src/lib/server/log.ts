import pino from 'pino';

/** Structured log, one JSON object a line. */
export const log = pino({ level: process.env.KERBE_LOG ?? 'info', base: undefined });
