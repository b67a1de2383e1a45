import type { Shape } from '../artwork/shape.ts';
import type { Bit } from '../document/bit.ts';
import type { Cut } from '../document/cut.ts';
import type { Loops } from '../geometry/clipper.ts';
import type { Path } from '../motion/path.ts';
import type { Dwells } from '../motion/plan.ts';
import type { Carvables } from '../ways/carvable.ts';
import type { VCarving } from './v-carve/v-carve.ts';
import { CutProblem } from '../ways/cut-problem.ts';
import type { Hole } from '../ways/drill.ts';
import type { Tab } from '../ways/tabs.ts';

/** What one bit does for a cut. */
export interface CutPart {
  /** The cut’s id, or that with a number behind it for bits that clear before its own. */
  id: string;
  /** The cut it belongs to. */
  cut: string;
  bit: string;
  rank: number;
  path: Path;
  feed: number;
  plunge: number;
  speed: number;
  passes: number;
  /** Of a bit that clears before a cut's own: its step and depth a pass, mm. */
  clearing?: { step: number; depthPerPass: number };
  tabs: Tab[];
  /** Only of V-carving: see `VCarving`. */
  carving?: Omit<VCarving, 'path'>;
  /** Of profiles: where each loop begins, on the sheet. */
  starts?: { x: number; y: number }[];
  /** Loops the bit does not fit into. */
  lost: number;
  /** Of pockets: what no bit reaches, mm², and its outlines on the sheet. */
  left: number;
  leftLoops?: Loops;
  /** Of profiles: loops without the lead asked for. */
  noLead: number;
  /** Of drilling. */
  holes?: Hole[];
  dwells?: Dwells;
  /** Of inlays: smallest and largest gap, mm a side. */
  gap?: { least: number; most: number };
  /** Of inlays: places where the two halves do not fit, as edges lie nearer to each other than the bit is wide. */
  pinched?: number;
}

/** What a cut is made from; outlines are worked out when they are asked for. */
export interface CutArtwork {
  shapes: readonly Shape[];
  area(): { area: Loops; open: number };
  carvables(): Promise<Carvables>;
}

/** Why nothing would be cut: the chosen outlines are open, or none are chosen. */
export function nothingToCut(open: number): CutProblem {
  return new CutProblem(
    open > 0
      ? 'All chosen outlines are open; close them to cut the area inside.'
      : 'No outlines are chosen for this cut; choose some on the sheet.',
  );
}

/** A part with what kinds that have nothing to say of it need not say. */
export function cutPart(cut: Cut, rank: number, made: Pick<CutPart, 'path'> & Partial<CutPart>): CutPart {
  return {
    id: cut.id,
    cut: cut.id,
    bit: cut.bit,
    rank,
    feed: cut.feed,
    plunge: cut.plunge,
    speed: cut.speed,
    passes: 1,
    tabs: [],
    lost: 0,
    left: 0,
    noLead: 0,
    ...made,
  };
}

/** Diameter of a bit that has to be an end mill. @throws {CutProblem} where it is none. */
export function endMill(bit: Bit, what: string): number {
  if (bit.kind !== 'end') throw new CutProblem(`${what} needs an end mill; choose one for this cut.`);
  return bit.diameter;
}

/** The area of the chosen closed outlines. @throws {CutProblem} where there is none. */
export function areaToCut(artwork: CutArtwork): Loops {
  const { area, open } = artwork.area();
  if (area.length === 0) throw nothingToCut(open);
  return area;
}
