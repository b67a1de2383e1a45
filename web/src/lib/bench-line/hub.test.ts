import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { Hub, type Source, type Told } from './hub.ts';

/** A stream of events as a test says them. */
class Said implements Source {
  onopen: (() => void) | null = null;
  onerror: (() => void) | null = null;
  readyState = 0;
  closed = false;
  private readonly heard = new Map<string, (event: { data: string }) => void>();
  constructor(readonly url: string) {}
  addEventListener(name: string, heard: (event: { data: string }) => void): void {
    this.heard.set(name, heard);
  }
  close(): void {
    this.closed = true;
  }
  says(name: string, data: unknown): void {
    this.heard.get(name)!({ data: JSON.stringify(data) });
  }
}

const opened: Said[] = [];
let hub: Hub;
beforeEach(() => {
  vi.useFakeTimers();
  opened.length = 0;
  hub = new Hub((url) => {
    opened.push(new Said(url));
    return opened.at(-1)!;
  });
});
afterEach(() => vi.useRealTimers());

const page = (key: string, bench?: string) => {
  const told: Told[] = [];
  hub.join(key, { page: `page-${key}`, bench }, (one) => told.push(one));
  return told;
};
const at = ({ url }: Said) => new URLSearchParams(url.split('?')[1]).getAll('at').toSorted();
const open = () => opened.filter(({ closed }) => !closed);

test('twenty pages share one stream, which carries the presence of each', () => {
  for (let k = 0; k < 20; k++) page(String(k), k % 2 ? 'dome' : 'yard');
  vi.advanceTimersByTime(50);
  expect(opened).toHaveLength(1);
  expect(at(opened[0])).toHaveLength(20);
  expect(at(opened[0])).toContain('page-3:dome');
});

test('each page hears of all benches, and all of its own only', () => {
  const [dome, yard, none] = [page('a', 'dome'), page('b', 'yard'), page('c')];
  vi.advanceTimersByTime(50);
  opened[0].says('benches', []);
  opened[0].says('state', { bench: 'dome', state: { bench: 'running' } });
  opened[0].says('absent', 'yard');
  expect(dome.map(({ is }) => is)).toEqual(['benches', 'state']);
  expect(yard.map(({ is }) => is)).toEqual(['benches', 'absent']);
  expect(none.map(({ is }) => is)).toEqual(['benches']);
  // Who comes later is told what is known.
  expect(page('d', 'dome')).toEqual(dome);
  expect(page('e', 'yard').map(({ is }) => is)).toEqual(['benches']);
});

test('a page comes: the stream before goes on until the new one stands, so nobody counts as gone', () => {
  const first = page('a', 'dome');
  vi.advanceTimersByTime(50);
  opened[0].onopen!();
  page('b', 'dome');
  vi.advanceTimersByTime(50);
  expect(open()).toHaveLength(2);
  opened[1].onopen!();
  expect(open()).toEqual([opened[1]]);
  opened[1].says('state', { bench: 'dome', state: { bench: 'ready' } });
  // What the one before says late is not told.
  opened[0].says('state', { bench: 'dome', state: { bench: 'running' } });
  expect(first.at(-1)).toMatchObject({ is: 'state', data: expect.stringContaining('ready') });
});

test('a page goes, and the last one closes the stream', () => {
  page('a', 'dome');
  page('b', 'yard');
  vi.advanceTimersByTime(50);
  hub.leave('a');
  vi.advanceTimersByTime(50);
  opened[1].onopen!();
  expect(at(open()[0])).toEqual(['page-b:yard']);
  hub.leave('b');
  vi.advanceTimersByTime(50);
  expect(open()).toEqual([]);
});

test('a page that follows another bench is there once', () => {
  page('a', 'dome');
  vi.advanceTimersByTime(50);
  page('a', 'yard');
  vi.advanceTimersByTime(50);
  expect(at(opened[1])).toEqual(['page-a:yard']);
});

test('a stream that breaks is said to all; one that was refused is asked for anew', () => {
  const told = page('a', 'dome');
  vi.advanceTimersByTime(50);
  opened[0].onerror!();
  expect(told.at(-1)).toEqual({ is: 'absent' });
  expect(opened).toHaveLength(1);
  opened[0].readyState = 2;
  opened[0].onerror!();
  vi.advanceTimersByTime(1100);
  expect(opened).toHaveLength(2);
});
