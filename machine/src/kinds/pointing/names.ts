/** Commands of every bench whose zero is pointed at by a spot of light. */
export const POINTING_COMMANDS = ['point-zero', 'point-edge', 'edge-free'] as const;
