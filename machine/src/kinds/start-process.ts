import { type ChildProcess, spawn } from 'node:child_process';
import { createInterface } from 'node:readline';
import { fileURLToPath } from 'node:url';
import { z } from 'zod';
import { processArguments } from '../process-file.ts';

export interface Started {
  process: ChildProcess;
  port: number;
  /** Where its hands and eyes are, of a simulated machine. */
  hands?: number;
  /** What the path to them begins with. */
  secret?: string;
}

export interface StartOptions {
  env?: NodeJS.ProcessEnv;
  /** Told each line that it prints. */
  onLine?: (line: string) => void;
  signal?: AbortSignal;
}

const Ready = z.object({ listening: z.number(), hands: z.number().optional(), secret: z.string().optional() });

/**
 * Starts a process of Kerbe's own that prints `{"listening": PORT}` when it is ready.
 * @param options.signal ends it where it is not ready yet.
 * @throws what it printed, where it ends before it is ready; the signal's reason.
 */
export function startProcess(
  file: URL,
  args: readonly string[],
  { env = process.env, onLine, signal }: StartOptions = {},
): Promise<Started> {
  signal?.throwIfAborted();
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, [...processArguments(file), ...args], {
      env,
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    const abort = () => {
      child.kill();
      reject(signal!.reason as Error);
    };
    signal?.addEventListener('abort', abort);
    let errors = '';
    const hear = (line: string) => {
      const ready = line.startsWith('{"listening"') ? Ready.safeParse(JSON.parse(line)) : undefined;
      if (ready?.success) {
        const { listening, hands, secret } = ready.data;
        signal?.removeEventListener('abort', abort);
        resolve({ process: child, port: listening, hands, secret });
      } else onLine?.(line);
    };
    createInterface({ input: child.stdout }).on('line', hear);
    createInterface({ input: child.stderr }).on('line', (line) => {
      errors += line + '\n';
      onLine?.(line);
    });
    child.on('exit', (code) => {
      signal?.removeEventListener('abort', abort);
      reject(new Error(`${fileURLToPath(file)} ended with ${code}: ${errors}`));
    });
  });
}

/** How a simulated machine is started: its clock at `rate` times real time, its ports, and the secret of its hands. */
export interface StandInStart {
  rate: number;
  seed: number;
  port: number;
  hands: number;
  secret?: string;
  /** Ends it where it is not ready yet. */
  signal?: AbortSignal;
}

/** Starts a simulated machine, built as `made` says. */
export function startStandIn(file: URL, made: object, how: StandInStart): Promise<Started> {
  const { port, hands, rate, seed, secret, signal } = how;
  const values = { port, hands, rate, seed, made: JSON.stringify(made) };
  return startProcess(
    file,
    Object.entries(values).flatMap(([name, value]) => [`--${name}`, String(value)]),
    { signal, ...(secret === undefined ? {} : { env: { ...process.env, KERBE_HANDS: secret } }) },
  );
}
