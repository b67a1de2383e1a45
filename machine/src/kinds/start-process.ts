import { type ChildProcess, spawn } from 'node:child_process';
import { createInterface } from 'node:readline';
import { fileURLToPath } from 'node:url';
import { z } from 'zod';

export interface Started {
  process: ChildProcess;
  port: number;
  /** Where its hands and eyes are, of a simulated machine. */
  hands?: number;
  /** What the path to them begins with. */
  secret?: string;
}

const Ready = z.object({ listening: z.number(), hands: z.number().optional(), secret: z.string().optional() });

/** Starts a TypeScript process of this package that prints `{"listening": PORT}` when it is ready. */
export function startProcess(
  file: URL,
  args: readonly string[],
  { env = process.env, onLine }: { env?: NodeJS.ProcessEnv; onLine?: (line: string) => void } = {},
): Promise<Started> {
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, ['--import', 'tsx', fileURLToPath(file), ...args], {
      env,
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    let errors = '';
    const hear = (line: string) => {
      const ready = line.startsWith('{"listening"') ? Ready.safeParse(JSON.parse(line)) : undefined;
      if (ready?.success) {
        const { listening, hands, secret } = ready.data;
        resolve({ process: child, port: listening, hands, secret });
      } else onLine?.(line);
    };
    createInterface({ input: child.stdout }).on('line', hear);
    createInterface({ input: child.stderr }).on('line', (line) => {
      errors += line + '\n';
      onLine?.(line);
    });
    child.on('exit', (code) => reject(new Error(`${fileURLToPath(file)} ended with ${code}: ${errors}`)));
  });
}

/** How a simulated machine is started: its clock at `rate` times real time, its ports, and the secret of its hands. */
export interface StandInStart {
  rate: number;
  seed: number;
  port: number;
  hands: number;
  secret?: string;
}

/** Starts a simulated machine, built as `made` says. */
export function startStandIn(file: URL, made: object, how: StandInStart): Promise<Started> {
  const { port, hands, rate, seed, secret } = how;
  const values = { port, hands, rate, seed, made: JSON.stringify(made) };
  return startProcess(
    file,
    Object.entries(values).flatMap(([name, value]) => [`--${name}`, String(value)]),
    secret === undefined ? {} : { env: { ...process.env, KERBE_HANDS: secret } },
  );
}
