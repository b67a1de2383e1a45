import { color } from 'd3-color';

/** Longest text that is kept of a colour that cannot be read. */
const LONGEST = 40;

/**
 * A colour as shapes are grouped by it: the same however it is written (CSS Color 4, as far as d3-color reads it).
 * @example [colourOf('Red'), colourOf('#f00'), colourOf('url(#g)')] // ['#ff0000', '#ff0000', 'url(#g)']
 */
export function colourOf(text: string): string {
  const written = text.trim().toLowerCase();
  const known = color(written);
  // A colour without opacity has no name of its own: it is told by what was written.
  return known && !Number.isNaN(known.opacity) && known.opacity > 0 ? known.formatHex8().replace(/ff$/, '') : written.slice(0, LONGEST); // prettier-ignore
}
