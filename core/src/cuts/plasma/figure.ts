import type { Figure } from '../kind.ts';

export const figure: Figure = {
  art: '<path d="M8 4H28V26H8ZM36 4H54V26H36Z" fill-rule="evenodd"/>',
  bits: [{ id: 'nozzle', kind: 'nozzle', diameter: 12, shank: 12, amps: 85 }],
  fields: {
    kerf: 2.5,
    side: 'outside',
    pierceHeight: 4,
    pierceDelay: 1,
    cutHeight: 2,
    lead: { kind: 'arc', length: 3 },
  },
  caption: 'Two parts cut out, the kerf of 2.5 mm outside their lines',
};
