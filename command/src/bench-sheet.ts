import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { type Browser, chromium } from '@playwright/test';
import { base64FromBytes, type JobFile, readJobFile } from '@kerbe/core/job/job-file';
import type { CutJob } from '@kerbe/core/job/job';
import { letterPage } from './bench-page.ts';
import { ROOT } from './paths.ts';
import { startShop } from './shop.ts';

/** How the page of a job bears what is heavy, ms: each the median of three runs. */
export interface SheetFigures {
  /** From frame to frame while the sheet is moved, looked closer at, and an item dragged: median and 95th percentile. */
  frames: Record<string, { middle: number; late: number }>;
  /** From a turn of the wheel to the fresh picture of a sheet, in place of the stretched one. */
  fresh: Record<string, number>;
  /** The longest task of the page’s thread meanwhile. */
  task: number;
  /** From a click to the sheet that shows it. */
  choose: number;
  /** From a keystroke to the sheet, and to the computed proof. */
  typed: { sheet: number; proof: number };
  /** A drawing of 5 MB, from the file to the sheet. */
  imported: number;
  /** From opening to the sheet, and to the result of last time. */
  reopened: { sheet: number; result: number };
  /** A job of 40 cuts on 200 items, opened; over an empty one. */
  many: number;
  /** A changed number of one of the 40, to the proof. */
  changed: number;
  /** The first picture of the carved piece. */
  piece: number;
}

const RUNS = 3;
/** Shapes of 150 nodes in a drawing of 5 MB. */
const LARGE = 1700;
/** What did not come about counts as longest. */
const middle = (values: readonly number[]) =>
  values.map((value) => (Number.isNaN(value) ? Infinity : value)).sort((a, b) => a - b)[values.length >> 1] ?? NaN;

/** 2,000 shapes of 110 nodes each. */
function shapesPage(count = 2000, nodes = 110, digits = 2): string {
  const columns = 50;
  const paths = Array.from({ length: count }, (_, k) => {
    const [cx, cy] = [10 + 11 * (k % columns), 10 + 11 * Math.floor(k / columns)];
    const points = Array.from({ length: nodes }, (_, i) => {
      const turn = (2 * Math.PI * i) / nodes;
      const r = 4 + Math.sin(5 * turn + k) * 0.7 + 0.1 * Math.sin(17 * turn);
      return `${(cx + r * Math.cos(turn)).toFixed(digits)} ${(cy + r * Math.sin(turn)).toFixed(digits)}`;
    });
    return `<path d="M${points.join('L')}Z"/>`;
  });
  const height = 20 + 11 * Math.ceil(count / columns);
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${columns * 11 + 20}mm" height="${height}mm" viewBox="0 0 ${columns * 11 + 20} ${height}">${paths.join('')}</svg>`;
}

/** A job like the demo’s with these drawings on it, each an item, and cuts. */
function jobWith(name: string, drawings: readonly string[], cuts: (job: CutJob) => CutJob['cuts']): JobFile {
  const file = readJobFile(readFileSync(`${ROOT}/demo/jobs/entrance-board.kerbe.json`, 'utf8'));
  const { job } = file;
  const assets: JobFile['assets'] = {};
  job.name = name;
  Object.assign(job.stock, { length: 600, width: 480 });
  job.artwork = drawings.map((svg, k) => {
    const bytes = new TextEncoder().encode(svg);
    const asset = createHash('sha256').update(bytes).digest('hex');
    assets[asset] = { name: `d${k}.svg`, base64: base64FromBytes(bytes) };
    const at = { x: 30 * (k % 18), y: 30 * Math.floor(k / 18) };
    const place = drawings.length === 1 ? { x: 0, y: 0 } : at;
    return { kind: 'drawing', id: `d${k}`, name: `Drawing ${k}`, asset, ...place, rotation: 0, scaleX: 1, scaleY: 1, closeOpen: false, refit: 0 }; // prettier-ignore
  });
  job.cuts = cuts(job);
  return { ...file, assets };
}

const carving = (job: CutJob, id: string, items: readonly string[]): CutJob['cuts'][number] => ({
  id,
  kind: 'v-carve',
  targets: items.map((item) => ({ item, shapes: 'all' as const })),
  bit: job.bits.find(({ kind }) => kind === 'v')!.id,
  depthLimit: 3,
  floorStep: 0.5,
  startDepth: 0,
  depthPerPass: null,
  clearBits: [],
  feed: 2000,
  plunge: 600,
  speed: 18_000,
});

