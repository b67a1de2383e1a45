import type { MotionPlan } from './plan.ts';
import type { Path } from './path.ts';

/** Minutes of a plan by what the bit does: cutting, plunging straight down, or moving between cuts. */
export function splitTime(
  { xyz, rapid }: Path,
  { at }: MotionPlan,
): { cutting: number; plunging: number; linking: number } {
  const split = { cutting: 0, plunging: 0, linking: 0 };
  for (let i = 1; i < rapid.length; i++) {
    const minutes = at[i] - at[i - 1];
    if (rapid[i]) split.linking += minutes;
    else if (xyz[3 * i] === xyz[3 * i - 3] && xyz[3 * i + 1] === xyz[3 * i - 2] && xyz[3 * i + 2] < xyz[3 * i - 1])
      split.plunging += minutes;
    else split.cutting += minutes;
  }
  return split;
}
