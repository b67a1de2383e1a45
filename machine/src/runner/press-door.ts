import { createHmac, timingSafeEqual } from 'node:crypto';
import { z } from 'zod';
import { isLoopback } from '../link/loopback.ts';
import { FromSchema } from './commands.ts';

/**
 * What a page may send straight to a runner: Hold and Stop, and nothing else. It goes past the web server, over a
 * connection that no other work of any page takes.
 */
export const PressSchema = z
  .object({
    token: z.string().max(200),
    command: z.enum(['hold', 'stop']),
    press: z.string().regex(/^[A-Za-z0-9_-]{1,60}$/),
    ...FromSchema.shape,
  })
  .strict();
export type Press = z.infer<typeof PressSchema>;

/** What lets a page hold and stop; nothing else can be done with it, and nothing else be found from it. */
export function pressToken(runnerToken: string): string {
  return createHmac('sha256', runnerToken).update('hold and stop').digest('hex');
}

export function isPressToken(given: string, runnerToken: string): boolean {
  const [a, b] = [Buffer.from(given), Buffer.from(pressToken(runnerToken))];
  return a.length === b.length && timingSafeEqual(a, b);
}

/** The origin of a page of this computer, which may read the answer; nothing for another. */
export function pageOrigin(origin: string | undefined): string | undefined {
  if (!origin || !URL.canParse(origin)) return undefined;
  return isLoopback(new URL(origin).host) ? origin : undefined;
}
