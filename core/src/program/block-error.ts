import { Told } from '../schema/told.ts';

/** A line that cannot be read; its message is one sentence. */
export class BlockError extends Told {
  override name = 'BlockError';
}
