import type { Drawing } from '../shape.ts';
import { type Density, type GreyMap, INCH } from './grey-map.ts';

/** Pixels an inch of a picture that does not say: as a page on a screen has them. */
const UNSAID = 96;

/** The density that is taken where a picture says none, pixels a mm. */
export const takenDensity = (said: Density): NonNullable<Density> => said ?? { x: UNSAID / INCH, y: UNSAID / INCH };

/** A drawing of one shape, the picture’s frame, as large as it says. */
export function pictureDrawing(grey: GreyMap, density: Density): Drawing {
  const { x, y } = takenDensity(density);
  const [width, height] = [grey.width / x, grey.height / y];
  return {
    width,
    height,
    shapes: [
      {
        name: 'picture',
        mark: 'picture',
        rule: 'nonzero',
        outlines: [{ points: Float64Array.of(0, 0, width, 0, width, height, 0, height), closed: true, nodes: 4 }],
        greys: { grey, map: [1 / x, 0, 0, -1 / y, 0, height] },
      },
    ],
    notes: density ? [] : [`The picture does not say how large it is: ${UNSAID} pixels an inch were taken. Type its width or height.`], // prettier-ignore
  };
}
