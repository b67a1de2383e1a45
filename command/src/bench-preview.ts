import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { encode } from 'fast-png';
import { chromium } from 'playwright';
import { base64FromBytes, readJobFile } from '@kerbe/core/job/job-file';
import { ROOT } from './paths.ts';
import { startShop } from './shop.ts';

/** Pixels along and across, and how wide they are burnt, mm: 4 million dots at 10 a millimetre. */
const PIXELS = 2000;
const WIDE = 200;
const TIMES = 9;

/** What is seen of a picture while its tones are changed. */
export interface Preview {
  /** From the input to the sheet that shows it as it will burn, ms: in the middle, and the worst. */
  middle: number;
  worst: number;
  /** Longest task of the page’s thread meanwhile, ms, in the middle. */
  task: number;
}

/** A picture of 4 million dots in a browser without a screen: its brightness is changed, and its dots are waited for. */
export async function previewFigures(folder: string, dither: string): Promise<Preview> {
  process.env.KERBE_QUIET ??= '1';
  const shop = await startShop({ data: folder, web: 0, database: 0, rate: 1, seed: 1 });
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium' });
  try {
    const grey = (k: number) => {
      const [x, y] = [k % PIXELS, Math.floor(k / PIXELS)];
      return 127 + 60 * Math.sin(x / 197) + 60 * Math.cos(y / 131);
    };
    const data = Uint8Array.from({ length: PIXELS * PIXELS }, (_, k) => grey(k));
    const png = encode({ width: PIXELS, height: PIXELS, data, channels: 1, depth: 8 });
    const asset = createHash('sha256').update(png).digest('hex');
    const file = readJobFile(readFileSync(`${ROOT}/demo/jobs/star-tags.kerbe.json`, 'utf8'));
    const { job } = file;
    Object.assign(job.stock, { length: WIDE + 40, width: WIDE + 40 });
    const scale = WIDE / ((PIXELS * 25.4) / 96);
    job.artwork = [{ kind: 'drawing', id: 'p', name: 'Picture', asset, x: 20, y: 20, rotation: 0, scaleX: scale, scaleY: scale, closeOpen: false, refit: 0 }]; // prettier-ignore
    const cut = job.cuts.find(({ kind }) => kind === 'laser-picture')!;
    job.cuts = [{ ...cut, id: 'picture', lines: 10, dither, targets: [{ item: 'p', shapes: 'all' }] } as typeof cut];
    const response = await fetch(new URL('/api/jobs/import', shop.address), {
      method: 'POST',
      headers: { 'x-kerbe-page': 'bench', 'content-type': 'application/json' },
      body: JSON.stringify({ ...file, assets: { [asset]: { name: 'p.png', base64: base64FromBytes(png) } } }),
    });
    const { id, problem } = (await response.json()) as { id: string; problem?: string };
    if (!id) throw new Error(problem);
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.addInitScript('globalThis.__name = (named) => named;');
    await page.addInitScript(watch);
    await page.goto(`${shop.address}jobs/${id}/cuts`);
    const proof = page.getByRole('navigation', { name: 'The route of this job' }).getByRole('link', { name: /^Proof/ });
    const done = () => page.waitForFunction(() => /up to date|not fit/.test(document.querySelector('nav a[href$="/proof"]')?.textContent ?? '')); // prettier-ignore
    await proof.waitFor();
    await done();
    const field = page.getByLabel('brightness', { exact: true });
    const times: number[] = [];
    const tasks: number[] = [];
    for (let k = 0; k < TIMES; k++) {
      await field.focus();
      await page.waitForTimeout(1200);
      await page.evaluate(() => window.seen.begin());
      await field.press(k % 2 ? 'ArrowDown' : 'ArrowUp');
      times.push(await page.evaluate(() => window.seen.changed));
      await done();
      tasks.push(await page.evaluate(() => window.seen.task));
    }
    const sorted = times.toSorted((a, b) => a - b);
    return { middle: sorted[TIMES >> 1], worst: sorted[TIMES - 1], task: tasks.toSorted((a, b) => a - b)[TIMES >> 1] };
  } finally {
    await browser.close();
    shop.stop();
  }
}

declare global {
  interface Window {
    seen: { begin(): void; changed: Promise<number>; task: number };
  }
}

/** Runs in the page: looks at some of the sheet’s points in every frame. */
function watch(): void {
  const look = (): string => {
    const canvas = document.querySelector('canvas')!;
    const copy = document.createElement('canvas').getContext('2d', { willReadFrequently: true })!;
    copy.drawImage(canvas, -canvas.width / 2, -canvas.height / 2);
    return copy.getImageData(0, 0, 40, 40).data.join();
  };
  window.seen = {
    task: 0,
    changed: Promise.resolve(0),
    begin() {
      const before = look();
      window.seen.task = 0;
      window.seen.changed = new Promise((resolve) => {
        window.addEventListener(
          'keydown',
          () => {
            const from = performance.now();
            const frame = (): void => {
              if (look() !== before) resolve(performance.now() - from);
              else requestAnimationFrame(frame);
            };
            requestAnimationFrame(frame);
          },
          { once: true, capture: true },
        );
      });
    },
  };
  new PerformanceObserver((list) => {
    for (const { duration } of list.getEntries()) window.seen.task = Math.max(window.seen.task, duration);
  }).observe({ type: 'longtask' });
}
