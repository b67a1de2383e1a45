import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { fileURLToPath } from 'node:url';
import { encode } from 'fast-png';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { letterPage } from '../command/src/bench-page.ts';
import { cutToFiles } from '../command/src/cut.ts';
import { readCutOptions } from '../command/src/cut-options.ts';
import { engagementOf } from '../core/src/carving/engagement.ts';
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
  // Two walls of the scribble meet in a point in which both have a corner.
  test.each([
    'v-carve --bit v15:6',
    'v-carve --bit v60:12.7',
    'v-carve --bit v90:12.7',
    'pocket --bit end:0.8 --depth 1',
    'profile --bit end:0.8 --depth 1 --side inside',
  ])('a scribble in a skewed group: %s', async (words) => {
    const [kind, ...options] = words.split(' ');
    const art = fileURLToPath(new URL('drawings/scribble-in-a-skewed-group.svg', import.meta.url));
    expect((await run(`${kind} ${art} ${options.join(' ')} --out @scribble.nc`)).moves).toBeGreaterThan(100);
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
  test('a drill that waits at the bottom of its holes: in the program and in its time', async () => {
    const order = 'drill @holes.svg --bit drill:3 --depth 6';
    const plain = await run(`${order} --out @d.nc`);
    const waiting = await run(`${order} --dwell 0.5 --out @w.nc`);
    // To stand still takes a little more than to turn back.
    expect(waiting.seconds - plain.seconds).toBeGreaterThan(3 * 0.5);
    expect(waiting.seconds - plain.seconds).toBeLessThan(3 * 0.55);
    expect(program('w.nc').dwell - program('d.nc').dwell).toBeCloseTo(3 * 0.5, 9);
  });
  test('an inlay writes its two halves', async () => {
    const report = await run('inlay @plate.svg --bit end:3 --depth 3 --allowance 0.06 --out @in.nc');
    expect(report.files.map((file) => file.split('/').at(-1))).toEqual(['in-recess.nc', 'in-part.nc']);
    expect(report.remarks.join(' ')).toMatch(/fit with gap 0\.06 mm a side/);
    const width = (name: string) => {
      const { xyz } = program(name).path;
      const xs = Array.from(xyz.filter((_, i) => i % 3 === 0 && xyz[i + 2] < 0));
      return Math.max(...xs) - Math.min(...xs);
    };
    // The bit runs 1.5 mm inside the recess and outside the part; each half has half of the gap of 0.06 mm a side.
    expect(width('in-recess.nc')).toBeCloseTo(110 + 0.06 - 3, 2);
    expect(width('in-part.nc')).toBeCloseTo(110 - 0.06 + 3, 2);
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
  test('trade figures come out in the same direction and roughly the same size (common practice, handbook §6)', async () => {
    // Serif lettering an inch high, as signs of that kind have.
    writeFileSync(`${folder}/words.svg`, letterPage(12, { face: 'rokkitt', cap: 25.4 }));
    writeFileSync(`${folder}/big.svg`, letterPage(4, { face: 'rokkitt', cap: 70 }));
    const seconds = async (art: string, more: string) =>
      (await run(`v-carve @${art}.svg --bit v60:12.7 --feed 1524 ${more} --out @t.nc`)).seconds;
    const usual = await seconds('words', '--plunge 1524');
    // Plunge 15 in/min instead of 60: 125 s instead of 91, 1.37 times as long.
    const slow = (await seconds('words', '--plunge 381')) / usual;
    expect(slow).toBeGreaterThan(1.37 / 1.2);
    expect(slow).toBeLessThan(1.37 * 1.2);
    // Floor step of 2 % of the bit against 10 %: 240 s against 45, 5.3 times as long where there is much floor.
    const fine = await seconds('big', '--plunge 1524 --max-depth 1 --step 2%');
    const coarse = await seconds('big', '--plunge 1524 --max-depth 1 --step 10%');
    expect(fine / coarse).toBeGreaterThan(5.3 / 2);
    expect(fine / coarse).toBeLessThan(5.3 * 1.2);
    // 2 in of lift cost far more than 1/4 in.
    const high = await seconds('words', '--plunge 1524 --lift 2in');
    expect(high / (await seconds('words', '--plunge 1524 --lift 1/4in'))).toBeGreaterThan(1.2);
  });
  test('refitted outlines take fewer lines and less time, and stay where they were', async () => {
    const points = Array.from({ length: 1500 }, (_, i) => {
      const a = (2 * Math.PI * i) / 1500;
      const r = 22 + 4 * Math.cos(3 * a) + 0.02 * Math.sin(i * 12.9898);
      return `${(60 + r * Math.cos(a)).toFixed(4)} ${(30 + r * Math.sin(a)).toFixed(4)}`;
    });
    writeFileSync(
      `${folder}/traced.svg`,
      `<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="60mm" viewBox="0 0 120 60"><path d="M${points.join('L')}z"/></svg>`,
    );
    const cut = 'v-carve @traced.svg --bit v60:12.7 --max-depth 4 --feed 3000 --plunge 1500';
    const drawn = await run(`${cut} --out @drawn.nc`);
    const refit = await run(`${cut} --refit 0.05 --out @refit.nc`);
    const lines = (name: string) => readFileSync(`${folder}/${name}`, 'utf8').split('\n').length;
    expect(lines('refit.nc')).toBeLessThan(0.6 * lines('drawn.nc'));
    expect(refit.seconds).toBeLessThan(0.7 * drawn.seconds);
    expect(refit.deepest).toBe(drawn.deepest);
  });
  test('a pocket may be let cut slots', async () => {
    const pocket = 'pocket @slot.svg --bit end:6 --depth 3 --depth-per-pass 3 --step 40%';
    writeFileSync(
      `${folder}/slot.svg`,
      '<svg xmlns="http://www.w3.org/2000/svg" width="110mm" height="30mm" viewBox="0 0 110 30"><rect x="5" y="5" width="100" height="20"/></svg>',
    );
    const opened = await run(`${pocket} --out @o.nc`);
    const slots = await run(`${pocket} --slots --out @s.nc`);
    expect(engagementOf(program('o.nc').path, 3, -3).slots).toBe(0);
    expect(engagementOf(program('s.nc').path, 3, -3).slots).toBeGreaterThan(60);
    expect(slots.seconds).toBeLessThan(opened.seconds);
    expect(opened.seconds).toBeLessThan(2 * slots.seconds);
  });
});

describe('bad use gets one sentence', () => {
  test.each([
    ['v-carve @plate.svg --bit v60:12.7', /--out FILE/],
    ['polish @plate.svg --bit v60:12.7 --out @x.nc', /There is no cut “polish”/],
    ['v-carve @none.svg --bit v60:12.7 --out @x.nc', /There is no file/],
    ['v-carve @plate.svg --bit v:12.7 --out @x.nc', /is no bit/],
    ['v-carve @plate.svg --bit end:3 --out @x.nc', /V-carve cannot be made with an end mill; choose a V-bit/],
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
    ['profile @plate.svg --bit end:3 --depth 4 --refit -1 --out @x.nc', /--refit/],
    ['profile @plate.svg --bit end:3 --depth 4 --tab 6 --tabs 2 --out @x.nc', /is no tab/],
    ['profile @plate.svg --bit end:3 --depth 4 --lead hook:3 --out @x.nc', /is no lead/],
    ['profile @plate.svg --bit end:3 --depth 4 --side left --out @x.nc', /one of outside, inside, on/],
    ['pocket @plate.svg --bit end:3 --depth 4 --clear-bit v60:12 --out @x.nc', /end mills only/],
    ['pocket @plate.svg --bit end:3 --depth 4 --clear-bit end:6 --clear-bit end:8 --out @x.nc', /largest --clear-bit/],
    ['pocket @plate.svg --bit end:3 --depth 4 --depth-per-pass 0 --out @x.nc', /--depth-per-pass is 0/],
    ['pocket @plate.svg --bit end:3 --depth 4 --plunge 0 --out @x.nc', /--plunge is 0/],
    ['v-carve @plate.svg --bit v30:6:9 --out @x.nc', /is no bit/],
    ['v-carve @plate.svg @holes.svg --bit v60:12.7 --out @x.nc', /One drawing is needed/],
    ['v-carve @plate.svg --bit v60:12.7 --polish --out @x.nc', /^There is no option --polish\. Use: /],
    ['pocket @plate.svg --bit end:3 --depth 4 -x --out @x.nc', /^There is no option -x\. Use: /],
    ['pocket @plate.svg --bit end:3 --depth 4 --out', /^--out needs a value behind it\. Use: /],
    ['pocket @plate.svg --bit end:3 --depth 4 --slots=3 --out @x.nc', /^--slots takes no value\. Use: /],
    ['inlay @plate.svg --bit end:60 --depth 4 --out @x.nc', /wider than every place of this inlay/],
    ['v-carve @plate.svg --bit v60:12.7 --depth 6 --out @x.nc', /--depth is no option of v-carve, only of pocket/],
    ['v-carve @plate.svg --bit v60:12.7 --last-pass 1 --out @x.nc', /--last-pass is no option of v-carve/],
    ['drill @holes.svg --bit drill:3 --depth 6 --slots --out @x.nc', /--slots is no option of drill, only of pocket/],
    ['inlay @plate.svg --bit end:3 --depth 4 --clear-bit end:6 --out @x.nc', /--clear-bit is no option of inlay/],
    ['pocket @plate.svg --bit end:3 --depth 4 --depth-per-pass 1 --last-pass 2 --out @x.nc', /thicker than a pass/],
    ['pocket @plate.svg --bit end:3 --depth 4 --out @nowhere/x.nc', /cannot be written: its folder does not exist/],
    ['pocket @ --bit end:3 --depth 4 --out @x.nc', /cannot be read: it is a folder/],
  ])('%s', async (line, sentence) => {
    await expect((async () => run(line))()).rejects.toThrow(sentence);
  });
  test('a value below 0 is a value: an inlay that is pressed in', async () => {
    const { remarks } = await run('inlay @plate.svg --bit end:3 --depth 4 --allowance -0.05 --out @p.nc');
    expect(remarks.join(' ')).toMatch(/fit with press 0\.05 mm a side/);
  });
  test('a bit that clears first says its own step and passes', async () => {
    writeFileSync(
      `${folder}/square.svg`,
      '<svg width="40mm" height="40mm" viewBox="0 0 40 40"><rect x="5" y="5" width="30" height="30"/></svg>',
    );
    await run(
      'pocket @square.svg --bit end:3 --depth 4 --step 1.2mm --depth-per-pass 1 --clear-bit end:10 --out @c.nc',
    );
    const text = readFileSync(`${folder}/c.nc`, 'utf8');
    expect(text).toMatch(/\(clear for pocket: end:10, .* at 4 mm, 1 mm a pass/);
    expect(text).toMatch(/\(pocket: end:3, .* rings at 1.2 mm, 1 mm a pass/);
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

// docs/command-line.md is read, and each of its options is run with the kinds that it is for and with the others.
describe('every option that the page of the command line lists', () => {
  const LASER = ['laser-cut', 'laser-score', 'laser-fill', 'laser-picture'];
  const KINDS = ['v-carve', 'pocket', 'profile', 'line', 'drag', 'drill', 'inlay', 'plasma', ...LASER];
  /** What each kind cannot do without. */
  const BASE: Record<string, string> = {
    'v-carve': '--bit v60:12.7',
    drill: '--bit drill:3 --depth 3',
    drag: '--bit drag:0.3 --pressed 2',
    plasma: '--kerf 1.5 --pierce-height 3.8 --pierce-delay 0.8 --cut-height 1.5 --feed 2000 --thickness 3',
    ...Object.fromEntries(LASER.map((kind) => [kind, '--beam 0.2 --power 80% --feed 600'])),
  };
  const rows = [
    ...readFileSync(new URL('../docs/command-line.md', import.meta.url), 'utf8').matchAll(
      /^\| (`--.*?) +\| ([^|]+?) +\| /gm,
    ),
  ].flatMap(([, first, kinds]) => {
    const named = (text: string) => text.split(', ').flatMap((kind) => (kind === 'laser' ? LASER : [kind]));
    const others = kinds.startsWith('all but ') ? named(kinds.slice(8)) : [];
    const own = kinds === 'all' ? KINDS : others.length ? KINDS.filter((k) => !others.includes(k)) : named(kinds);
    return [...first.replace(/\\\|/g, '|').matchAll(/--[^`]+/g)]
      .flatMap(([text]) => text.trim().split(/ (?=--)/))
      .map((text) => {
        const [name, value] = text.trim().split(' ');
        // A row without figures says units; of choices the last is tried.
        const usual: Record<string, string> = { '--feed': '900', '--plunge': '300', '--speed': '12000', '--lift': '6' };
        return { name, value: value?.split('|').at(-1) ?? usual[name], own };
      });
  });
  test('is known to this test', () => expect(rows.length).toBeGreaterThan(24));
  const holes = '<svg width="40mm" height="40mm" viewBox="0 0 40 40"><circle cx="20" cy="20" r="1.5"/></svg>';
  const plate = '<svg width="60mm" height="60mm" viewBox="0 0 60 60"><rect x="5" y="5" width="50" height="50"/></svg>';
  test.each(KINDS)('%s', async (kind) => {
    writeFileSync(`${folder}/all.svg`, kind === 'drill' ? holes : plate);
    writeFileSync(
      `${folder}/all.png`,
      encode({ width: 20, height: 10, channels: 1, data: Uint8Array.from({ length: 200 }, (_, k) => k) }),
    );
    const art = kind === 'laser-picture' ? '@all.png' : '@all.svg';
    for (const { name, value, own } of rows) {
      const words = [name, value].filter(Boolean).join(' ');
      // Of two rows for one option each is for its own kinds.
      const twice = rows.filter((row) => row.name === name).length > 1;
      if (twice && !own.includes(kind)) continue;
      const base = (BASE[kind] ?? '--bit end:3.175 --depth 3')
        .split(/ (?=--)/)
        .filter((option) => option.split(' ')[0] !== name)
        .join(' ');
      const passes =
        name === '--last-pass' && !['v-carve', 'drag', 'plasma', ...LASER].includes(kind) ? '--depth-per-pass 1' : '';
      const pattern = name === '--angle' && kind === 'pocket' ? '--pattern lines' : '';
      const more = own.includes(kind) ? [pattern, name === '--tab' ? '--tabs 2' : ''].join(' ') : '';
      const line = `${kind} ${art} ${base} ${passes} ${more} ${words} --out @all.nc`;
      if (own.includes(kind)) expect((await run(line)).moves, line).toBeGreaterThan(1);
      else await expect((async () => run(line))(), line).rejects.toThrow(/^\S.*[.;].*$/s);
    }
  });
});
