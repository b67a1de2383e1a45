/** A page of this browser: its mark, and the bench that it follows where it follows one. */
export interface PageAt {
  page: string;
  bench?: string;
}

/** What is told to a page: all benches, all of the one it follows, or that it (or all) cannot be heard. Data are JSON. */
export type Told = { is: 'benches' | 'state'; data: string } | { is: 'absent' };

/** What is needed of a stream of server-sent events. */
export interface Source {
  onopen: (() => void) | null;
  onerror: (() => void) | null;
  readonly readyState: number;
  addEventListener(name: string, heard: (event: { data: string }) => void): void;
  close(): void;
}

const CLOSED = 2;
/** How soon a stream that the server has refused is asked for anew, ms. */
const AGAIN = 1000;
/** Pages that come or go within this time, ms, do so together. */
const TOGETHER = 20;

/**
 * One stream of server-sent events for all pages of a browser. A browser opens six connections to an address; with a
 * stream for each page, the seventh page and every word of the others would wait behind them.
 */
export class Hub {
  private readonly pages = new Map<string, PageAt & { tell: (told: Told) => void }>();
  private source?: Source;
  private timer?: ReturnType<typeof setTimeout>;
  private benches?: string;
  private readonly states = new Map<string, string>();

  constructor(private readonly open: (url: string) => Source) {}

  /** A page is there, or follows another bench now. @param key its name here. */
  join(key: string, at: PageAt, tell: (told: Told) => void): void {
    this.pages.set(key, { ...at, tell });
    if (this.benches) tell({ is: 'benches', data: this.benches });
    const state = at.bench === undefined ? undefined : this.states.get(at.bench);
    if (state) tell({ is: 'state', data: state });
    this.change();
  }

  leave(key: string): void {
    if (this.pages.delete(key)) this.change();
  }

  private change(): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => this.listen(), TOGETHER);
  }

  /** The address of the stream for the pages that are there now. */
  private address(): string {
    const at = [...this.pages.values()].map(({ page, bench }) => (bench === undefined ? page : `${page}:${bench}`));
    return `/api/benches/events?${new URLSearchParams(at.map((one) => ['at', one]))}`;
  }

  private listen(): void {
    const before = this.source;
    this.source = undefined;
    if (this.pages.size === 0) {
      this.states.clear();
      this.benches = undefined;
      return before?.close();
    }
    const source = this.open(this.address());
    this.source = source;
    // The one before goes on until this one stands, so that nobody counts as gone.
    source.onopen = () => before?.close();
    const mine = (heard: (event: { data: string }) => void) => (event: { data: string }) => {
      if (this.source === source) heard(event);
    };
    source.addEventListener(
      'benches',
      mine(({ data }) => {
        this.benches = data;
        this.tell({ is: 'benches', data });
      }),
    );
    source.addEventListener(
      'state',
      mine(({ data }) => {
        const { bench } = JSON.parse(data) as { bench: string };
        this.states.set(bench, data);
        this.tell({ is: 'state', data }, bench);
      }),
    );
    source.addEventListener(
      'absent',
      mine(({ data }) => {
        const bench = JSON.parse(data) as string;
        this.states.delete(bench);
        this.tell({ is: 'absent' }, bench);
      }),
    );
    source.onerror = () => {
      before?.close();
      if (this.source !== source) return;
      this.states.clear();
      this.benches = undefined;
      this.tell({ is: 'absent' });
      // A server that answers with a refusal ends the stream for good; it is opened anew.
      if (source.readyState !== CLOSED) return;
      clearTimeout(this.timer);
      this.timer = setTimeout(() => this.listen(), AGAIN);
    };
  }

  /** @param bench only to who follows it. */
  private tell(told: Told, bench?: string): void {
    for (const page of this.pages.values()) if (bench === undefined || page.bench === bench) page.tell(told);
  }
}