/** Opens the heaviest pages in a browser without a screen, and measures them. */
export async function sheetFigures(folder: string): Promise<SheetFigures> {
  process.env.KERBE_QUIET ??= '1';
  const shop = await startShop({ data: folder, web: 0, database: 0, rate: 1, seed: 1 });
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium' });
  try {
    const take = async (file: JobFile): Promise<string> => {
      const response = await fetch(new URL('/api/jobs/import', shop.address), {
        method: 'POST',
        headers: { 'x-kerbe-page': 'bench', 'content-type': 'application/json' },
        body: JSON.stringify(file),
      });
      const { id, problem } = (await response.json()) as { id: string; problem?: string };
      if (!id) throw new Error(problem);
      return `${shop.address}jobs/${id}`;
    };
    const shapes = await take(jobWith('Two thousand', [shapesPage()], () => []));
    const letters = await take(jobWith('Letters', [letterPage(300)], (job) => [carving(job, 'c', ['d0'])]));
    const small = (k: number) => shapesPage(2, 40).replace('<path', `<path id="s${k}"`);
    const many = await take(
      jobWith('Forty cuts', Array.from({ length: 200 }, (_, k) => small(k)), (job) =>
        Array.from({ length: 40 }, (_, c) => carving(job, `c${c}`, [0, 1, 2, 3, 4].map((i) => `d${5 * c + i}`)))), // prettier-ignore
    );
    const runs: SheetFigures[] = [];
    for (let run = 0; run < RUNS; run++) {
      // What a run leaves in its jobs is not in the way of the next.
      const [empty, words, drawing] = [
        await take(jobWith('Empty', [], () => [])),
        await take(jobWith('Words', [], () => [])),
        await take(jobWith('Drawing', [], () => [])),
      ];
      runs.push(await once(browser, { shapes, letters, many, empty, words, drawing }, run));
    }
    const of = (figure: (run: (typeof runs)[number]) => number) => middle(runs.map(figure));
    const frames = Object.fromEntries(
      Object.keys(runs[0].frames).map((name) => [
        name,
        { middle: of((run) => run.frames[name].middle), late: of((run) => run.frames[name].late) },
      ]),
    );
    const fresh = Object.fromEntries(Object.keys(runs[0].fresh).map((name) => [name, of((run) => run.fresh[name])]));
    return {
      frames,
      fresh,
      task: of(({ task }) => task),
      choose: of(({ choose }) => choose),
      typed: { sheet: of(({ typed }) => typed.sheet), proof: of(({ typed }) => typed.proof) },
      imported: of(({ imported }) => imported),
      reopened: { sheet: of(({ reopened }) => reopened.sheet), result: of(({ reopened }) => reopened.result) },
      many: of((run) => run.many),
      changed: of(({ changed }) => changed),
      piece: of(({ piece }) => piece),
    };
  } finally {
    await browser.close();
    shop.stop();
  }
}

type Addresses = Record<'shapes' | 'letters' | 'many' | 'empty' | 'words' | 'drawing', string>;

