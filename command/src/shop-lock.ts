import { Told } from '@kerbe/core/schema/told';
import { closeSync, mkdirSync, openSync, readFileSync, renameSync, rmSync, writeFileSync, writeSync } from 'node:fs';
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
    for (let tries = 0; ; tries++) {
      try {
        const handle = openSync(file, 'wx', 0o600);
        writeSync(handle, JSON.stringify(lock));
        closeSync(handle);
        return new ShopLock(file, lock);
      } catch (error) {
        if ((error as NodeJS.ErrnoException).code !== 'EEXIST' || tries > 5) throw error;
      }
      const other = read(file);
      if (other && isThere(other.shop)) throw new AlreadyRunning(other.address);
      for (const left of other?.processes ?? []) if (isThere(left)) process.kill(left.pid, 'SIGTERM');
      rmSync(file, { force: true });
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

function read(file: string): Lock | undefined {
  try {
    return LockSchema.parse(JSON.parse(readFileSync(file, 'utf8')));
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
