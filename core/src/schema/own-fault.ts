import { CannotBeCut } from './cannot-be-cut.ts';

/** Something that could be cut, and that Kerbe itself did not get right: a fault of ours, and nobody else's. */
export class OwnFault extends CannotBeCut {
  override name = 'OwnFault';
}
