import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { searchLinks } from '../command/src/long-search.ts';
import { layTracks } from '../core/src/ways/lay-tracks.ts';
import { compute } from '../core/src/compute/compute.ts';
import { bytesFromBase64, readJobFile } from '../core/src/job/job-file.ts';
import type { Track } from '../core/src/motion/track.ts';
import { clipperFromDisk, resourcesFromDisk } from '../machine/src/core-from-disk.ts';

const JOBS = JSON.parse(readFileSync(new URL('../demo/jobs.json', import.meta.url), 'utf8')) as string[];
const line = (ax: number, ay: number, bx: number, by: number): Track => ({
  xyz: Float64Array.of(ax, ay, -1, bx, by, -1),
  closed: false,
  ring: 0,
  oneWay: false,
});

// Reference: simulated annealing (Kirkpatrick, Gelatt and Vecchi 1983), which shares no code with the order of tracks.
describe('links against a long search', () => {
  test.each(JOBS)('%s: at most 1.15 times the shortest found', async (name) => {
    const { job, assets } = readJobFile(
      readFileSync(new URL(`../demo/jobs/${name}.kerbe.json`, import.meta.url), 'utf8'),
    );
    const resources = await resourcesFromDisk((hash) => assets[hash] && bytesFromBase64(assets[hash].base64));
    const { cuts } = await compute(job, resources, await clipperFromDisk(), { unjudged: true });
    let [now, best] = [0, 0];
    for (const { cut, path } of cuts) {
      const found = searchLinks(path, job.cuts.find(({ id }) => id === cut)!.kind === 'v-carve', 150_000);
      expect(found.best).toBeLessThanOrEqual(found.now);
      now += found.now;
      best += found.best;
    }
    expect(now).toBeLessThanOrEqual(1.15 * best);
  });
  test('150 strokes strewn over a sheet', () => {
    let state = 99;
    const random = () => (state = (state * 48271) % 2147483647) / 2147483647;
    const tracks = Array.from({ length: 150 }, () => {
      const [x, y, a] = [random() * 600, random() * 300, random() * 6.3];
      return line(x, y, x + 12 * Math.cos(a), y + 12 * Math.sin(a));
    });
    const { path } = layTracks(tracks, { feed: 1000, plunge: 500, lift: 5 });
    const { now, best } = searchLinks(path, true, 250_000);
    expect(now).toBeLessThanOrEqual(1.15 * best);
  });
  test('the search itself finds what is plainly there, and keeps what must come first', () => {
    // Four strokes in a row, cut in a silly order: 10 from the corner, and 10 from each to the next.
    const silly = [0, 2, 1, 3].map((k) => line(10 + 20 * k, 0, 20 + 20 * k, 0));
    const order = silly.map((_, track) => ({ track, reversed: false }));
    const far = layTracks(silly, { feed: 1000, plunge: 500, lift: 5 }, order).path;
    expect(searchLinks(far, false)).toEqual({ now: 10 + 30 + 30 + 30, best: 40, tracks: 4 });
    // Two depths of one place and a stroke far off: the deeper one stays behind the other.
    const deep = [line(0, 0, 10, 0), line(200, 0, 210, 0), line(0, 0, 10, 0)];
    const three = deep.map((_, track) => ({ track, reversed: false }));
    const { now, best } = searchLinks(layTracks(deep, { feed: 1000, plunge: 500, lift: 5 }, three).path, false);
    expect(now).toBe(190 + 210);
    expect(best).toBe(10 + 190);
  });
});
