import type { Bit, Preset } from '../document/bit.ts';
import type { Cut } from '../document/cut.ts';
import type { Job } from '../document/job.ts';
import type { Clipper } from '../geometry/clipper.ts';
import type { LengthUnit } from '../quantity/units.ts';
import type { CutArtwork, CutPart } from './cut-part.ts';
import type { Try } from './usual-tries.ts';

/** Tabs as a cut asks for them. */
export interface AskedTabs {
  count: number;
  length: number;
  height: number;
  shape: 'square' | 'ramped';
  at: readonly { x: number; y: number }[];
}

/** What a new cut of a kind is made from: its bit and what suits the board. */
export interface FreshFrom {
  bit: Bit;
  preset: Preset | undefined;
  depthPerPass: number;
  /** Thickness of the board at its thickest, and how deep goes right through it, mm. */
  thick: number;
  through: number;
  /** A usual step of the bit, mm. */
  step: number;
  entry: { kind: 'ramp'; angle: number };
  tabs: { count: number; length: number; height: number };
}

/** Settings of a drilling that a controller may do by a cycle of its own. */
export interface DrillCycle {
  depth: number;
  peck: number;
  retract: 'full' | 'short';
  dwell: number;
}

/** A mark of outlines on the sheet: how it looks, and its word in the legend. */
export interface Mark {
  look: 'filled' | 'hatched' | 'crossed' | 'way' | 'holes';
  word: string;
}

/** All that the house asks of a kind of cut. A kind is a folder with one of these, and a line in `kinds.ts`. */
export interface CutKind<C extends Cut = Cut> {
  /** What it does, first in its title: “Carve”. */
  verb: string;
  /** The same where it depends on the cut: “Inlay recess of”. */
  title?(cut: C): string;
  /** How its outlines are marked on the sheet, and what that is called there. */
  mark: Mark;
  /** Kinds of bit it takes, the usual first. */
  bits: readonly Bit['kind'][];
  /** Which of two bits gets into finer places; without it, the one with the smaller diameter. */
  finest?(a: Bit, b: Bit): number;
  /**
   * Where it comes in the trade’s order: drill, carve, pocket, inside cut-outs, outside cut-outs (common practice: the work
   * is held longest). From 3 on it lets parts come loose. What clears for a cut comes half a step before it.
   */
  rank(cut: C): number;
  /** Bits that clear before its own. */
  clearBits?(cut: C): readonly string[];
  /** Tabs it asks for. */
  tabs?(cut: C): AskedTabs;
  /** The fields of a new cut that are the kind’s own. */
  fresh(from: FreshFrom): object;
  /** Cuts that are made together with a new one: the other half of an inlay. */
  beside?(cut: C): C[];
  /** What else than feeds and speed a bit’s setting for a material sets. */
  fromPreset?(cut: C, preset: Preset): Partial<C>;
  /** What another bit sets, whatever it cuts. */
  fromBit?(bit: Bit): Partial<C>;
  /**
   * The ordered paths, one for each bit it takes.
   * @throws with one sentence for what cannot be cut; see `cannotBeCut`.
   */
  make(job: Job, cut: C, bit: Bit, artwork: CutArtwork, clipper: Clipper): CutPart[] | Promise<CutPart[]>;
  /**
   * Settings that someone needs two months later, for a program’s heading: “floor step 0.5 mm”.
   * @param tabs how many stand, in words.
   */
  details(cut: C, length: (mm: number) => string, tabs: string, unit: LengthUnit): string;
  /** Changes that may let it be made where it cannot be, the first to be tried first. */
  tries?(cut: C, own: Bit | undefined): Try[];
  /** What a controller’s own cycle would have to do, where there is one for it. */
  cycle?(cut: C): DrillCycle;
  /** Most that it takes off at once when it goes so deep, mm. */
  takenAtOnce(cut: C, depth: number): number;
}
