/** What a click on one shape takes in. */
export const TAKES = ['shape', 'word', 'line', 'item', 'layer', 'colour', 'alike'] as const;
export type Takes = (typeof TAKES)[number];

/** A shape as groups know it. */
export interface Grouped {
  layer?: string;
  colour?: string;
  /** Line and word of a letter. */
  line?: number;
  word?: number;
  width: number;
  height: number;
  /** How many outlines it has. */
  outlines: number;
}

/** Sizes differ by no more than this, mm, where shapes count as alike. */
const SAME = 0.05;

/**
 * The shapes of an item that a click on one of them takes in; the shape alone where it belongs to nothing of that sort.
 *
 * @example groupOf([{ width: 5, height: 5, outlines: 1 }, { width: 5, height: 5, outlines: 1 }, { width: 9, height: 5, outlines: 1 }], 0, 'alike') // [0, 1]
 */
export function groupOf(shapes: readonly Grouped[], index: number, takes: Takes): number[] {
  const own = shapes[index];
  const alike = ({ width, height, outlines }: Grouped) =>
    outlines === own.outlines && Math.abs(width - own.width) < SAME && Math.abs(height - own.height) < SAME;
  const within: Record<Takes, (shape: Grouped, k: number) => boolean> = {
    shape: (_, k) => k === index,
    word: ({ word }, k) => (own.word === undefined ? k === index : word === own.word),
    line: ({ line }, k) => (own.line === undefined ? k === index : line === own.line),
    item: () => true,
    layer: ({ layer }, k) => (own.layer === undefined ? k === index : layer === own.layer),
    colour: ({ colour }, k) => (own.colour === undefined ? k === index : colour === own.colour),
    alike,
  };
  return shapes.flatMap((shape, k) => (within[takes](shape, k) ? [k] : []));
}
