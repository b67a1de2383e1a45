import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { type From, FromSchema } from '@kerbe/machine/runner/commands';
import { log } from './log.ts';
import { Refused, refusalOf } from './refusal.ts';

/**
 * Every server route's way out: what goes wrong goes out as `{ problem: one sentence }`, and what is a fault of ours is
 * logged and said as ours.
 */
export async function answer(work: () => Promise<Response>): Promise<Response> {
  try {
    return await work();
  } catch (error) {
    const refusal = refusalOf(error);
    if (refusal) {
      const { status, problem, reason } = refusal;
      return json({ problem, reason }, { status });
    }
    log.error({ error: String(error), stack: (error as Error)?.stack }, 'a fault of ours');
    return json({ problem: OURS }, { status: 500 });
  }
}

export const OURS =
  'Something is wrong in Kerbe itself, and nothing was changed; try again, and look into its log if it stays.';

/** Which page asks, and what its person is called: what a bench knows its operator by. @throws {z.ZodError | Refused} */
export function asker(request: Request): From {
  let name: string;
  try {
    name = decodeURIComponent(request.headers.get('x-kerbe-name') ?? '');
  } catch {
    throw new Refused('The name of who asks could not be read.', 400);
  }
  return FromSchema.parse({ page: request.headers.get('x-kerbe-page') ?? undefined, name });
}

/** Whose turn heavy work is: a page's own. */
export function turnOf(request: Request): string {
  return (request.headers.get('x-kerbe-page') ?? '').slice(0, 60);
}

/** The number of a revision, as PostgreSQL counts them. */
export const Revision = z.string().regex(/^\d{1,18}$/);
