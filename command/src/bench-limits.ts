import { readFileSync } from 'node:fs';
import type { BaseBench } from '@kerbe/core/document/bench';
import { BenchSchema } from '@kerbe/core/machines/bench-schema';
import { ROOT } from './paths.ts';

/** The first bench of the demo shop: what times are reckoned for where no job names a bench. */
export function usualBench(): BaseBench {
  return BenchSchema.parse(JSON.parse(readFileSync(`${ROOT}/demo/benches.json`, 'utf8'))[0]);
}
