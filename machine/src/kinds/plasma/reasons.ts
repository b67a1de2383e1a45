/** Why a plasma table's bench refuses a command, besides what any bench may say. */
export const PLASMA_REASONS = {
  'arc-burning': 'The arc is on; stop it first.',
  'arc-out':
    'The arc went out in the cut, and would die over the open kerf; press Stop, then take the run up beside the cut or at the part’s own lead.',
  'no-nozzle': 'Say which nozzle is in the torch first.',
} as const;
