/** Why a laser's bench refuses a command, besides what any bench may say. */
export const LASER_REASONS = {
  'beam-on': 'The beam is on; stop it first.',
  'no-beam': 'Say which lens and beam are in the head first.',
  'lid-open': 'The lid is open; close it first, and leave it closed while the beam is on.',
  'not-armed': 'The laser is not armed; turn its key at the machine, when the lid is closed and eyes are safe.',
} as const;
