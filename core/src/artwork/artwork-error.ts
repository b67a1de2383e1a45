/** Artwork that cannot be used; the message is one sentence for the person who brought it. */
export class ArtworkError extends Error {
  override name = 'ArtworkError';
}
