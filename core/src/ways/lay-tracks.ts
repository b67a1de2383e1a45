import { type Path, PathBuilder } from '../motion/path.ts';
import { reverseTrack, type Track } from '../motion/track.ts';
import { orderTracks, type Placing } from './order-tracks.ts';
import { PLUNGE_CLEARANCE } from './plunge-clearance.ts';

/** How a bit is driven along tracks: feeds in mm/min, heights in mm above the stock. */
export interface Drive {
  feed: number;
  plunge: number;
  /** Height of the bit between cuts. */
  lift: number;
}

/**
 * Joins tracks into one path: up, across, down to just above the stock, and plunged from there. Going down along a
 * track, the plunge rate bounds the speed.
 *
 * @returns the path, and how often the bit lifts between tracks.
 */
export function layTracks(
  tracks: readonly Track[],
  drive: Drive,
  order: readonly Placing[] = orderTracks(tracks, { x: 0, y: 0 }),
): { path: Path; lifts: number } {
  const builder = new PathBuilder();
  for (const { track, reversed } of order)
    layTrack(builder, reversed ? reverseTrack(tracks[track]) : tracks[track], drive);
  if (builder.length) builder.rapid(builder.x, builder.y, drive.lift);
  return { path: builder.done(), lifts: Math.max(0, order.length - 1) };
}

/** Lays one track behind what a path holds already. */
export function layTrack(builder: PathBuilder, { xyz }: Track, { feed, plunge, lift }: Drive): void {
  if (builder.length) builder.rapid(builder.x, builder.y, lift);
  builder.rapid(xyz[0], xyz[1], lift);
  if (xyz[2] < PLUNGE_CLEARANCE) builder.rapid(xyz[0], xyz[1], Math.min(lift, PLUNGE_CLEARANCE));
  builder.to(xyz[0], xyz[1], xyz[2], plunge);
  follow(builder, xyz, { feed, plunge, lift });
}

/** Feeds along points from where the bit is; going down, the plunge rate bounds the speed. */
export function follow(builder: PathBuilder, xyz: ArrayLike<number>, { feed, plunge }: Drive): void {
  for (let i = 0; i < xyz.length; i += 3) {
    const down = builder.z - xyz[i + 2];
    const length = down > 0 ? Math.hypot(xyz[i] - builder.x, xyz[i + 1] - builder.y, down) : 0;
    builder.to(xyz[i], xyz[i + 1], xyz[i + 2], length > 0 ? Math.min(feed, (plunge * length) / down) : feed);
  }
}
