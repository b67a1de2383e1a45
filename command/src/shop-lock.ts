import { Told } from '@kerbe/core/schema/told';
import { createHash } from 'node:crypto';
import { linkSync, mkdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { z } from 'zod';

/** A process by its number and when it began: numbers come again, both together do not. */
const KnownSchema = z.object({ pid: z.number().int(), began: z.string() });
type Known = z.infer<typeof KnownSchema>;

const LockSchema = z.object({
  shop: KnownSchema,
  address: z.string().optional(),
  /** What it has started, for who comes after it where it was killed. */
  processes: z.array(KnownSchema),
});
type Lock = z.infer<typeof LockSchema>;

/** So often a claim is tried while others come and go. */
const TRIES = 10_000;

/** A shop is running on these data already. */
export class AlreadyRunning extends Told {
  override name = 'AlreadyRunning';
  constructor(readonly address: string | undefined) {
    super(
      address
        ? `Kerbe is running already for these data: ${address}`
        : 'Kerbe is being started already for these data; wait until it shows its address.',
    );
  }
}

/** The claim of one start on a folder of data: a second start sees it, and where the first is. */
export class ShopLock {
  private constructor(
    private readonly file: string,
    private lock: Lock,
  ) {}

  /**
   * Claims a folder. What a start that was killed has left running is ended first.
   * @throws {AlreadyRunning}
   */
  static claim(folder: string): ShopLock {
    mkdirSync(folder, { recursive: true });
    const file = `${folder}/shop.json`;
    const lock: Lock = { shop: known(process.pid)!, processes: [] };
    // Written first and then put in its place whole: of two at one instant one is there, with all that it says.
    const own = `${file}.${process.pid}`;
    writeFileSync(own, JSON.stringify(lock), { mode: 0o600 });
    try {
      for (let tries = 0; ; tries++) {
        try {
          linkSync(own, file);
          return new ShopLock(file, lock);
        } catch (error) {
          if (!isCode(error, 'EEXIST') || tries > TRIES) throw error;
        }
        if (takeOver(file, own)) return new ShopLock(file, lock);
      }
    } finally {
      rmSync(own, { force: true });
    }
  }

  /** Says where the shop is, and which processes are its own. */
  tell(address: string, pids: readonly (number | undefined)[]): void {
    const processes = pids.flatMap((pid) => (pid ? [known(pid)] : [])).filter((own) => own !== undefined);
    this.lock = { ...this.lock, address, processes };
    writeFileSync(`${this.file}.new`, JSON.stringify(this.lock), { mode: 0o600 });
    renameSync(`${this.file}.new`, this.file);
  }

  release(): void {
    rmSync(this.file, { force: true });
  }
}

/**
 * Puts a claim in the place of one whose start was killed, and ends what that has left running.
 * @param own the file of the new claim. @returns whether it stands there now; if not, there is another to look at.
 * @throws {AlreadyRunning} where the one that is there runs
 */
function takeOver(file: string, own: string): boolean {
  const text = read(file);
  if (text === undefined) return false;
  const other = parsed(text);
  if (other && isThere(other.shop)) throw new AlreadyRunning(other.address);
  // One alone follows this claim: whoever has this name.
  const turn = `${file}.${createHash('sha256').update(text).digest('hex').slice(0, 12)}`;
  try {
    linkSync(own, turn);
  } catch (error) {
    if (!isCode(error, 'EEXIST')) throw error;
    const taking = parsed(read(turn) ?? '');
    if (!taking || !isThere(taking.shop)) rmSync(turn, { force: true });
    return false;
  }
  try {
    // Another may have followed it before.
    if (read(file) !== text) return false;
    renameSync(own, file);
  } finally {
    rmSync(turn, { force: true });
  }
  for (const left of other?.processes ?? []) if (isThere(left)) process.kill(left.pid, 'SIGTERM');
  return true;
}

const isCode = (error: unknown, code: string) => (error as NodeJS.ErrnoException).code === code;

function read(file: string): string | undefined {
  try {
    return readFileSync(file, 'utf8');
  } catch (error) {
    if (isCode(error, 'ENOENT')) return undefined;
    throw error;
  }
}

/** What a claim says; nothing where it was written by half. */
function parsed(text: string): Lock | undefined {
  try {
    return LockSchema.parse(JSON.parse(text));
  } catch {
    return undefined;
  }
}

/** A process as it is known by the system (field 22 of `/proc/PID/stat` is when it began); nothing where it is none. */
function known(pid: number): Known | undefined {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    return { pid, began: stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19] };
  } catch {
    return undefined;
  }
}

function isThere(one: Known): boolean {
  return known(one.pid)?.began === one.began;
}
