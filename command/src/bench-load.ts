import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { base64FromBytes, type JobFile, readJobFile } from '@kerbe/core/job/job-file';
import type { Cut } from '@kerbe/core/cuts/kinds';
import { letterPage } from './bench-page.ts';
import { ROOT } from './paths.ts';
import { startShop } from './shop.ts';

/** Waiting times, ms. */
export interface Waits {
  hold: number[];
  page: number[];
}

const JOB = 'comet-marker';

/**
 * How long Hold and pages take to be answered, at rest and while four of the heaviest jobs are computed for four users:
 * a page of letters that all differ, one outline of 60,000 points, a fine pocket and a fine carved floor.
 */
export async function waitsUnderLoad(folder: string): Promise<{ idle: Waits; loaded: Waits; computed: number }> {
  process.env.KERBE_QUIET ??= '1';
  const shop = await startShop({ data: folder, web: 0, database: 0, rate: 1, seed: 1 });
  const ask = async (path: string, body?: unknown, page = 'bench', raw?: string): Promise<Response> =>
    fetch(new URL(path, shop.address), {
      method: body === undefined && raw === undefined ? 'GET' : 'POST',
      headers: { 'x-kerbe-page': page, 'content-type': 'application/json' },
      body: raw ?? (body === undefined ? undefined : JSON.stringify(body)),
    });
  const tell = async (command: object): Promise<void> => {
    const response = await ask('/api/benches/dome-workshop/command', command);
    await response.text();
  };
  try {
    await tell({ command: 'connect', job: JOB });
    await tell({ command: 'home' });
    await pause(25_000);
    const measure = async (during: () => boolean): Promise<Waits> => {
      const waits: Waits = { hold: [], page: [] };
      const paths = ['/', `/jobs/${JOB}/artwork`, `/jobs/${JOB}/run`, `/api/jobs/${JOB}`];
      for (let k = 0; during(); k++) {
        await tell({ command: 'step', axis: 'x', by: k % 2 ? -20 : 20, feed: 600 });
        await pause(120);
        let began = performance.now();
        await tell({ command: 'hold' });
        waits.hold.push(performance.now() - began);
        await tell({ command: 'stop' });
        for (const path of paths) {
          began = performance.now();
          await (await ask(path)).text();
          waits.page.push(performance.now() - began);
        }
      }
      return waits;
    };
    const jobs: { id: string; revision: string }[] = [];
    for (const file of heaviest()) {
      const made = (await (await ask('/api/jobs/import', undefined, 'bench', JSON.stringify(file))).json()) as {
        id: string;
      };
      const { revision } = (await (await ask(`/api/jobs/${made.id}`)).json()) as { revision: string };
      jobs.push({ id: made.id, revision });
    }
    let until = Date.now() + 15_000;
    const idle = await measure(() => Date.now() < until);
    let computed = 0;
    const leave = new AbortController();
    const work = jobs.map(async ({ id, revision }, k) => {
      const response = await fetch(new URL(`/api/jobs/${id}/programs`, shop.address), {
        method: 'POST',
        headers: { 'x-kerbe-page': `user-${k}`, 'content-type': 'application/json' },
        body: JSON.stringify({ revision }),
        signal: leave.signal,
      });
      if (response.ok) computed++;
    });
    until = Date.now() + 40_000;
    let open = jobs.length;
    for (const one of work) one.catch(() => {}).finally(() => open--);
    const loaded = await measure(() => Date.now() < until && open > 0);
    leave.abort();
    await Promise.allSettled(work);
    return { idle, loaded, computed };
  } finally {
    shop.stop();
  }
}

/** Four jobs that each take long. */
export function heaviest(): JobFile[] {
  const demo = readJobFile(readFileSync(`${ROOT}/demo/jobs/entrance-board.kerbe.json`, 'utf8'));
  const v = demo.job.bits.find(({ kind }) => kind === 'v')!;
  const end = demo.job.bits.find(({ kind }) => kind === 'end')!;
  const drive = { id: 'c', targets: [{ item: 'd', shapes: 'all' as const }], feed: 2000, plunge: 600, speed: 18_000 };
  const carve = (floorStep: number, depthLimit: number): Cut => ({
    ...drive,
    kind: 'v-carve',
    bit: v.id,
    depthLimit,
    floorStep,
    startDepth: 0,
    depthPerPass: null,
    clearBits: [],
  });
  const points = Array.from({ length: 60_000 }, (_, k) => {
    const turn = (2 * Math.PI * k) / 60_000;
    const r = 180 + 12 * Math.sin(90 * turn) + 0.4 * Math.sin(7001 * turn);
    return `${(200 + r * Math.cos(turn)).toFixed(3)} ${(200 + r * Math.sin(turn)).toFixed(3)}`;
  });
  const square = (inner: string) =>
    `<svg xmlns="http://www.w3.org/2000/svg" width="400mm" height="400mm" viewBox="0 0 400 400">${inner}</svg>`;
  const ring = square(`<path d="M${points.join('L')}z"/>`);
  const made: [string, Cut][] = [
    [letterPage(4000, { differ: true }), carve(0.5, 8)],
    [ring, carve(0.2, 3)],
    [
      ring,
      { ...drive, kind: 'pocket', bit: end.id, depth: 6, depthPerPass: 1, lastPass: 0, startDepth: 0, step: 0.3, pattern: 'rings', angle: 0, climb: true, finish: 0, entry: { kind: 'ramp', angle: 5 }, slots: false, clearBits: [] }, // prettier-ignore
    ],
    [letterPage(3000, { differ: true, face: 'rokkitt' }), carve(0.1, 1)],
  ];
  return made.map(([svg, cut]) => {
    const bytes = new TextEncoder().encode(svg);
    const asset = createHash('sha256').update(bytes).digest('hex');
    return {
      job: {
        ...demo.job,
        artwork: [
          { id: 'd', name: 'heavy', kind: 'drawing', asset, x: 0, y: 0, rotation: 0, scaleX: 1, scaleY: 1, closeOpen: false, refit: 0 }, // prettier-ignore
        ],
        cuts: [cut],
      },
      assets: { [asset]: { name: 'heavy.svg', base64: base64FromBytes(bytes) } },
    };
  });
}

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** The value that 99 of a hundred stay under. */
export function p99(values: readonly number[]): number {
  return values.toSorted((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * 0.99))];
}
