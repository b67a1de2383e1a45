import type { Figure } from '../kind.ts';

export const figure: Figure = {
  art: '<path d="M8 5H28V25H8Z"/><path d="M40 5V25M52 5V25" fill="none" stroke="black"/>',
  bits: [{ id: 'diamond', kind: 'drag', diameter: 6, angle: 90, width: 0.5, travel: 3 }],
  fields: { pressed: 2.5, pattern: 'hatch', angle: 60, step: 1.5 },
  caption: 'Drag-engraved lines, 0.5 mm wide, the point pressed 2.5 mm',
};
