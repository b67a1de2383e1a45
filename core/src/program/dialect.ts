import type { Post } from './post.ts';

/** How a controller wants its RS-274 text; differences are data, not code. */
export interface Dialect {
  /** What it is for, in a few words. */
  label: string;
  decimals: number;
  /** One program with tool changes (M6), or one for each tool. */
  bits: 'one-program' | 'one-each';
  /** Arcs by their centre from the start (I J), by their radius (R), or none. */
  arcs: 'centre' | 'radius' | 'none';
  /** Drilling by the controller's own cycles (G81 to G83) or by plain moves. */
  drilling: 'cycles' | 'moves';
  /** Lines numbered in steps of this; 0 for none. */
  numbers: number;
  comment: 'brackets' | 'semicolon';
  /**
   * Where the tool goes at the end: the bench’s parking place, over the job’s zero as high as the machine goes, or it
   * stays where it is, lifted.
   */
  park: 'place' | 'zero' | 'stay';
  /** What its kind of machine writes besides moves. */
  post: Post;
}
