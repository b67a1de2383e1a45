import { type RoundPlaces, roundPlaces } from '../artwork/round-places.ts';
import { largerShape } from '../artwork/larger-shape.ts';
import type { PlacedGreys } from '../artwork/greys/grey-map.ts';
import type { Shape } from '../artwork/shape.ts';
import { areaOf, type DrawnArea } from '../artwork/united-shapes.ts';
import type { Clipper, Loops } from '../geometry/clipper.ts';
import type { Outline } from '../geometry/outline.ts';
import { type Carvables, carvablesOf } from '../ways/carvable.ts';

/** What a cut is made from; each is worked out when it is asked for. */
export interface CutArtwork {
  /** All lines as they are drawn, open and closed. */
  lines(): readonly Outline[];
  /** Pictures, as they lie. */
  greys(): readonly PlacedGreys[];
  /** The area inside the closed ones, and how many open ones there are besides. */
  area(): DrawnArea;
  /** What each shape covers by itself, whatever lies over or in it. */
  covers(): readonly Loops[];
  /** That area with its medial axes. */
  carvables(): Promise<Carvables>;
  /** Circles and points, as places to drill. */
  places(): RoundPlaces;
  /** The same with every shape so many times as large, each about its own middle. */
  larger(times: number): CutArtwork;
  /**
   * Told how much is done of what comes after, 0 to 1, by cuts that take their time: others work meanwhile.
   * @throws where the cut is not wanted any more.
   */
  step(share: number): Promise<void> | void;
  /**
   * Told what is known of the cut already while the rest of it is worked out, so that the sheet shows what its kind marks
   * there: only by kinds whose marks go by their facts alone.
   */
  show(facts: unknown): void;
}

/** What a cut is made from when it works on these shapes. */
export function cutArtwork(shapes: readonly Shape[], clipper: Clipper): CutArtwork {
  return {
    lines: () => shapes.flatMap(({ outlines }) => outlines),
    greys: () => shapes.flatMap(({ greys }) => greys ?? []),
    area: () => areaOf(shapes, clipper),
    covers: () =>
      shapes.map(({ outlines, rule }) =>
        clipper.union(
          outlines.filter(({ closed, points }) => closed && points.length >= 6).map(({ points }) => points),
          rule,
        ),
      ),
    carvables: () => carvablesOf(shapes, clipper),
    places: () => roundPlaces(shapes),
    larger: (times) =>
      cutArtwork(
        shapes.map((shape) => largerShape(shape, times)),
        clipper,
      ),
    step: () => {},
    show: () => {},
  };
}
