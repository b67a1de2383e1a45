import type { CutPart } from './cut-parts.ts';
import type { Cut } from '../document/cut.ts';

/**
 * How many of the tabs that a cut asks for have no place where they would stand, and are left out.
 * @example missingTabs(profileWithTabs4, { tabs: [a, b, c], starts: [s] }) // 1
 */
export function missingTabs(cut: Cut, { tabs, starts }: Pick<CutPart, 'tabs' | 'starts'>): number {
  if (!('tabs' in cut) || !starts) return 0;
  return Math.max(0, (cut.tabs.at.length || cut.tabs.count * starts.length) - tabs.length);
}
