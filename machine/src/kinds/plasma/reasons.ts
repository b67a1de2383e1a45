/** Why a plasma table's bench refuses a command, besides what any bench may say. */
export const PLASMA_REASONS = {
  'arc-burning': 'The arc is on; stop it first.',
  'arc-out':
    'The arc went out in the cut, and would die over the open kerf; press Stop, then take the run up beside the cut or at the part’s own lead.',
  'no-nozzle': 'Say which nozzle is in the torch first.',
  'no-pointer': 'This bench has no pointer; its data have to say where the pointer’s spot lies.',
  'edge-needs-corner': 'A sheet is turned about a corner; let the job’s zero be one, and point at it first.',
  'edge-too-near': 'This is too near zero to tell how the sheet lies; point at a place at least 50 mm along its edge.',
  'edge-too-far': 'The sheet would lie turned by more than 10°; lay it straighter, or point at the edge along X.',
} as const;
