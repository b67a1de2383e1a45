import { createWriteStream } from 'node:fs';
import { mkdtemp, readdir, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { z } from 'zod';
import { Refused } from './refusal.ts';

/** Most bytes of a body, by what it is. */
export const MOST_BYTES = { command: 10_000, text: 40_000, bit: 100_000, job: 20_000_000, asset: 60_000_000 } as const;

const unreadable = () => new Refused('This could not be read as JSON.', 400);

/**
 * The body of a request as a schema wants it.
 * @throws {z.ZodError} where it is something else; {@link Refused} where it is no JSON, or longer than it may be.
 */
export async function taken<T extends z.ZodType>(
  request: Request,
  schema: T,
  most: number = MOST_BYTES.command,
): Promise<z.infer<T>> {
  const parts: Uint8Array[] = [];
  for await (const part of bounded(request, most)) parts.push(part);
  let data: unknown;
  try {
    data = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(Buffer.concat(parts)));
  } catch {
    throw unreadable();
  }
  return schema.parse(data);
}

/** Folders of what is being sent in, with the process that takes it. */
const LEFT = 'kerbe-in-';

/** Old folders told no process; one that is older than this, ms, is nobody's any more. */
const LONGEST_SENT = 3_600_000;

/** Takes away what processes that were killed had taken in: a folder whose process lives is left. */
export async function sweepLeft(): Promise<void> {
  for (const name of await readdir(tmpdir())) {
    if (!name.startsWith(LEFT)) continue;
    const folder = join(tmpdir(), name);
    const pid = Number(/^kerbe-in-(\d+)-/.exec(name)?.[1] ?? NaN);
    const made = await stat(folder).catch(() => undefined);
    const gone = Number.isNaN(pid) ? made && Date.now() - made.mtimeMs > LONGEST_SENT : !lives(pid);
    // Another account's is not ours to take away.
    if (gone) await rm(folder, { recursive: true, force: true }).catch(() => {});
  }
}

function lives(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}

/** Does something with the body of a request laid into a file, which is gone afterwards. @throws {Refused} */
export async function spooled<T>(request: Request, most: number, work: (file: string) => Promise<T>): Promise<T> {
  const folder = await mkdtemp(join(tmpdir(), `${LEFT}${process.pid}-`));
  try {
    const file = join(folder, 'body');
    await pipeline(Readable.from(bounded(request, most)), createWriteStream(file, { mode: 0o600 }));
    return await work(file);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** The bytes of a body as they come, and no more of them than may. */
async function* bounded(request: Request, most: number): AsyncGenerator<Uint8Array> {
  const tooLong = () =>
    new Refused(
      `This is larger than it may be (${(most / 1e6).toLocaleString('en', { maximumFractionDigits: 2 })} MB); make it smaller and try again.`,
      413,
    );
  if (!request.body) return;
  let size = Number(request.headers.get('content-length') ?? 0) > most ? Infinity : 0;
  // Who sends too much is heard to his end, or he would never read why it was refused; the server's own limit ends that.
  for await (const part of request.body as unknown as AsyncIterable<Uint8Array>) {
    size += part.length;
    if (size <= most) yield part;
  }
  if (size > most) throw tooLong();
}
