import { Told } from '../schema/told.ts';

/** A block that cannot be followed as it stands; its message is one sentence. */
export class Refused extends Told {
  override name = 'Refused';

  /** @param lasting without it nothing that follows can be understood. */
  constructor(
    sentence: string,
    readonly lasting = false,
  ) {
    super(sentence);
  }
}
