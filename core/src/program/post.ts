/** A line of a program, or words for whoever reads it. */
export type PostLine = { line: string } | { say: string };

/** What a post is told of the cut that comes next. */
export interface NextCut {
  /** Turns a minute. */
  speed: number;
  /** Whether its tool turns at all: one that does not is never turned. */
  turns: boolean;
  /** How much of its power it cuts with at most, 0 to 1, where that is set: at 0 nothing is switched on. */
  power?: number;
  /** Whether air is blown on what it cuts. */
  air?: boolean;
}

/** How a stroke begins. */
export interface Begins {
  /** How long the tool pierces, s; 0 where it does not. */
  delay: number;
  /** It is gone along at one height, and not as high over the surface as that lies. */
  level: boolean;
  /** On which side of its way the controller leads it, by half its kerf; nowhere where the way is the tool’s own. */
  beside?: 'left' | 'right';
}

/** Where the surface is felt for. */
export interface Touch {
  /** A height over the surface as the program’s zero has it, mm, in the words of the program. */
  z(over: number): string;
  /** A feed in the words of the program. */
  feed: string;
}

/**
 * What a kind of machine writes besides moves: how a tool is taken up and put down, and how its power is set, switched on and
 * off. A stroke begins where a feed move with power follows moves without, and ends where the next is without.
 */
export interface Post {
  /** Takes a tool up; `before` where another was in. */
  tool(tool: { number: number; name: string; turns: boolean }, modes: string, before: boolean): PostLine[];
  /** Sets what a cut is driven by, where that is other than for the cut before, or the tool is another. */
  set(cut: NextCut): PostLine[];
  /** How long the machine takes over that, s. */
  setSeconds(cut: NextCut): number;
  /** Whether two cuts with one tool are driven alike, so that nothing is set between them. */
  alike(a: NextCut, b: NextCut): boolean;
  /**
   * Power is a word of every move, of rapid ones too, where it is another than before; strokes then have no lines of their own.
   */
  powerInMoves?: true;
  /** Where a stroke begins and ends. */
  begin(power: number, stroke: Begins): PostLine[];
  end(stroke: Pick<Begins, 'beside'>): PostLine[];
  /** Feels for the surface from above: where the tool touches it, its height is that of the surface. */
  touch?(at: Touch): PostLine[];
  /** What the machine takes at each pierce besides its delay, planned, s. */
  pierceSeconds?: number;
  /** The word that a move carries whose power is another than that of the move before in its stroke. */
  power(power: number): string | undefined;
  /** After the last cut, when the tool is lifted. */
  off(): PostLine[];
}
