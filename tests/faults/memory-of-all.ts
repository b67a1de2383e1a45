import { readdirSync, readFileSync } from 'node:fs';

/** The most memory that any process begun by this one, or by those, has held at once, MB, by what it is. */
export class MemoryOfAll {
  readonly peak = new Map<string, number>();
  private readonly timer = setInterval(() => this.look(), 100);

  private look(): void {
    const parents = new Map<number, number>();
    const held = new Map<number, number>();
    for (const name of readdirSync('/proc')) {
      const pid = Number(name);
      if (!pid) continue;
      try {
        const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
        const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
        parents.set(pid, Number(fields[1]));
        held.set(pid, (Number(fields[21]) * 4096) / 1e6);
      } catch {
        // It has ended between the list and the look.
      }
    }
    for (const [pid, megabytes] of held) {
      let above = parents.get(pid);
      while (above && above !== process.pid) above = parents.get(above);
      if (above !== process.pid) continue;
      const what = kindOf(pid);
      if (what) this.peak.set(what, Math.max(this.peak.get(what) ?? 0, Math.round(megabytes)));
    }
  }

  stop(): string {
    clearInterval(this.timer);
    return [...this.peak].map(([what, megabytes]) => `${what} ${megabytes} MB`).join(', ');
  }
}

function kindOf(pid: number): string | undefined {
  try {
    const line = readFileSync(`/proc/${pid}/cmdline`, 'utf8');
    return /heavy\/worker/.test(line)
      ? 'heavy work'
      : /web\/serve/.test(line)
        ? 'web server'
        : /runner\/main/.test(line)
          ? 'runner'
          : /stand-in\/main/.test(line)
            ? 'stand-in'
            : undefined;
  } catch {
    return undefined;
  }
}
