import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { ArtworkError } from '@kerbe/core/artwork/artwork-error';
import { JobFileError, sentenceFor } from '@kerbe/core/job/job-file';
import { type From, FromSchema } from '@kerbe/machine/runner/commands';
import { NoSuchJob } from './jobs.ts';
import { BenchProblem } from './runner-client.ts';

/**
 * Every server route's way in and out: what comes in is checked against a schema, and what goes wrong goes out as
 * `{ problem: one sentence }`.
 */
export async function answer(work: () => Promise<Response>): Promise<Response> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof z.ZodError)
      return json({ problem: `This could not be taken: ${sentenceFor(error)}` }, { status: 400 });
    if (error instanceof SyntaxError || error instanceof URIError)
      return json({ problem: 'This could not be read as JSON.' }, { status: 400 });
    if (error instanceof ArtworkError || error instanceof JobFileError)
      return json({ problem: error.message }, { status: 422 });
    if (error instanceof NoSuchJob) return json({ problem: error.message }, { status: 404 });
    if (error instanceof BenchProblem) return json({ problem: error.message, reason: error.reason }, { status: 409 });
    throw error;
  }
}

/** The body of a request as a schema wants it. @throws {z.ZodError | SyntaxError} */
export async function taken<T extends z.ZodType>(request: Request, schema: T): Promise<z.infer<T>> {
  return schema.parse(JSON.parse(await request.text()));
}

/** Which page asks, and what its person is called: what a bench knows its operator by. @throws {z.ZodError} */
export function asker(request: Request): From {
  return FromSchema.parse({
    page: request.headers.get('x-kerbe-page') ?? undefined,
    name: decodeURIComponent(request.headers.get('x-kerbe-name') ?? ''),
  });
}

export const Revision = z.string().regex(/^\d{1,18}$/);