async function once(
  browser: Browser,
  { shapes, letters, many, empty, words, drawing }: Addresses,
  run: number,
): Promise<SheetFigures> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  // What runs this names functions by a helper that a page does not have.
  await page.addInitScript('globalThis.__name = (named) => named;');
  await page.addInitScript(watch);
  const proof = page.getByRole('navigation', { name: 'The route of this job' }).getByRole('link', { name: /^Proof/ });
  const computed = async () => {
    await page.waitForFunction(() => /up to date|nothing yet|not fit to run/.test(document.querySelector('nav a[href$="/proof"]')?.textContent ?? '')); // prettier-ignore
    await proof.waitFor();
  };
  try {
    const frames: SheetFigures['frames'] = {};
    const fresh: SheetFigures['fresh'] = {};
    let task = 0;
    const moved = async (name: string, move: () => Promise<void>) => {
      await page.evaluate(() => window.watched.begin());
      await move();
      const seen = await page.evaluate(() => window.watched.end());
      frames[name] = { middle: middle(seen.frames), late: seen.frames.sort((a, b) => a - b)[Math.floor(seen.frames.length * 0.95)] }; // prettier-ignore
      task = Math.max(task, ...seen.tasks, 0);
    };
    for (const [name, address, x, y] of [
      ['2,000 shapes', shapes, 10, 21],
      ['300 letters', letters, 7, 230],
    ] as const) {
      await page.goto(`${address}/artwork`);
      await computed();
      await page.waitForTimeout(400);
      const box = (await page.locator('svg[data-frame]').boundingBox())!;
      // The margin beside the stock: there the sheet is moved, and no item.
      const edge = { x: box.x + 30, y: box.y + box.height / 2 };
      const drag = async (from: { x: number; y: number }) => {
        await page.mouse.move(from.x, from.y);
        await page.mouse.down();
        for (let k = 1; k <= 40; k++) await page.mouse.move(from.x + 4 * k, from.y + 2 * Math.sin(k), { steps: 1 });
        await page.mouse.up();
      };
      await moved(`${name}, moved`, () => drag(edge));
      await page.getByRole('button', { name: 'whole sheet' }).click();
      await moved(`${name}, looked closer at`, async () => {
        await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
        for (let k = 0; k < 30; k++) {
          await page.mouse.wheel(0, k < 18 ? -60 : 60);
          await page.waitForTimeout(16);
        }
      });
      await page.waitForTimeout(1500);
      const pictured = page.evaluate(
        () =>
          new Promise<number>((resolve) => {
            const drawn = () =>
              Math.max(...Array.from(document.querySelectorAll('canvas[data-drawn]'), (canvas) => Number(canvas.getAttribute('data-drawn')))); // prettier-ignore
            window.addEventListener(
              'wheel',
              () => {
                const from = performance.now();
                const look = () => (drawn() > from ? resolve(drawn() - from) : performance.now() - from > 10_000 ? resolve(NaN) : setTimeout(look, 5)); // prettier-ignore
                look();
              },
              { capture: true, once: true },
            );
          }),
      );
      await page.waitForTimeout(100);
      await page.mouse.wheel(0, -60);
      fresh[name] = await pictured;
      await page.getByRole('button', { name: 'whole sheet' }).click();
      await page.waitForTimeout(300);
      const [k, left, base] = (await page.locator('svg[data-frame]').getAttribute('data-frame'))!
        .split(' ')
        .map(Number);
      await moved(`${name}, an item dragged`, () => drag({ x: box.x + left + x * k, y: box.y + base - y * k }));
      await page.getByRole('button', { name: 'Undo' }).click();
      await computed();
    }

    await page.goto(`${shapes}/cuts`);
    await computed();
    await page.waitForTimeout(400);
    const sheet = page.locator('svg[data-frame]');
    const at = (await sheet.boundingBox())!;
    const [k, left, base] = (await sheet.getAttribute('data-frame'))!.split(' ').map(Number);
    const chosen: number[] = [];
    for (let n = 0; n < 5; n++) {
      await page.evaluate(() => window.watched.begin());
      await page.mouse.click(at.x + left + (10 + 11 * (n + 3)) * k, at.y + base - 120 * k);
      await page.waitForTimeout(250);
      const seen = await page.evaluate(() => window.watched.end());
      chosen.push(seen.painted);
      task = Math.max(task, ...seen.tasks, 0);
    }

    // A letter more on a job of words.
    await page.goto(`${words}/artwork`);
    await page.getByRole('button', { name: 'Add lettering' }).click();
    await page.getByLabel('Words').fill(`Mind the moon ${run}`);
    await page.goto(`${words}/cuts`);
    await computed();
    await page.getByRole('button', { name: 'Add a V-carve' }).click();
    await page.getByText(/^It took/).waitFor();
    await computed();
    await page.goto(`${words}/artwork`);
    await computed();
    await page.getByLabel('Words').focus();
    await page.keyboard.press('End');
    const sheetAfter: number[] = [];
    const proofAfter: number[] = [];
    for (const letter of 'abcde') {
      await page.evaluate(() => window.watched.begin());
      await page.keyboard.type(letter);
      await page.waitForTimeout(700);
      const seen = await page.evaluate(() => window.watched.end());
      sheetAfter.push(seen.painted);
      proofAfter.push(seen.proof);
    }
    await page.goto(`${drawing}/artwork`);
    await computed();
    const large = Buffer.from(shapesPage(LARGE, 150, 5));
    // Counted from when the page has the file: that a test hands it over through a wire is no part of it.
    const shown = page.evaluate(
      (told) =>
        new Promise<number>((resolve) => {
          document.addEventListener(
            'change',
            () => {
              const from = performance.now();
              const look = () =>
                document.body.innerText.includes(told) ? resolve(performance.now() - from) : requestAnimationFrame(look); // prettier-ignore
              look();
            },
            { capture: true, once: true },
          );
        }),
      `${LARGE} shapes`,
    );
    await page.getByLabel('Drawing or picture to import').setInputFiles({ name: `large-${run}.svg`, mimeType: 'image/svg+xml', buffer: large }); // prettier-ignore
    const imported = await shown;

    const opened = async (address: string): Promise<{ sheet: number; result: number }> => {
      await page.goto('about:blank');
      await page.goto(address, { waitUntil: 'commit' });
      await page.waitForFunction(() => window.watched.first().result > 0, undefined, { timeout: 60_000 });
      return page.evaluate(() => window.watched.first());
    };
    await page.goto(`${letters}/cuts`);
    await computed();
    await page.waitForTimeout(2500);
    const reopened = await opened(`${letters}/cuts`);

    const nothing = (await opened(`${empty}/cuts`)).result;
    await page.evaluate(() => indexedDB.deleteDatabase('kerbe-results'));
    const all = (await opened(`${many}/cuts`)).sheet;
    await computed();
    const depth = page.locator('[data-cut=c0]').getByLabel('depth limit', { exact: true });
    await depth.fill(`2.${run + 1}`);
    // From the key to the card that tells the new depth.
    const known = page.evaluate(
      (told) =>
        new Promise<number>((resolve) => {
          let from = 0;
          window.addEventListener('keydown', () => (from ||= performance.now()), true);
          const look = () => {
            if (from && document.querySelector('[data-cut=c0] .facts')?.textContent?.includes(told))
              resolve(performance.now() - from); // prettier-ignore
            else requestAnimationFrame(look);
          };
          look();
        }),
      `2.${run + 1} mm`,
    );
    await depth.press('Enter');
    const changed = await known;

    await page.goto(`${letters}/proof`);
    await computed();
    const asked = performance.now();
    await page.getByRole('button', { name: 'The carved piece' }).click();
    await page.getByRole('img', { name: /in three dimensions/ }).waitFor();
    const piece = performance.now() - asked;
    return { frames, fresh, task, choose: middle(chosen), typed: { sheet: middle(sheetAfter), proof: middle(proofAfter) }, imported, reopened, many: all - nothing, changed, piece }; // prettier-ignore
  } catch (error) {
    const seen = await page.locator('body').innerText().catch(() => ''); // prettier-ignore
    throw new Error(`${String(error).split('\n')[0]} At ${page.url()}: ${seen.replace(/\s+/g, ' ').slice(0, 600)}`);
  } finally {
    await context.close();
  }
}

