/** Why a bench with a pointer refuses what is asked of it. */
export const POINTING_REASONS = {
  'no-pointer': 'This bench has no pointer; its data have to say where the pointer’s spot lies.',
  'edge-needs-corner': 'Stock is turned about a corner; let the job’s zero be one, and point at it first.',
  'edge-too-near': 'This is too near zero to tell how the stock lies; point at a place at least 50 mm along its edge.',
  'edge-too-far': 'The stock would lie turned by more than 10°; lay it straighter, or point at the edge along X.',
} as const;
