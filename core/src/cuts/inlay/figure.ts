import type { Figure } from '../kind.ts';

export const figure: Figure = {
  art: '<rect x="15" y="5" width="30" height="20"/>',
  bits: [{ id: 'e3', kind: 'end', diameter: 3 }],
  fields: { role: 'recess', depth: 4, depthPerPass: 2, step: 1.2, otherDiameter: 3 },
  caption: 'Recess of a straight inlay, 4 mm deep',
};
