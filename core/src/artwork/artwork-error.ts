import { Told } from '../schema/told.ts';

/** Artwork that cannot be used; the message is one sentence for the person who brought it. */
export class ArtworkError extends Told {
  override name = 'ArtworkError';
}
