import { readFileSync } from 'node:fs';
import { Told } from '@kerbe/core/schema/told';

/** What went wrong at a start by what its error says, and what to do; the first that fits. */
const TROUBLE: readonly [RegExp, (data: string) => string][] = [
  [
    /ENOSPC|No space left on device/,
    (data) => `The disk that holds ${data} is full; make room on it and start again. What is kept there is as it was.`,
  ],
  [
    /EFBIG|File too large|SIGXFSZ|signal 25/,
    () => 'Files may not grow as large here as the database needs (see ulimit -f); allow it and start again.',
  ],
  [
    /EROFS|EACCES|Read-only file system|Permission denied/,
    (data) =>
      `Kerbe may not write everything in ${data}; make it writable, or name another folder: KERBE_DATA=/a/folder ./kerbe start`,
  ],
];

/** The last word of a database that could not be started, from its own log; nothing where there is none. */
function lastWord(log: string): string | undefined {
  try {
    const last = readFileSync(log, 'utf8')
      .split('\n')
      .findLast((line) => /FATAL|PANIC/.test(line));
    return /(?:FATAL|PANIC):\s+(.*)$/.exec(last ?? '')?.[1];
  } catch {
    return undefined;
  }
}

/**
 * What an error of a start says to whoever started: one sentence, with what to do; the error itself where it is a fault of ours.
 * @param data the shop's folder.
 * @example startTrouble(new Error('ENOSPC: no space left on device'), '/d').message // 'The disk that holds /d is full; make room on it and start again. What is kept there is as it was.'
 */
export function startTrouble(error: Error, data: string): Error {
  if (error instanceof Told) return error;
  const said = `${(error as NodeJS.ErrnoException).code ?? ''} ${error.message}`;
  const log = /[^\s']+postgres\.log/.exec(said)?.[0];
  const word = log && lastWord(log);
  for (const [sign, sentence] of TROUBLE)
    if (sign.test(said) || (word && sign.test(word))) return new Told(sentence(data));
  if (word) return new Told(`The database could not be started: ${word}. The whole of it stands in ${log}.`);
  return error;
}
