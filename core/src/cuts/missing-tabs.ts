import type { Cut } from '../document/cut.ts';
import type { CutPart } from './cut-part.ts';
import { kindOf } from './kinds.ts';

/**
 * How many of the tabs that a cut asks for have no place where they would stand, and are left out.
 * @example missingTabs(profileWithTabs4, { tabs: [a, b, c], starts: [s] }) // 1
 */
export function missingTabs(cut: Cut, { tabs, starts }: Pick<CutPart, 'tabs' | 'starts'>): number {
  const asked = kindOf(cut).tabs?.(cut);
  if (!asked || !starts) return 0;
  return Math.max(0, (asked.at.length || asked.count * starts.length) - tabs.length);
}