interface Watched {
  begin(): void;
  /** Since the last begin: frames and long tasks, ms; when the sheet was drawn last, and the proof was up to date. */
  end(): { frames: number[]; tasks: number[]; painted: number; proof: number };
  /** Since the page was asked for: when the sheet was drawn first, and a result shown. */
  first(): { sheet: number; result: number };
}
declare global {
  interface Window {
    watched: Watched;
  }
}

/** Runs in the page. */
function watch(): void {
  let frames: number[] = [];
  let tasks: number[] = [];
  let last = 0;
  let from = 0;
  let painted = 0;
  let proof = 0;
  let wasOld = false;
  const first = { sheet: 0, result: 0 };
  // The first input since `begin` is where waiting begins.
  for (const type of ['pointerdown', 'input', 'keydown'])
    window.addEventListener(type, () => (from ||= performance.now()), true);
  const frame = (now: number) => {
    if (last) frames.push(now - last);
    last = now;
    const canvases = Array.from(document.querySelectorAll('canvas[data-drawn]'));
    const drawn = Math.max(0, ...canvases.map((canvas) => Number(canvas.getAttribute('data-drawn'))));
    if (canvases[0]?.getAttribute('data-groups') !== '0' && drawn && !first.sheet) first.sheet = now;
    if (from && drawn > from && !painted) painted = drawn - from;
    const told = document.querySelector('nav a[href$="/proof"]')?.textContent ?? '';
    const ready = /up to date|nothing yet|not fit to run/.test(told) && !/computing/.test(told);
    if (ready && !first.result) first.result = now;
    if (from && !ready) wasOld = true;
    if (from && ready && wasOld && !proof) proof = now - from;
    requestAnimationFrame(frame);
  };
  requestAnimationFrame(frame);
  new PerformanceObserver((list) => tasks.push(...list.getEntries().map(({ duration }) => duration))).observe({ type: 'longtask' }); // prettier-ignore
  window.watched = {
    begin() {
      [frames, tasks, last, from, painted, proof, wasOld] = [[], [], 0, 0, 0, 0, false];
    },
    // What did not come about is no time of nothing.
    end: () => ({ frames, tasks, painted: painted || NaN, proof: proof || NaN }),
    first: () => first,
  };
}
