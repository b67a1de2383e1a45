/** Why a router's bench refuses a command, besides what any bench may say. */
export const ROUTER_REASONS = {
  'bit-change': 'A bit is being changed; finish that, or stop the run.',
  'release-first': 'The emergency stop is still pressed; release it so that the new bit can be measured.',
  'clear-first': 'The stop has been released but not cleared; clear it before anything is measured.',
  'no-change': 'No bit is being changed now.',
  'no-question': 'Nothing is asked now.',
  'circuit-closed': 'The touch circuit is closed; take the plate off the bit.',
  'circuit-untried':
    'The touch circuit has not been sensed to close; clip it on and tap the plate against the bit first.',
  'plate-there': 'Tick at Set-up that plate and clip are taken away first.',
  'spindle-turning': 'The spindle is turning; stop it first.',
  'no-setter': 'This bench has no tool setter; set zero in Z again with the new bit instead.',
  'bit-insulates':
    'This tool carries no current, so the touch plate cannot feel it; set the height by paper, by eye or with a gauge.',
  'setter-too-hard':
    'The tool setter may press harder than this point’s spring, which would give first; set the height by paper, by eye or with a gauge. (Where the setter takes less force, the bench has to say so.)',
  'no-stop': 'This bench has no corner stop; set X and Y by sight, or with the touch plate and another bit.',
  'no-bit': 'Say which bit is in the spindle first.',
  'other-bit': 'Another bit is in than the program begins with; put that one in and say so at Set-up.',
} as const;
