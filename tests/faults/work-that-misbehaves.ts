import { appendFileSync } from 'node:fs';
import workerpool from 'workerpool';

/** Stands in for the shop's heavy work: each task does one thing that such work may do wrong. */
const told = (what: string) => appendFileSync(process.env.KERBE_TOLD!, `${what} ${process.pid}\n`);

workerpool.worker({
  /** Never ends, and hears nothing meanwhile. */
  programs(): void {
    workerpool.workerEmit({ pid: process.pid });
    told('programs');
    for (;;);
  },
  /** Holds more and more memory, outside what a heap limit sees. */
  thumbnail(): void {
    workerpool.workerEmit({ pid: process.pid });
    told('thumbnail');
    const held: Buffer[] = [];
    for (;;) held.push(Buffer.alloc(10_000_000, 1));
  },
  /** Ends in the middle. */
  jobFile(): void {
    workerpool.workerEmit({ pid: process.pid });
    process.exit(7);
  },
  /** Takes a moment and is well. */
  async drawing(file: string): Promise<unknown> {
    workerpool.workerEmit({ pid: process.pid });
    told('drawing');
    await new Promise((resolve) => setTimeout(resolve, 200));
    return { found: file };
  },
  save(): unknown {
    return { fault: 'RangeError: Maximum call stack size exceeded' };
  },
});
