import type { CutJob } from '@kerbe/core/job/job';
import type { Look } from '@kerbe/core/cuts/look';
import type { Kysely } from 'kysely';
import { placeItem } from '@kerbe/core/artwork/place';
import type { FillRule } from '@kerbe/core/geometry/clipper';
import { resourcesFromDisk } from '@kerbe/machine/core-from-disk';
import { trace } from '../sheet/lines.ts';
import { artworkGroups } from '../sheet/scene.ts';
import { itemView } from '../workers/job-view.ts';
import { assetsOf, loadAssets } from './assets.ts';
import type { Tables } from './tables.ts';

/** A picture of a job for a list, as its sheet shows the artwork: what is in no cut is left out. */
export type Thumbnail = DrawnShape[];

/** A shape, mm, y up, and how it looks. */
export interface DrawnShape {
  d: string;
  /** Shapes drawn as one would take parts out of each other. */
  rule: FillRule;
  look: Pick<Look, 'tone' | 'fill'>;
}

/** Points of a thumbnail at most: it is as large as a thumb. */
const MOST_POINTS = 20_000;

/** Draws a job's artwork small, by the groups that the sheet draws. */
export async function drawThumbnail(db: Kysely<Tables>, job: CutJob): Promise<Thumbnail> {
  const assets = await loadAssets(db, assetsOf(job));
  const resources = await resourcesFromDisk((hash) => assets.get(hash)?.bytes);
  const finest = Math.max(job.stock.length, job.stock.width) / 500;
  const everywhere = { minX: -Infinity, minY: -Infinity, maxX: Infinity, maxY: Infinity };
  const thumbnail: Thumbnail = [];
  let drawn = 0;
  const path = () => {
    let d = '';
    const at = (letter: string) => (x: number, y: number) => {
      drawn++;
      d += `${letter}${x.toFixed(1)} ${y.toFixed(1)}`;
    };
    return { canvas: { moveTo: at('M'), lineTo: at('L'), closePath: () => void (d += 'z') }, d: () => d };
  };
  const items = job.artwork.map((item) => itemView(placeItem(item, resources)));
  for (const groups of artworkGroups({ items, cuts: job.cuts }).values())
    for (const { lines, ranges, look } of groups) {
      // What no cut takes in, or none can, is no part of the finished piece.
      if (look.dash || look.tone === 'signal' || look.tone === 'wood') continue;
      for (const range of ranges) {
        if (drawn > MOST_POINTS) return thumbnail;
        const { canvas, d } = path();
        trace(canvas as unknown as CanvasPath, lines, range, finest, everywhere);
        thumbnail.push({ d: d(), rule: range.rule, look: { tone: look.tone, fill: look.fill } });
      }
    }
  return thumbnail;
}
