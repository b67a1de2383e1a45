import { Told } from '../schema/told.ts';
import { z } from 'zod';
import { type CutJob, JobSchema } from './job.ts';
import { sentenceFor } from '../schema/sentence-for.ts';
import { text } from '../schema/text.ts';

/** As `z.base64()`, whose expression cannot follow many megabytes. */
const Base64 = z
  .string()
  .max(80_000_000)
  .refine((data) => data.length % 4 === 0 && !/[^0-9A-Za-z+/=]/.test(data), 'is not base64')
  .meta({ contentEncoding: 'base64' });

/** A job as a file (`*.kerbe.json`): the document, and the imported artwork it refers to, base64 by SHA-256. */
export const JobFileSchema = z.object({
  job: JobSchema,
  assets: z.record(z.string().regex(/^[0-9a-f]{64}$/), z.object({ name: text(200), base64: Base64 })),
});

export type JobFile = z.infer<typeof JobFileSchema>;

export class JobFileError extends Told {
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
      `This file is not a valid Kerbe job (${withinSentence(sentenceFor(parsed.error))}); export it again where it came from.`,
    );
  return parsed.data;
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
export function writeJobFile(job: CutJob, assets: JobFile['assets']): string {
  return JSON.stringify({ job, assets }, null, 2) + '\n';
}

/** A sentence as a part of another. */
function withinSentence(sentence: string): string {
  return sentence[0].toLowerCase() + sentence.slice(1, -1);
}
