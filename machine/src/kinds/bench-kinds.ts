import type { BenchKind } from './bench-kind.ts';
import { laserBench } from './laser/bench-kind.ts';
import { plasmaBench } from './plasma/bench-kind.ts';
import { routerBench } from './router/bench-kind.ts';

/** What is known of each kind of machine, by the kind of its bench. */
export const BENCH_KINDS: Record<string, BenchKind> = { router: routerBench, plasma: plasmaBench, laser: laserBench };

/** The kind of a bench. @throws {Error} for one that nobody has written. */
export function benchKindOf({ kind }: { kind: string }): BenchKind {
  const found = Object.hasOwn(BENCH_KINDS, kind) ? BENCH_KINDS[kind] : undefined;
  if (!found) throw new Error(`Kerbe knows no machine of the kind “${kind}”; write its programs and carry them over.`);
  return found;
}
