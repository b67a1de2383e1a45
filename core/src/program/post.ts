/** A line of a program, or words for whoever reads it. */
export type PostLine = { line: string } | { say: string };

/** What a post is told of the cut that comes next. */
export interface NextCut {
  /** Turns a minute. */
  speed: number;
  /** Whether its tool turns at all: one that does not is never turned. */
  turns: boolean;
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
  /** Where a stroke begins and ends. */
  begin(power: number): PostLine[];
  end(): PostLine[];
  /** The word that a move carries whose power is another than that of the move before in its stroke. */
  power(power: number): string | undefined;
  /** After the last cut, when the tool is lifted. */
  off(): PostLine[];
}
