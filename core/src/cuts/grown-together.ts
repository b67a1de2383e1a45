import { formatLength } from '../quantity/format.ts';
import type { LengthUnit } from '../quantity/units.ts';

/** Shapes that are one part where they meet, and are not cut apart there. */
export interface GrownTogether {
  /** Places where chosen shapes overlap. */
  overlaps: number;
  /** How much of their lines others share, mm. */
  touching: number;
}

/** What a heading says of shapes that are one where they meet. */
export function togetherNotes({ overlaps, touching }: GrownTogether, unit: LengthUnit): string[] {
  return [
    ...(overlaps ? [`Places where shapes overlap: ${overlaps}.`] : []),
    ...(touching ? [`Lines that shapes share, and that are not cut: ${formatLength(touching, unit, 1)}.`] : []),
  ];
}

/** What is remarked of them, each with its name; by cuts that follow open lines as well. */
export function togetherTexts(
  { overlaps, touching }: GrownTogether,
  unit: LengthUnit,
  openLines: boolean,
): { id: string; text: string }[] {
  const places = overlaps === 1 ? 'one place' : `${overlaps} places`;
  return [
    ...(overlaps ? [{ id: 'overlap', text: `In ${places} shapes overlap; see that what comes out there is one part, or move them apart.` }] : []), // prettier-ignore
    ...(touching ? [{ id: 'touching', text: `Shapes touch along ${formatLength(touching, unit, 1)} of their lines: they are one part there, and that line is not cut. Move them apart by more than the cut is wide${openLines ? ', or draw it once more as an open line' : ''}.` }] : []), // prettier-ignore
  ];
}
