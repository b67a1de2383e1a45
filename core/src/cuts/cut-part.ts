import type { Leaves } from '../tools/leaves.ts';
import type { BaseCut } from '../document/cut.ts';
import type { Loops } from '../geometry/clipper.ts';
import type { Path } from '../motion/path.ts';
import type { Piercing } from '../motion/piercing.ts';
import type { Dwells } from '../motion/plan.ts';
import type { CutArtwork } from './cut-artwork.ts';
import { CutProblem } from '../ways/cut-problem.ts';
import type { Tab } from '../ways/tabs.ts';

/** What one bit does for a cut; `F` is what its kind says of it. */
export interface CutPart<F = unknown> {
  /** The cut’s id, or that with a number behind it for bits that clear before its own. */
  id: string;
  /** The cut it belongs to. */
  cut: string;
  bit: string;
  rank: number;
  path: Path;
  /** Places of the path where the bit waits. */
  dwells?: Dwells;
  /** How its strokes begin, where they pierce. */
  pierce?: Piercing;
  /** What its tool leaves, where that goes by the cut and not by the tool alone. */
  leaves?: Leaves;
  /** Height at which it is come to from elsewhere, over what such cuts have freed, mm; without one the job’s lift does. */
  approach?: number;
  /** Its tool stays at one height, wherever it goes: nothing is lifted. */
  flat?: true;
  /** How much of its power it cuts with at most, 0 to 1, where that is set. */
  power?: number;
  /** Air is blown on what it cuts. */
  air?: boolean;
  /** Who takes the kerf off, where one has a width that counts. */
  kerf?: 'here' | 'controller';
  feed: number;
  plunge: number;
  speed: number;
  passes: number;
  /** How far sideways an error in height counts: a V-bit’s walls lean, an end mill’s do not. */
  slope: number;
  /** Of a bit that clears before a cut's own: its step and depth a pass, mm. */
  clearing?: { step: number; depthPerPass: number };
  /** What holds the part. */
  tabs: Tab[];
  /** Tabs asked for that have no place where they would stand. */
  tabsMissing: number;
  /** What only its kind knows of it; null of a bit that clears, or where nothing could be cut. */
  facts: F | null;
}

/** A part with its time and what was measured of it. */
export interface MeasuredPart<F = unknown> extends CutPart<F> {
  /** What keeps it from being cut, as a sentence; the path is then empty. */
  problem?: string;
  /** It could be cut, and Kerbe itself did not get it right. */
  ownFault?: true;
  /** What its tool leaves. */
  leaves: Leaves;
  /** Where the path waits, as it is planned: its dwells, or what piercing takes. */
  waits?: Dwells;
  /** How far its tool reaches out from its middle, mm. */
  radius: number;
  minutes: number;
  /** Deepest point below the top of the stock, mm; 0 of a tool that takes nothing away. */
  depth: number;
  /** How far such a tool is pressed on the stock, mm. */
  pressed: number;
  /** How far over the stock its tool works that cuts right through from there, mm. */
  over?: number;
  /** Whether its tool turns while it cuts. */
  turns: boolean;
}

/** The same without its path, as a screen has it. */
export type SeenPart<F = unknown> = Omit<MeasuredPart<F>, 'path'>;

/** Why nothing would be cut: the chosen outlines are open, or none are chosen. */
export function nothingToCut(open: number): CutProblem {
  return new CutProblem(
    open > 0
      ? 'All chosen outlines are open; close them to cut the area inside.'
      : 'No outlines are chosen for this cut; choose some on the sheet.',
  );
}

/** How fast a cut’s bit goes. */
export type Driven = BaseCut & { feed: number; plunge: number; speed: number };

/** A part with what kinds that have nothing to say of it need not say. */
export function cutPart<F>(
  cut: Driven,
  rank: number,
  made: Pick<CutPart<F>, 'path' | 'facts'> & Partial<CutPart<F>>,
): CutPart<F> {
  return {
    id: cut.id,
    cut: cut.id,
    bit: cut.bit,
    rank,
    feed: cut.feed,
    plunge: cut.plunge,
    speed: cut.speed,
    passes: 1,
    slope: 0,
    tabs: [],
    tabsMissing: 0,
    ...made,
  };
}

/** The area of the chosen closed outlines. @throws {CutProblem} where there is none. */
export function areaToCut(artwork: CutArtwork): Loops {
  const { area, open } = artwork.area();
  if (area.length === 0) throw nothingToCut(open);
  return area;
}
