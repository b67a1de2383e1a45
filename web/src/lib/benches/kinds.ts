import type { BenchPages } from './bench-pages';
import { laserPages } from './laser/pages';
import { plasmaPages } from './plasma/pages';
import { routerPages } from './router/pages';

/** What the pages of each kind of machine are made of, by the kind of its bench. */
const PAGES: Record<string, BenchPages> = { router: routerPages, plasma: plasmaPages, laser: laserPages };

/** @throws {Error} for a kind that nobody has written pages for. */
export function pagesOf({ kind }: { kind: string }): BenchPages {
  const pages = Object.hasOwn(PAGES, kind) ? PAGES[kind] : undefined;
  if (!pages) throw new Error(`There are no pages for a machine of the kind “${kind}”.`);
  return pages;
}
