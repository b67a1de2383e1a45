import { createReadStream } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { setPriority } from 'node:os';
import { timelineFrom } from '@kerbe/core/program/timeline-bytes';
import { programFacts, programPlace } from './program-facts.ts';
import { programWays } from './program-ways.ts';

/**
 * Looks through a program as a process of its own: `read-program.ts FILE`, `read-program.ts FILE LINE` for what holds before a
 * line, `read-program.ts FILE ways TIMELINE` for its ways; prints what it found as JSON.
 */
const [file, what, timeline] = process.argv.slice(2);
setPriority(5);
const bytes = createReadStream(file);
const found =
  what === undefined
    ? await programFacts(bytes)
    : what === 'ways'
      ? await programWays(bytes, timelineFrom(await readFile(timeline)))
      : await programPlace(bytes, Number(what));
console.log(JSON.stringify(found));
