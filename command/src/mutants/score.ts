import { isNoticed, type Tried } from './tried.ts';

/**
 * What became of a sample, in words: how many were noticed of those that change anything, and the others one by one.
 * @param equivalent keys of those that change nothing.
 */
export function scoreOf(room: string, tried: readonly Tried[], equivalent: ReadonlySet<string>): string {
  const count = tried.filter(({ key }) => !equivalent.has(key));
  const noticed = count.filter(isNoticed);
  const not = count.filter((one) => !isNoticed(one));
  const share = count.length ? Math.round((100 * noticed.length) / count.length) : 100;
  return [
    ...not.map(({ place, text, replacement, status, key }) => `${place} ${status}: ${text} → ${replacement} (${key})`),
    `${room}: ${noticed.length} of ${count.length} noticed (${share} %), ${tried.length - count.length} change nothing`,
  ].join('\n');
}
