/** A moment as a clock shows it: `clockTime('2026-11-25T14:02:10Z')` is “14:02” where the clock shows that. */
export function clockTime(moment: string): string {
  return new Date(moment).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
}
