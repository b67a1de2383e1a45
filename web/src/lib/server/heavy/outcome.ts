import type { Refusal } from '../refusal.ts';

/** What comes back from a process of heavy work: what was found, why it was refused, or a fault of ours. */
export type Outcome<T> = { found: T } | { refused: Refusal } | { fault: string };
