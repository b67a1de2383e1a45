/** How something lies on the sheet, as data: the sheet draws it and asks no kind. */
export interface Look {
  tone: 'ink' | 'carved' | 'signal';
  /** A raster is the picture that lies there. */
  fill?: 'solid' | 'hatch' | 'cross' | 'raster';
  /** How strong a fill is, 0 … 1; 1 where it is left out. */
  strength?: number;
  /** Width of the line, in pixels whatever the scale; none where it is left out. */
  line?: number;
  /** Width of the line as it comes out, mm; it is no thinner than `line`. */
  across?: number;
  /** Arrow heads along the line, in its direction. */
  arrows?: true;
  /** Lengths of strokes and gaps, pixels. */
  dash?: readonly number[];
}
