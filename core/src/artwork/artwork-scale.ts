import type { Operation } from 'fast-json-patch';
import type { Job } from '../document/job.ts';

/**
 * The patch that makes all artwork larger or smaller about the middle of the stock.
 * @example scaledArtwork(job, 0.5): everything half as large, as far from the middle as half of what it was
 */
export function scaledArtwork({ artwork, stock }: Job, share: number): Operation[] {
  const [cx, cy] = [stock.length / 2, stock.width / 2];
  return artwork.flatMap((item, index): Operation[] => [
    { op: 'replace', path: `/artwork/${index}/x`, value: cx + share * (item.x - cx) },
    { op: 'replace', path: `/artwork/${index}/y`, value: cy + share * (item.y - cy) },
    ...resized(item, index, share),
  ]);
}

/** The patch that makes one item of artwork larger or smaller about its own origin. */
export function resized(item: Job['artwork'][number], index: number, share: number): Operation[] {
  return item.kind === 'lettering'
    ? [{ op: 'replace', path: `/artwork/${index}/capHeight`, value: item.capHeight * share }]
    : [
        { op: 'replace', path: `/artwork/${index}/scaleX`, value: item.scaleX * share },
        { op: 'replace', path: `/artwork/${index}/scaleY`, value: item.scaleY * share },
      ];
}
