import type { ChildProcess } from 'node:child_process';

/** Pauses before one start and the next, ms: the longer, the oftener it ended soon. */
const FIRST_PAUSE = 200;
const LONGEST_PAUSE = 15_000;
/** Who has run this long, ms, ran well. */
const RAN_WELL = 30_000;

/** A process of the shop that is started again whenever it ends, until it is told to stop. */
export class Supervised {
  private child?: ChildProcess;
  private pause = FIRST_PAUSE;
  private stopped = false;
  private timer?: NodeJS.Timeout;
  /** How often it was started again. */
  restarts = 0;

  /** @param begin starts it; resolves when it is ready. @param say told what happens, in a sentence. */
  constructor(
    readonly name: string,
    private readonly begin: () => Promise<ChildProcess>,
    private readonly say: (sentence: string) => void,
  ) {}

  get pid(): number | undefined {
    return this.child?.pid;
  }

  get process(): ChildProcess | undefined {
    return this.child;
  }

  /** The first start. @throws what went wrong; it is not tried again then. */
  async start(): Promise<void> {
    this.watch(await this.begin());
  }

  private watch(child: ChildProcess): void {
    this.child = child;
    const since = Date.now();
    const ended = (code: number | null, signal: string | null) => {
      this.child = undefined;
      if (this.stopped) return;
      if (Date.now() - since > RAN_WELL) this.pause = FIRST_PAUSE;
      this.again(`The ${this.name} has ended (${signal ?? code}); it is started again.`);
    };
    if (child.exitCode !== null || child.signalCode !== null) ended(child.exitCode, child.signalCode);
    else child.once('exit', ended);
  }

  /** @param why said when it is begun again: where all of it was told to end, a part may have ended first. */
  private again(why?: string): void {
    this.timer = setTimeout(() => {
      if (why) this.say(why);
      this.restarts++;
      this.pause = Math.min(LONGEST_PAUSE, this.pause * 2);
      this.begin().then(
        (child) => {
          if (this.stopped) child.kill();
          else this.watch(child);
        },
        (error: unknown) => {
          if (this.stopped) return;
          this.say(`The ${this.name} could not be started (${String(error).slice(0, 300)}); it is tried again.`);
          this.again();
        },
      );
    }, this.pause);
  }

  stop(): void {
    this.stopped = true;
    clearTimeout(this.timer);
    this.child?.kill();
  }
}
