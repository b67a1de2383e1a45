import { Told } from '@kerbe/core/schema/told';

/** A command used wrongly: one sentence, exit code 2. */
export class Misuse extends Told {
  override name = 'Misuse';
}

/** What working with a file gives. @throws {Misuse} with one sentence where the file system refuses. */
export function fileOf<T>(work: () => T, file: string, done: 'read' | 'written'): T {
  try {
    return work();
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    if (code === undefined || !/^E[A-Z]+$/.test(code)) throw error;
    const why: Record<string, string> = {
      ENOENT: 'its folder does not exist',
      EISDIR: 'it is a folder',
      ENOTDIR: 'a part of its path is no folder',
      EACCES: 'that is not allowed',
      EPERM: 'that is not allowed',
      ENOSPC: 'the disk is full',
      EROFS: 'the disk can only be read',
      ENAMETOOLONG: 'its name is too long',
    };
    throw new Misuse(`${file} cannot be ${done}: ${why[code] ?? code}.`);
  }
}
