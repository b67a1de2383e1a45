const NAME = 'kerbe-name';
const PAGE = 'kerbe-page';

/**
 * Who this page is to a bench: a mark of its own, which it keeps when it is reloaded and which no other window has, and
 * what its person wants to be called.
 */
class Me {
  name = $state('');
  page = '';

  /** Reads what this window remembers; to be called in the browser. */
  wake(): void {
    if (this.page) return;
    const [entry] = performance.getEntriesByType('navigation') as PerformanceNavigationTiming[];
    const known = sessionStorage.getItem(PAGE);
    // A copied window starts with what the other remembered; only a reload is the same page.
    this.page = entry?.type === 'reload' && known ? known : crypto.randomUUID();
    sessionStorage.setItem(PAGE, this.page);
    this.name = localStorage.getItem(NAME) ?? '';
  }

  call(name: string): void {
    this.name = name.trim().slice(0, 40);
    localStorage.setItem(NAME, this.name);
  }

  headers(): Record<string, string> {
    return this.page ? { 'x-kerbe-page': this.page, 'x-kerbe-name': encodeURIComponent(this.name) } : {};
  }
}

export const me = new Me();
