/** Commands that only a laser's bench has; it has those of a pointer, too. */
export const LASER_COMMANDS = ['beam-in', 'focused'] as const;
