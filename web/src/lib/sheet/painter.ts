import { type Remote, wrap } from 'comlink';
import type { SheetFrame } from '../sheet-frame.ts';
import type { Lines } from './lines.ts';
import type { Group, Tones } from './paint.ts';
import type { PaintWorker } from './paint.worker.ts';
import PaintProcess from './paint.worker?worker';

/** One for what is large, and one for what has to be seen at once. */
const threads = new Map<boolean, Remote<PaintWorker>>();
let owners = 0;

function threadFor(quick: boolean): Remote<PaintWorker> {
  const thread = threads.get(quick) ?? wrap<PaintWorker>(new PaintProcess());
  threads.set(quick, thread);
  return thread;
}

/** Ranges as the thread takes them. They are written once: a sheet that is moved is drawn again and again. */
const packed = new WeakMap<Group['ranges'], { ranges: Uint32Array; evenOdd: Uint8Array }>();

function packedRanges(ranges: Group['ranges']): { ranges: Uint32Array; evenOdd: Uint8Array } {
  const known = packed.get(ranges);
  if (known) return known;
  const fresh = {
    ranges: Uint32Array.from(ranges.flatMap(({ from, to }) => [from, to])),
    evenOdd: Uint8Array.from(ranges, ({ rule }) => (rule === 'evenodd' ? 1 : 0)),
  };
  packed.set(ranges, fresh);
  return fresh;
}

/** Draws groups in a thread that pictures of a page share: the page’s own thread only tells it what to draw. */
export class Painter {
  private readonly owner = ++owners;
  private readonly remote: Remote<PaintWorker>;
  /** Numbers of the lines that the thread has. */
  private told = new Map<Lines, number>();
  private next = 1;

  /** @param quick for few shapes that are to be seen at once, whatever else is being drawn. */
  constructor(quick: boolean) {
    this.remote = threadFor(quick);
  }

  /** The picture, as it is to be put on a canvas. */
  async picture(
    groups: readonly Group[],
    frame: SheetFrame,
    size: { width: number; height: number; ratio: number },
    tones: Tones,
  ): Promise<ImageBitmap> {
    const used = new Map<Lines, number>();
    const fresh: [number, Lines][] = [];
    for (const { lines } of groups) {
      if (used.has(lines)) continue;
      const number = this.told.get(lines) ?? this.next++;
      if (!this.told.has(lines)) fresh.push([number, lines]);
      used.set(lines, number);
    }
    this.told = used;
    // Lines and groups in one word: nothing can come between them.
    return this.remote.picture(this.owner, fresh, {
      groups: groups.map(({ lines, ranges, look }) => ({
        lines: used.get(lines)!,
        ...packedRanges(ranges),
        look: { ...look },
      })),
      frame,
      size,
      tones,
    });
  }

  end(): void {
    void this.remote.forget(this.owner);
  }
}
