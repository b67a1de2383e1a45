import { z } from 'zod';
import { JobSchema, type Job } from './job.ts';

/** A job as a file (`*.kerbe.json`): the document, and the imported artwork it refers to, base64 by SHA-256. */
export const JobFileSchema = z.object({
  job: JobSchema,
  assets: z.record(z.string().regex(/^[0-9a-f]{64}$/), z.object({ name: z.string().max(200), base64: z.base64() })),
});

export type JobFile = z.infer<typeof JobFileSchema>;

export class JobFileError extends Error {
  override name = 'JobFileError';
}

/**
 * Reads a job file.
 * @throws {JobFileError} with one sentence that says where it is wrong.
 */
export function readJobFile(text: string): JobFile {
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    throw new JobFileError('This file is not a Kerbe job (it is not JSON); choose a file that ends in .kerbe.json.');
  }
  const parsed = JobFileSchema.safeParse(data);
  if (!parsed.success)
    throw new JobFileError(
      `This file is not a valid Kerbe job (${sentenceFor(parsed.error).slice(0, -1)}); export it again where it came from.`,
    );
  return parsed.data;
}

/** The first thing a schema objects to, as a sentence. */
export function sentenceFor(error: z.ZodError): string {
  const [issue] = error.issues;
  const where = issue.path.map(String).join(' › ');
  return `${where ? `${where}: ` : ''}${issue.message}.`;
}

/** Bytes from base64 and back, without Node's Buffer or the browser's data URLs. */
export function bytesFromBase64(base64: string): Uint8Array<ArrayBuffer> {
  const binary = atob(base64);
  const bytes = new Uint8Array(binary.length);
  for (let i = 0; i < binary.length; i++) bytes[i] = binary.charCodeAt(i);
  return bytes;
}

export function base64FromBytes(bytes: Uint8Array): string {
  let binary = '';
  for (let i = 0; i < bytes.length; i += 0x8000) binary += String.fromCharCode(...bytes.subarray(i, i + 0x8000));
  return btoa(binary);
}

/** A job file's text. */
export function writeJobFile(job: Job, assets: JobFile['assets']): string {
  return JSON.stringify({ job, assets }, null, 2) + '\n';
}
