/** Something that waits for its turn. */
interface Waiting {
  user: string;
  begin: () => void;
}

/**
 * Takes turns fairly: so many at once, none for a user who has one while others wait, and between users in a circle.
 * @example two places; A asks three times, then B: A1 and B1 run, then A2, then A3
 */
export class Turns {
  private readonly waiting: Waiting[] = [];
  private readonly running = new Map<string, number>();
  private readonly served = new Map<string, number>();
  private count = 0;
  private turn = 0;

  constructor(
    private readonly places: number,
    /** How many may wait; more are refused at once. */
    private readonly most: number,
  ) {}

  /**
   * Does something when its turn comes. @throws the signal's reason where that fires before; RangeError where too many
   * wait.
   */
  async take<T>(user: string, signal: AbortSignal, work: () => Promise<T>): Promise<T> {
    await this.place(user, signal);
    try {
      return await work();
    } finally {
      const left = this.running.get(user)! - 1;
      if (left > 0) this.running.set(user, left);
      else this.running.delete(user);
      this.count--;
      this.next();
    }
  }

  private place(user: string, signal: AbortSignal): Promise<void> {
    if (this.waiting.length >= this.most) throw new RangeError('too many wait');
    return new Promise((resolve, reject) => {
      signal.throwIfAborted();
      const own: Waiting = {
        user,
        begin: () => {
          signal.removeEventListener('abort', give);
          resolve();
        },
      };
      const give = () => {
        this.waiting.splice(this.waiting.indexOf(own), 1);
        reject(signal.reason as Error);
      };
      signal.addEventListener('abort', give);
      this.waiting.push(own);
      this.next();
    });
  }

  private next(): void {
    while (this.count < this.places) {
      // One place of several is never held by a user who has the others.
      const most = Math.max(1, this.places - 1);
      const able = this.waiting.filter(({ user }) => (this.running.get(user) ?? 0) < most);
      if (able.length === 0) return;
      const last = (user: string) => this.served.get(user) ?? -1;
      const chosen = able.reduce((best, own) => (last(own.user) < last(best.user) ? own : best));
      this.waiting.splice(this.waiting.indexOf(chosen), 1);
      if (this.served.size > 1000) this.served.clear();
      this.served.set(chosen.user, this.turn++);
      this.running.set(chosen.user, (this.running.get(chosen.user) ?? 0) + 1);
      this.count++;
      chosen.begin();
    }
  }
}
