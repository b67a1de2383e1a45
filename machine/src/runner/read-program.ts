import { createReadStream } from 'node:fs';
import { setPriority } from 'node:os';
import { programFacts, programPlace } from './program-facts.ts';

/** Looks through a program as a process of its own: `read-program.ts FILE [LINE]`; prints what it found as JSON. */
const [file, line] = process.argv.slice(2);
setPriority(5);
const bytes = createReadStream(file);
const found = line === undefined ? await programFacts(bytes) : await programPlace(bytes, Number(line));
console.log(JSON.stringify(found));
