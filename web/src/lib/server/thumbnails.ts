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

/** A picture for paper, and whether all of the artwork is in it. */
export interface Print {
  shapes: DrawnShape[];
  whole: boolean;
}

/** A shape, mm, y up, and how it looks. */
export interface DrawnShape {
  d: string;
  /** Shapes drawn as one would take parts out of each other. */
  rule: FillRule;
  look: Pick<Look, 'tone' | 'fill'>;
}

/** How fine a picture is: detail below `finest`, mm, is left out, and what comes after so many points. */
interface Fineness {
  finest: number;
  most: number;
  decimals: number;
}

/** A thumbnail is as large as a thumb. */
export const drawThumbnail = async (db: Kysely<Tables>, job: CutJob): Promise<Thumbnail> => {
  const finest = Math.max(job.stock.length, job.stock.width) / 500;
  return (await drawPicture(db, job, { finest, most: 20_000, decimals: 1 })).shapes;
};

/** On paper a tenth of a millimetre is seen. */
export const drawPrint = (db: Kysely<Tables>, job: CutJob): Promise<Print> =>
  drawPicture(db, job, { finest: 0.03, most: 600_000, decimals: 2 });

/** Draws a job's artwork by the groups that the sheet draws. */
async function drawPicture(db: Kysely<Tables>, job: CutJob, { finest, most, decimals }: Fineness): Promise<Print> {
  const assets = await loadAssets(db, assetsOf(job));
  const resources = await resourcesFromDisk((hash) => assets.get(hash)?.bytes);
  const everywhere = { minX: -Infinity, minY: -Infinity, maxX: Infinity, maxY: Infinity };
  const drawnShapes: DrawnShape[] = [];
  let drawn = 0;
  const path = () => {
    let d = '';
    const at = (letter: string) => (x: number, y: number) => {
      drawn++;
      d += `${letter}${x.toFixed(decimals)} ${y.toFixed(decimals)}`;
    };
    return { canvas: { moveTo: at('M'), lineTo: at('L'), closePath: () => void (d += 'z') }, d: () => d };
  };
  const items = job.artwork.map((item) => itemView(placeItem(item, resources)));
  for (const groups of artworkGroups({ items, cuts: job.cuts }).values())
    for (const { lines, ranges, look } of groups) {
      // What no cut takes in, or none can, is no part of the finished piece.
      if (look.dash || look.tone === 'signal' || look.tone === 'wood') continue;
      for (const range of ranges) {
        if (drawn > most) return { shapes: drawnShapes, whole: false };
        const { canvas, d } = path();
        trace(canvas as unknown as CanvasPath, lines, range, finest, everywhere);
        drawnShapes.push({ d: d(), rule: range.rule, look: { tone: look.tone, fill: look.fill } });
      }
    }
  return { shapes: drawnShapes, whole: true };
}
