import type { FillRule } from '../geometry/clipper.ts';
import type { PlacedGreys } from './greys/grey-map.ts';
import type { Outline } from '../geometry/outline.ts';

/** Outlines that belong together, such as a letter with its counters: one element of a drawing, or one letter. */
export interface Shape {
  name: string;
  rule: FillRule;
  outlines: Outline[];
  /** The layer of the drawing that it lies in, where that has a name. */
  layer?: string;
  /** The picture that it frames. */
  greys?: PlacedGreys;
  /** The colour that it is drawn in. */
  colour?: string;
  /** Of a letter: its line and its word, counted from 0 through all lines. */
  line?: number;
  word?: number;
}

/** A shape with the mark by which cuts hold on to it. */
export interface MarkedShape extends Shape {
  mark: string;
}

export interface Drawing {
  /** Size of the page, mm. */
  width: number;
  height: number;
  /** Shapes in mm, y up, with the page's lower left corner at 0, 0. */
  shapes: MarkedShape[];
  /** Sentences about what was left out, for the person who imported it. */
  notes: string[];
}
