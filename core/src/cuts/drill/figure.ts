import type { Figure } from '../kind.ts';

export const figure: Figure = {
  art: '<circle cx="15" cy="15" r="2"/><circle cx="30" cy="15" r="2"/><circle cx="45" cy="15" r="2"/>',
  bits: [{ id: 'd4', kind: 'drill', diameter: 4 }],
  fields: { depth: 9, peck: 3 },
  caption: 'Holes, 9 mm deep to the point in pecks of 3 mm',
};
