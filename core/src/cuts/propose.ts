import { boundsOf } from '../geometry/outline.ts';
import { roundPlaces } from '../artwork/round-places.ts';
import type { Shape } from '../artwork/shape.ts';
import { chosenOf, type Marked } from '../document/targets.ts';
import type { BaseCut, Target } from '../document/cut.ts';
import type { BaseTool } from '../document/tool.ts';

/** A shape that a new cut could take in. */
export interface Candidate {
  /** Every outline of it is closed; some of it is open. */
  closed: boolean;
  open: boolean;
  /** It is a picture, and its outline only its frame. */
  picture: boolean;
  /** Diameter of a circle, mm; 0 of a point. */
  round?: number;
  /** No cut takes it in so far. */
  free: boolean;
  /** Others lie in its box, and it lies in another’s. */
  holds: boolean;
  held: boolean;
}

/** What a new cut would take in, and why. */
export interface Proposal {
  takes: (shape: Candidate) => boolean;
  /** “the closed outlines that no cut has yet” */
  why: string;
}

/** Closed outlines that no cut has yet, without the one that goes round all others. */
export const freeInsides: Proposal = {
  takes: ({ closed, free, holds, held }) => closed && free && (held || !holds),
  why: 'the closed outlines that no cut has yet',
};

/** The outline round all others, to cut out along. */
export const outerBorder: Proposal = {
  takes: ({ closed, holds, held }) => closed && holds && !held,
  why: 'the outline that goes round the others',
};

/** A drawn circle counts as meant for a drill that is so much wider or narrower, as a share. */
const ABOUT = 0.1;

/** Circles of about the bit’s size, and points. */
export const circlesFor = ({ diameter }: BaseTool): Proposal => ({
  takes: ({ round }) => round !== undefined && (round < 0.2 || Math.abs(round - diameter) <= ABOUT * diameter),
  why: 'the circles that are about as wide as its bit',
});

/** Lines that are open. */
export const openLines: Proposal = {
  takes: ({ open, free }) => open && free,
  why: 'the open lines that no cut has yet',
};

/** Artwork as it lies on the sheet. */
type Placed = { id: string; shapes: readonly (Shape & Marked)[] };

/** What shapes are to a new cut, item by item. */
export function candidates(items: readonly Placed[], cuts: readonly BaseCut[]): Candidate[][] {
  const boxes = items.map(({ shapes }) => shapes.map(({ outlines }) => boundsOf(outlines)));
  const all = boxes.flat().filter((box) => box !== undefined);
  const area = (b: (typeof all)[number]) => (b.maxX - b.minX) * (b.maxY - b.minY);
  const inside = (a: (typeof all)[number], b: (typeof all)[number]) =>
    a.minX > b.minX && a.maxX < b.maxX && a.minY > b.minY && a.maxY < b.maxY;
  // The widest first: whether one holds another can be told by few.
  const large = all.toSorted((a, b) => area(b) - area(a)).slice(0, LARGEST);
  const taken = items.map(({ id, shapes }) => new Set(cuts.flatMap(({ targets }) => [...chosenOf(targets, id, shapes).numbers]))); // prettier-ignore
  return items.map(({ shapes }, i) =>
    shapes.map((shape, k) => {
      const box = boxes[i][k];
      const { places, others } = roundPlaces([shape]);
      return {
        picture: shape.greys !== undefined,
        closed: shape.greys === undefined && shape.outlines.every((outline) => outline.closed),
        open: shape.outlines.some((outline) => !outline.closed),
        round: others === 0 && places.length === 1 ? places[0].diameter : undefined,
        free: !taken[i].has(k),
        holds: box !== undefined && large.includes(box) && all.some((other) => other !== box && inside(other, box)),
        held: box !== undefined && large.some((other) => other !== box && inside(box, other)),
      };
    }),
  );
}

/** Shapes that are looked at as going round others. */
const LARGEST = 50;

/** The targets of a proposal; none where nothing suits. */
export function proposed(
  { takes }: Proposal,
  items: readonly Placed[],
  cuts: readonly BaseCut[],
): { targets: Target[]; shapes: number } {
  const found = candidates(items, cuts);
  let count = 0;
  const targets = items.flatMap(({ id, shapes }, i): Target[] => {
    const marks = shapes.filter((_, k) => takes(found[i][k])).map(({ mark }) => mark);
    count += marks.length;
    if (marks.length === 0) return [];
    return [{ item: id, shapes: marks.length === shapes.length ? 'all' : marks }];
  });
  return { targets, shapes: count };
}
