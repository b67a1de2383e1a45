import { spawnSync } from 'node:child_process';

/**
 * Runs a program to its end.
 * @throws {Error} with what it printed, where it fails.
 */
export function runQuietly(
  file: string,
  args: readonly string[],
  options: { cwd?: string; env?: NodeJS.ProcessEnv } = {},
): string {
  const done = spawnSync(file, args, { encoding: 'utf8', maxBuffer: 64_000_000, ...options });
  if (done.status !== 0)
    throw new Error(
      `${file} ${args.join(' ')} failed (${done.status ?? done.error?.message}):\n${done.stdout ?? ''}${done.stderr ?? ''}`,
    );
  return done.stdout;
}
