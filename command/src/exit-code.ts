import { OwnFault } from '@kerbe/core/schema/own-fault';
import { Misuse } from './misuse.ts';

/** Commands that only calculate: what they do not say in a sentence of their own is a fault of theirs. */
const CALCULATES: readonly (string | undefined)[] = ['make', 'cut', 'time', 'view'];

/**
 * What a command ends with: 2 for bad use, 3 for a fault of Kerbe's own, 1 for all else that went wrong.
 * @example exitCode(new Misuse('One drawing is needed.'), 'cut') // 2
 */
export function exitCode(error: unknown, command: string | undefined): 1 | 2 | 3 {
  if (error instanceof Misuse) return 2;
  return error instanceof OwnFault || CALCULATES.includes(command) ? 3 : 1;
}
