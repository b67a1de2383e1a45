import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { cutToFiles } from '../command/src/cut.ts';
import { readCutOptions } from '../command/src/cut-options.ts';
import { measurePath } from '../core/src/motion/path.ts';
import { readProgram } from '../core/src/program/read.ts';

let folder: string;
beforeAll(() => {
  folder = mkdtempSync(`${tmpdir()}/kerbe-cut-`);
  writeFileSync(
    `${folder}/plate.svg`,
    `<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="60mm" viewBox="0 0 120 60">
      <rect x="5" y="5" width="110" height="50" rx="12"/></svg>`,
  );
  writeFileSync(
    `${folder}/holes.svg`,
    `<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="40mm" viewBox="0 0 40 40">
      <circle cx="10" cy="10" r="2"/><circle cx="30" cy="10" r="2"/><circle cx="30" cy="30" r="2"/></svg>`,
  );
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const run = (line: string) => cutToFiles(readCutOptions(line.replaceAll('@', `${folder}/`).split(/\s+/)));
const program = (name: string) => readProgram(readFileSync(`${folder}/${name}`, 'utf8'));

describe('./kerbe cut', () => {
  test('a pocket is written, and read back it is as long and as deep as was said', async () => {
    const report = await run('pocket @plate.svg --bit end:6 --depth 4 --depth-per-pass 2 --out @a.nc');
    const read = measurePath(program('a.nc').path);
    expect(report.deepest).toBe(4);
    expect(read.lowest).toBe(-4);
    expect(Math.abs(read.cut - report.cut_mm) / report.cut_mm).toBeLessThan(0.002);
    expect(report.compute_ms).toBeGreaterThan(0);
    expect(report.moves).toBeGreaterThan(50);
  });
  test('true arcs stay within 5 µm of the lines they stand for, in fewer than a third as many lines', async () => {
    await run('profile @plate.svg --bit end:6 --depth 5 --out @arcs.nc');
    await run('profile @plate.svg --bit end:6 --depth 5 --no-arcs --out @lines.nc');
    const [arcs, lines] = ['arcs.nc', 'lines.nc'].map((name) => readFileSync(`${folder}/${name}`, 'utf8'));
    expect(arcs).toMatch(/G[23] .*I.*J/);
    expect(lines).not.toMatch(/G[23] /);
    expect(arcs.split('\n').length - 20).toBeLessThan((lines.split('\n').length - 20) / 3);
    const [curved, straight] = [program('arcs.nc').path, program('lines.nc').path];
    // Every point of the arcs, chords of 2 µm, against every straight move at the same depth.
    for (let i = 0; i < curved.feed.length; i++) {
      if (curved.xyz[3 * i + 2] > -0.01) continue;
      const [x, y] = [curved.xyz[3 * i], curved.xyz[3 * i + 1]];
      let nearest = Infinity;
      for (let k = 1; k < straight.feed.length; k++) {
        const [ax, ay, bx, by] = [3 * k - 3, 3 * k - 2, 3 * k, 3 * k + 1].map((n) => straight.xyz[n]);
        const l2 = (bx - ax) ** 2 + (by - ay) ** 2;
        const t = l2 > 0 ? Math.min(1, Math.max(0, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / l2)) : 0;
        nearest = Math.min(nearest, Math.hypot(x - ax - t * (bx - ax), y - ay - t * (by - ay)));
      }
      // Half a thousandth each way is lost to three decimals.
      expect(nearest).toBeLessThan(0.005 + 0.0015);
    }
  });
  test('holes are drilled at the centres, pecked and nearest next', async () => {
    const report = await run('drill @holes.svg --bit drill:3 --depth 6 --peck 2.5 --zero centre --out @d.nc');
    expect(report.deepest).toBe(6);
    const { path } = program('d.nc');
    const bottoms = new Set<string>();
    for (let i = 0; i < path.feed.length; i++)
      if (path.xyz[3 * i + 2] === -6) bottoms.add(`${path.xyz[3 * i]},${path.xyz[3 * i + 1]}`);
    // y is up: what the drawing shows above its middle is positive.
    expect([...bottoms].sort()).toEqual(['-10,10', '10,-10', '10,10']);
  });
  test('an inlay writes its two halves', async () => {
    const report = await run('inlay @plate.svg --bit end:3 --depth 3 --allowance 0.06 --out @in.nc');
    expect(report.files.map((file) => file.split('/').at(-1))).toEqual(['in-recess.nc', 'in-part.nc']);
    expect(report.remarks.join(' ')).toMatch(/gap between part and recess is 0\.06 mm to 0\.06 mm/);
    const width = (name: string) => {
      const { xyz } = program(name).path;
      const xs = Array.from(xyz.filter((_, i) => i % 3 === 0 && xyz[i + 2] < 0));
      return Math.max(...xs) - Math.min(...xs);
    };
    // The bit runs 1.5 mm inside the recess and outside the part, which is 0.06 mm smaller a side.
    expect(width('in-recess.nc')).toBeCloseTo(110 - 3, 2);
    expect(width('in-part.nc')).toBeCloseTo(110 - 0.12 + 3, 2);
  });
  test('several bits clear in turn, and the V-bit keeps to walls and corners', async () => {
    const alone = await run('v-carve @plate.svg --bit v60:12.7 --max-depth 3 --step 0.5 --out @v.nc');
    const cleared = await run(
      'v-carve @plate.svg --bit v60:12.7 --max-depth 3 --step 0.5 --clear-bit end:6 --clear-bit end:3 --out @w.nc',
    );
    expect(program('w.nc').bits.map(({ number }) => number)).toEqual([2, 1]);
    // Handbook §6: a floor cleared by a flat bit first takes far less time than by the V-bit's fine step.
    expect(cleared.seconds).toBeLessThan(alone.seconds / 2);
    expect(cleared.deepest).toBe(3);
  });
  test('trade figures come out in the same direction (common practice, handbook §6)', async () => {
    writeFileSync(
      `${folder}/letters.svg`,
      `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="60mm" viewBox="0 0 200 60">${Array.from(
        { length: 12 },
        (_, k) =>
          `<path d="M${5 + 16 * k} 40V10H${9 + 16 * k}L${13 + 16 * k} 30V10H${16 + 16 * k}V40H${12 + 16 * k}L${8 + 16 * k} 20V40Z"/>`,
      ).join('')}</svg>`,
    );
    const seconds = async (more: string) =>
      (await run(`v-carve @letters.svg --bit v60:12.7 --feed 1524 --plunge 1524 ${more} --out @t.nc`)).seconds;
    const usual = await seconds('');
    // Plunge 15 in/min instead of 60: 125 s instead of 91.
    const slow = (await run('v-carve @letters.svg --bit v60:12.7 --feed 1524 --plunge 381 --out @t.nc')).seconds;
    expect(slow / usual).toBeGreaterThan(1.1);
    expect(slow / usual).toBeLessThan(2);
    // Floor step of 2 % of the bit against 10 %: 240 s against 45.
    const fine = await seconds('--max-depth 0.8 --step 0.254');
    const coarse = await seconds('--max-depth 0.8 --step 1.27');
    expect(fine).toBeGreaterThan(coarse);
    // 2 in of lift cost far more than 1/4 in.
    expect(await seconds('--lift 2in')).toBeGreaterThan((await seconds('--lift 1/4in')) + 12);
  });
});

describe('bad use gets one sentence', () => {
  test.each([
    ['v-carve @plate.svg --bit v60:12.7', /--out FILE/],
    ['polish @plate.svg --bit v60:12.7 --out @x.nc', /There is no cut “polish”/],
    ['v-carve @none.svg --bit v60:12.7 --out @x.nc', /There is no file/],
    ['v-carve @plate.svg --bit v:12.7 --out @x.nc', /is no bit/],
    ['v-carve @plate.svg --bit end:3 --out @x.nc', /needs a V-bit/],
    ['pocket @plate.svg --bit end:3 --depth 4 --step 0 --out @x.nc', /--step is 0/],
    ['pocket @plate.svg --bit end:3 --depth 4 --step 150% --out @x.nc', /wider than the bit/],
    ['pocket @plate.svg --bit end:80 --depth 4 --out @x.nc', /wider than every place/],
    ['pocket @plate.svg --bit end:3 --out @x.nc', /Say how deep/],
    ['pocket @plate.svg --bit end:3 --depth 4 --ramp 60deg --out @x.nc', /steeper than an end mill/],
    ['pocket @plate.svg --bit end:3 --depth 4 --feed 0 --out @x.nc', /--feed is 0/],
    ['pocket @plate.svg --bit end:3 --depth 90 --thickness 12 --out @x.nc', /right through the spoilboard/],
    ['profile @plate.svg --bit end:60 --side inside --depth 4 --out @x.nc', /wider than the outline/],
    ['v-carve @plate.svg --bit v30:6:5.9 --max-depth 12..5 --out @x.nc', /two decimal points/],
    ['drill @plate.svg --bit drill:3 --depth 4 --out @x.nc', /circle or a point/],
    ['inlay @plate.svg --bit end:60 --depth 4 --out @x.nc', /wider than every place of this inlay/],
  ])('%s', async (line, sentence) => {
    await expect((async () => run(line))()).rejects.toThrow(sentence);
  });
  test('the command itself answers with exit code 2', () => {
    const { status, stderr } = spawnSync(
      './kerbe',
      ['cut', 'pocket', 'nowhere.svg', '--bit', 'end:3', '--depth', '4', '--out', '/tmp/x.nc'],
      {
        encoding: 'utf8',
      },
    );
    expect(status).toBe(2);
    expect(stderr.trim()).toMatch(/There is no file nowhere\.svg\.$/);
  });
});
