import type { CutJob } from '@kerbe/core/job/job';
import { kindOf } from '@kerbe/core/cuts/kinds';
import type { Kysely } from 'kysely';
import { placeItem } from '@kerbe/core/artwork/place';
import type { FillRule } from '@kerbe/core/geometry/clipper';
import { chosenOf } from '@kerbe/core/document/targets';
import { resourcesFromDisk } from '@kerbe/machine/core-from-disk';
import { assetsOf, loadAssets } from './assets.ts';
import type { Tables } from './tables.ts';

/** A picture of a job for a list: what is carved and what is cut out, a path for each shape, mm, y up. */
export interface Thumbnail {
  carved: DrawnShape[];
  through: DrawnShape[];
}

export interface DrawnShape {
  d: string;
  /** Shapes drawn as one would take parts out of each other. */
  rule: FillRule;
}

/** Points of a thumbnail at most: it is as large as a thumb. */
const MOST_POINTS = 20_000;

/** Draws a job's artwork small. */
export async function drawThumbnail(db: Kysely<Tables>, job: CutJob): Promise<Thumbnail> {
  const assets = await loadAssets(db, assetsOf(job));
  const resources = await resourcesFromDisk((hash) => assets.get(hash)?.bytes);
  const finest = Math.max(job.stock.length, job.stock.width) / 500;
  const thumbnail: Thumbnail = { carved: [], through: [] };
  let drawn = 0;
  for (const item of job.artwork) {
    const { shapes } = placeItem(item, resources);
    const chosen = job.cuts.map((cut) => ({ cut, ...chosenOf(cut.targets, item.id, shapes) }));
    shapes.forEach((shape, index) => {
      const { cut } = chosen.find(({ numbers }) => numbers.has(index)) ?? {};
      if (!cut) return;
      let d = '';
      for (const { points, closed } of shape.outlines) {
        let [x, y] = [Infinity, Infinity];
        for (let i = 0; i < points.length; i += 2) {
          if (Math.hypot(points[i] - x, points[i + 1] - y) < finest) continue;
          if (drawn++ > MOST_POINTS) return;
          [x, y] = [points[i], points[i + 1]];
          d += `${i === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`;
        }
        if (closed) d += 'z';
      }
      thumbnail[kindOf(cut).mark.lines ? 'through' : 'carved'].push({ d, rule: shape.rule });
    });
  }
  return thumbnail;
}
