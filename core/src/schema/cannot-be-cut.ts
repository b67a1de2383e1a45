import { Told } from './told.ts';

/** Something cannot be cut: by its settings or outlines, or because Kerbe itself did not get it right. */
export class CannotBeCut extends Told {
  override name = 'CannotBeCut';
}
