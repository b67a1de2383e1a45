import { readFile } from 'node:fs/promises';

const PAGE = 4096;

/** Memory that a process holds, bytes (`statm` of Linux's proc file system); 0 where there is no such process. */
export async function memoryOf(pid: number): Promise<number> {
  try {
    return Number((await readFile(`/proc/${pid}/statm`, 'utf8')).split(' ')[1]) * PAGE;
  } catch {
    return 0;
  }
}
