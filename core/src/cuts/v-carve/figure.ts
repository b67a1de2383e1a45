import type { Figure } from '../kind.ts';

export const figure: Figure = {
  art: '<path d="M9 5H15V25H9ZM24 5H50V25H24Z"/>',
  bits: [
    { id: 'v60', kind: 'v', diameter: 12.7, angle: 60 },
    { id: 'e3', kind: 'end', diameter: 3 },
  ],
  fields: { depthLimit: 7, floorStep: 1, clearBits: ['e3'] },
  caption: 'V-carve, 60°: to a point where the depth limit allows it, else to a flat floor',
};
