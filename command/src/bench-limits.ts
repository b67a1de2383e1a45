import { readFileSync } from 'node:fs';
import type { BaseBench } from '@kerbe/core/document/bench';
import { BenchSchema } from '@kerbe/core/machines/bench-schema';
import { machineKindOf } from '@kerbe/core/machines/kinds';
import { ROOT } from './paths.ts';

/**
 * The first bench of the demo shop that holds a kind of tool: what times are reckoned for where no job names a bench.
 * @example usualBench('nozzle').kind // 'plasma'
 */
export function usualBench(tool = 'v'): BaseBench {
  const benches = (JSON.parse(readFileSync(`${ROOT}/demo/benches.json`, 'utf8')) as unknown[]).map((bench) =>
    BenchSchema.parse(bench),
  );
  return benches.find((bench) => (machineKindOf(bench).tools as readonly string[]).includes(tool)) ?? benches[0];
}
