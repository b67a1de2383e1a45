import type { Raster } from '../artwork/greys/raster.ts';
import type { BaseCut } from '../document/cut.ts';
import type { BaseTool } from '../document/tool.ts';
import type { ToolKindName } from '../tools/kinds.ts';
import type { Operation } from 'fast-json-patch';
import type { Job } from '../document/job.ts';
import type { FieldSet, Values } from '../fields/field.ts';
import type { Sentence } from '../fields/sentence.ts';
import type { Slot } from '../fields/slot.ts';
import type { Clipper } from '../geometry/clipper.ts';
import type { LengthUnit } from '../quantity/units.ts';
import type { CutArtwork } from './cut-artwork.ts';
import type { CutPart, MeasuredPart, SeenPart } from './cut-part.ts';
import type { Tabs } from './fields/tabs.ts';
import type { Look } from './look.ts';
import type { Proposal } from './propose.ts';
import type { JudgedCut, Remark } from './remark.ts';
import type { Try } from './usual-tries.ts';

/** A cut of a kind: what every cut has, and the values of the kind’s fields. */
export type CutOf<K extends string, F extends FieldSet> = BaseCut & { kind: K } & Values<F>;

/** What a new cut of a kind is made from: its bit and what suits the board. */
export interface FreshFrom<T extends BaseTool = BaseTool> {
  bit: T;
  preset: T['presets'][number] | undefined;
  depthPerPass: number;
  /** Thickness of the board at its thickest, and how deep goes right through it, mm. */
  thick: number;
  through: number;
  /** A usual step of the bit, and how far a drill goes at a time, mm. */
  step: number;
  peck: number;
  entry: { kind: 'ramp'; angle: number };
  tabs: Omit<Tabs, 'shape' | 'anyway' | 'at'>;
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
  look: Look;
  word: string;
  /** It works along lines, and fills no area. */
  lines?: true;
  /** How its way is drawn wherever the sheet is, and not only where one looks at how things are cut. */
  way?: Look;
  /** The direction of its way matters, and is shown by arrows. */
  directed?: true;
}

/** What a part leaves on the sheet besides its path: holes, what stays blank, what no bit reaches. */
export interface SheetMark {
  look: Look;
  word: string;
  /** It is drawn at every stop, and not only where one looks at how things are cut. */
  always: boolean;
  outlines: readonly { points: ArrayLike<number>; closed: boolean }[];
  circles: readonly { x: number; y: number; radius: number }[];
  /** A picture of what comes out. */
  raster?: Raster;
}

/** Something of a cut that can be moved on the sheet, along its path. */
export interface Handle {
  look: 'tab' | 'start';
  word: string;
  x: number;
  y: number;
  /** The fields of the cut that change when it is put elsewhere, or taken away. */
  put(at: { x: number; y: number } | undefined): object;
}

/** What a card’s sentence is made from besides the cut: slots of what it works on and of its bit. */
export interface About<T extends BaseTool = BaseTool> {
  outlines: Slot;
  bit: Slot;
  own: T | undefined;
  unit: LengthUnit;
  /** What its own bit does, once that is known. */
  made: SeenPart | undefined;
}

/** What the page of a kind shows in section: a drawing of 60 by 30 mm, cut with the first of these bits. */
export interface Figure {
  /** SVG elements. */
  art: string;
  bits: ({ id: string; kind: ToolKindName; diameter: number } & Record<string, unknown>)[];
  /** What differs from a new cut. */
  fields: object;
  caption: string;
}

/** A change that may save time, to be measured. */
export interface QuickerTry {
  /** What it changes, and to which of several. */
  what: string;
  which?: string;
  text: string;
  /** What it does besides, in words; empty where nothing but time changes. */
  effect: string;
  fields: object;
}

/**
 * All that the house asks of a kind of cut. A kind is a folder with one of these, and a line in `kinds.ts`.
 * `C` is a cut of the kind, `F` what a part of it says of itself, `T` the tools that it takes.
 */
