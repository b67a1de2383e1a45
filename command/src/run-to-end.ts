import { spawn } from 'node:child_process';

/** What a program came to that has run to its end. */
export interface Ended {
  status: number | null;
  stdout: string;
  stderr: string;
}

/** So long after its end its output is waited for, ms, where something holds it open. */
const HELD_OPEN = 1000;
/** So long a program that was told to end may take to it, ms, before it is ended. */
const GRACE = 2000;

/**
 * Runs a program, with all that it starts in a process group of its own, to its end.
 * @param signal ends it and the whole group.
 * @throws the signal's reason, when the group has ended; the error of a program that cannot be started.
 */
export function runToEnd(
  file: string,
  args: readonly string[],
  { cwd, input, signal }: { cwd?: string; input?: string; signal?: AbortSignal } = {},
): Promise<Ended> {
  signal?.throwIfAborted();
  return new Promise((resolve, reject) => {
    const child = spawn(file, args, { cwd, detached: true, stdio: 'pipe' });
    const said = { stdout: '', stderr: '' };
    let late: NodeJS.Timeout | undefined;
    const kill = (how: NodeJS.Signals) => {
      try {
        if (child.pid) process.kill(-child.pid, how);
      } catch {
        // It has ended by now.
      }
    };
    const abort = () => {
      kill('SIGTERM');
      late = setTimeout(() => kill('SIGKILL'), GRACE);
    };
    for (const name of ['stdout', 'stderr'] as const)
      child[name].setEncoding('utf8').on('data', (text: string) => (said[name] += text));
    // Who does not read to the end of what it is told has ended itself.
    child.stdin.on('error', () => {});
    child.stdin.end(input ?? '');
    const ended = (status: number | null) => {
      clearTimeout(late);
      signal?.removeEventListener('abort', abort);
      if (signal?.aborted) reject(signal.reason as Error);
      else resolve({ status, ...said });
    };
    child.on('error', reject);
    child.on('close', ended);
    // What it leaves running in the background may hold its output open.
    child.on('exit', (status) => setTimeout(() => ended(status), HELD_OPEN).unref());
    signal?.addEventListener('abort', abort);
  });
}

/**
 * The same, where only what it prints is wanted.
 * @throws {Error} with what it printed, where it fails; the signal's reason.
 */
export async function printedBy(
  file: string,
  args: readonly string[],
  options: { cwd?: string; signal?: AbortSignal } = {},
): Promise<string> {
  const { status, stdout, stderr } = await runToEnd(file, args, options);
  if (status !== 0) throw new Error(`${file} ${args.join(' ')} failed (${status}):\n${stdout}${stderr}`);
  return stdout;
}
