import type { Figure } from '../kind.ts';

export const figure: Figure = {
  art: '<path d="M12 5V25M30 5V25M48 5V25" fill="none" stroke="black"/>',
  bits: [{ id: 'v60', kind: 'v', diameter: 6, angle: 60 }],
  fields: { depth: 2, depthPerPass: 2 },
  caption: 'Engraved lines, 60°, 2 mm deep',
};