export interface CutKind<C extends BaseCut = BaseCut, F = unknown, T extends BaseTool = BaseTool> {
  /** Options of other kinds that mean nothing to it, and what to do instead: a sentence each. */
  without?: Readonly<Record<string, string>>;
  /** Its fields; from them come its schema, the options of the command line, and the names of its numbers. */
  fields: FieldSet;
  /** What it does, first in its title: “Carve”. */
  verb: string;
  /** The same where it depends on the cut: “Inlay recess of”. */
  title?(cut: C): string;
  /** What is added with a new one: “a pocket”. */
  one: string;
  /** The card’s sentence: what is done, with what, how fast; it ends with a full stop. */
  sentence(cut: C, about: About<T>): Sentence;
  /** Sentences about what is seldom changed. */
  more?(cut: C, about: About<T>): Sentence;
  /**
   * Settings that someone needs two months later, for a program’s heading: “floor step 0.5 mm”.
   * @param tabs how many stand, in words.
   */
  heading(cut: C, tabs: string, unit: LengthUnit): Sentence;
  /** What its page in docs/cuts shows. */
  figure: Figure;
  /** How its outlines are marked on the sheet, and what that is called there. */
  mark: Mark;
  /** What else a part shows on the sheet. */
  marks?(part: SeenPart<F>): SheetMark[];
  /** What of it can be moved on the sheet. */
  handles?(cut: C, part: SeenPart<F>): Handle[];
  /** What a part comes to, besides its depth and time: a figure and its word. */
  facts?(part: SeenPart<F>, length: (mm: number, decimals?: number) => string, unit: LengthUnit): [figure: string, word: string][]; // prettier-ignore
  /** What a carver should know of a part where nobody judges the whole job, a sentence each. */
  notes?(cut: C, part: CutPart<F>, own: T, unit: LengthUnit): string[];
  /** The tool that the command line takes where none is said, as its kind writes it. */
  tool?: string;
  /** Kinds of tool it takes, the usual first; `make` is given no other. */
  bits: readonly ToolKindName[];
  /** Which of two bits gets into finer places; without it, the one with the smaller diameter. */
  finest?(a: T, b: T): number;
  /**
   * Where it comes in the trade’s order: drill, carve, pocket, inside cut-outs, outside cut-outs (common practice: the work
   * is held longest). From 3 on it lets parts come loose. What clears for a cut comes half a step before it.
   */
  rank(cut: C): number;
  /** Bits that clear before its own. */
  clearBits?(cut: C): readonly string[];
  /** Whether only closed outlines are cut, so that open ones are worth a word. */
  closedOnly: boolean;
  /** Whether it works on pictures; for other kinds a picture is no outline, and is refused. */
  pictures?: true;
  /** Whether it carves what is looked at, so that the section shows its figures and its bit. */
  carves?: boolean;
  /** The fields of a new cut that are the kind’s own. */
  fresh(from: FreshFrom<T>): object;
  /** Why the command line has to be told how thick the stock is; without, a board of any thickness does. */
  thicknessNeeded?: string;
  /** How thick a board is where nobody says, mm: what a cut-out of this depth just goes through. */
  board?(cut: C): number;
  /** What a new one takes in where nothing is chosen, the likeliest first. */
  proposes(bit: T): readonly Proposal[];
  /** Cuts that are made together with a new one: the other half of an inlay. */
  beside?(cut: C): C[];
  /** What tells it from those beside it: “recess”. */
  half?(cut: C): string;
  /** What else than feeds and speed a bit’s setting for a material sets. */
  fromPreset?(cut: C, preset: T['presets'][number]): Partial<C>;
  /** The other way round: what of a bit’s setting for a material such a cut says. */
  toPreset?(cut: C, own: T): Partial<T['presets'][number]>;
  /** What of a bench such a cut has found to be otherwise, with the same for all cuts of its job; nothing where it has found nothing. */
  toBench?(cut: C, job: Job): { says: string; lag: number; patch: Operation[] } | undefined;
  /** What another bit sets, whatever it cuts. */
  fromBit?(bit: T): Partial<C>;
  /** The fields that make it go so deep, mm. */
  goDeep(depth: number): Partial<C>;
  /** The fields that make it so much deeper all over, mm, as if the stock were lower by that; nothing where it has no depth of its own. */
  deeper?(cut: C, by: number): Partial<C>;
  /**
   * The ordered paths, one for each bit it takes.
   * @throws with one sentence for what cannot be cut; see `cannotBeCut`.
   */
  make(job: Job, cut: C, bit: T, artwork: CutArtwork, clipper: Clipper): CutPart[] | Promise<CutPart[]>;
  /** Remarks on its depth, width, fit and hold. */
  judge?(judged: JudgedCut<C, F, T>): Remark[] | Promise<Remark[]>;
  /** Changes that may let it be made where it cannot be, the first to be tried first. */
  tries?(cut: C, own: T | undefined): Try[];
  /** Changes that may save time. */
  quicker?(job: Job, cut: C, own: T, name: string): QuickerTry[];
  /** What a controller’s own cycle would have to do, where there is one for it. */
  cycle?(cut: C, part: CutPart<F>): (DrillCycle & { holes: readonly { x: number; y: number }[] }) | undefined;
  /** Most that it takes off at once when it goes so deep, mm. */
  takenAtOnce(cut: C, depth: number): number;
  /**
   * What stock that lies lower by `drop` somewhere does to it, mm: strokes narrower by so much than drawn where that is seen,
   * or a floor that is too shallow for it to be told; nothing where it does not matter.
   */
  onUneven?(cut: C, part: MeasuredPart<F>, drop: number, thick: number): { narrower?: number; shallow?: number };
}
