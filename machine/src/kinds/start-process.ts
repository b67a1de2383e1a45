import { type ChildProcess, spawn } from 'node:child_process';
import { createInterface } from 'node:readline';
import { fileURLToPath } from 'node:url';
import { z } from 'zod';

export interface Started {
  process: ChildProcess;
  port: number;
  /** Where its hands and eyes are, of a simulated machine. */
  hands?: number;
}

const Ready = z.object({ listening: z.number(), hands: z.number().optional() });

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
      if (ready?.success) resolve({ process: child, port: ready.data.listening, hands: ready.data.hands });
      else onLine?.(line);
    };
    createInterface({ input: child.stdout }).on('line', hear);
    createInterface({ input: child.stderr }).on('line', (line) => {
      errors += line + '\n';
      onLine?.(line);
    });
    child.on('exit', (code) => reject(new Error(`${fileURLToPath(file)} ended with ${code}: ${errors}`)));
  });
}

/** Starts a simulated machine, built as `made` says. */
export function startStandIn(
  file: URL,
  made: object,
  how: { rate: number; seed: number; port: number; hands: number },
): Promise<Started> {
  const { port, hands, rate, seed } = how;
  const values = { port, hands, rate, seed, made: JSON.stringify(made) };
  return startProcess(
    file,
    Object.entries(values).flatMap(([name, value]) => [`--${name}`, String(value)]),
  );
}
