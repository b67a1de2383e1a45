import SharedBenches from './benches.shared?sharedworker';
import { Hub, type PageAt, type Source, type Told } from './hub';
import type { FromPage, ToPage } from './messages';

/** Words of the channel on which pages find the one that has the stream. */
type OnChannel = { to: 'leader'; from: FromPage } | { to: 'pages' } | { to: 'page'; key: string; told: ToPage };

/**
 * The way from the runners to this page: over the one stream that all pages of this browser share. A shared worker has it;
 * where there is none one page has it and passes it on, and where a browser knows no locks each page has its own.
 */
export class BenchLine {
  private readonly key = crypto.randomUUID();
  private readonly lock = `kerbe-page-${this.key}`;
  private say?: (from: FromPage) => void;
  private at?: PageAt;
  private ended = false;
  private end: () => void = () => {};

  constructor(private readonly told: (told: Told) => void) {}

  /** This page is there and follows a bench, or none. */
  follow(at: PageAt): void {
    this.at = at;
    if (this.say) return this.hello();
    if (!navigator.locks) {
      const hub = new Hub(source);
      this.say = ({ key, at }) => hub.join(key, at, this.told);
      this.end = () => hub.leave(this.key);
      return this.hello();
    }
    this.say = () => {};
    // Held until this page is gone, or listens no more.
    void navigator.locks.request(this.lock, () => {
      if (this.ended) return;
      if (typeof SharedWorker === 'undefined') this.byLeader();
      else this.byWorker();
      return new Promise<void>((resolve) => (this.end = resolve));
    });
  }

  close(): void {
    this.ended = true;
    this.end();
  }

  private hello(): void {
    if (this.at) this.say?.({ key: this.key, at: this.at, lock: this.lock });
  }

  private byWorker(): void {
    const worker = new SharedBenches({ name: 'kerbe-benches' });
    worker.port.onmessage = ({ data }: MessageEvent<ToPage>) => this.told(data);
    worker.onerror = () => {
      worker.onerror = null;
      if (!this.ended) this.byLeader();
    };
    this.say = (from) => worker.port.postMessage(from);
    this.hello();
  }

  /** The page that is given the lock has the stream; the others say to it that they are there. */
  private byLeader(): void {
    const channel = new BroadcastChannel('kerbe-benches');
    const post = (message: OnChannel) => channel.postMessage(message);
    this.say = (from) => post({ to: 'leader', from });
    channel.onmessage = ({ data }: MessageEvent<OnChannel>) => {
      if (data.to === 'pages') this.hello();
      else if (data.to === 'page' && data.key === this.key) this.told(data.told);
    };
    this.hello();
    void navigator.locks.request('kerbe-benches-leader', () => {
      if (this.ended) return;
      const hub = new Hub(source);
      const watched = new Set<string>();
      const join = ({ key, at, lock }: FromPage) => {
        hub.join(key, at, (told) => (key === this.key ? this.told(told) : post({ to: 'page', key, told })));
        if (watched.has(key) || key === this.key) return;
        watched.add(key);
        void navigator.locks.request(lock, () => hub.leave(key));
      };
      channel.addEventListener('message', ({ data }: MessageEvent<OnChannel>) => {
        if (data.to === 'leader') join(data.from);
      });
      this.say = join;
      this.hello();
      post({ to: 'pages' });
      return new Promise<void>(() => {});
    });
  }
}

const source = (url: string) => new EventSource(url) as unknown as Source;
