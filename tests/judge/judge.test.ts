import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { fileURLToPath } from 'node:url';
import { describe, expect, test } from 'vitest';
import { readCutOptions } from '../../command/src/cut-options.ts';
import { cutToFiles } from '../../command/src/cut.ts';
import type { Cut } from '../../core/src/cuts/kinds.ts';
import { drawingOf } from './drawings.ts';
import { judge } from './judge.ts';
import { movesOf } from './moves.ts';
import { judged } from './round.ts';
import { askedFor } from './settings.ts';

// Everything here is by brute force and with the stand-in's reader; nothing is asked of the engine but a program.
// `KERBE_JUDGE=pocket:404` judges one again, `KERBE_KINDS=drag,line` some kinds only; `./kerbe soak --judge` judges as many as there is time for.
const [ONE, SEED] = (process.env.KERBE_JUDGE ?? '').split(':');
const COUNT = Number(process.env.KERBE_JUDGED ?? 15);
const FIRST = Number(process.env.KERBE_SEED ?? 1);
const ALL = [
  'pocket',
  'profile',
  'v-carve',
  'drill',
  'inlay',
  'line',
  'drag',
  'plasma',
  'laser-cut',
  'laser-score',
  'laser-fill',
] as const satisfies Cut['kind'][];
const KINDS = (process.env.KERBE_KINDS?.split(',') as Cut['kind'][] | undefined) ?? ALL;

test.skipIf(ONE)('every kind of cut, drawings and settings by chance', { timeout: 3_600_000 }, async () => {
  for (const kind of KINDS) {
    let [cut, refused] = [0, 0];
    const found: string[] = [];
    for (let seed = FIRST; seed < FIRST + COUNT; seed++) {
      const { findings, command, asked, drawn, refused: why } = await judged(kind, seed);
      if (why) refused++;
      else cut++;
      for (const finding of findings) found.push(`${drawn.kind}, ${asked.options}: ${finding}\n  again: ${command}`);
    }
    console.log(`${kind}: ${cut} judged and ${refused} refused, seeds ${FIRST} to ${FIRST + COUNT - 1}`);
    expect(found.join('\n')).toBe('');
    expect(cut).toBeGreaterThan(COUNT / 3);
  }
});

test.runIf(ONE)(
  'the one that was asked for',
  async () => {
    const { findings, asked, refused } = await judged(ONE as Cut['kind'], Number(SEED));
    console.log(asked.options, refused ?? '');
    expect(findings.join('\n')).toBe('');
  },
  600_000,
);

/** Each went wrong once: a crash, a gouge, a notched tab, full depth at once, or wood left standing. */
const HARD = `pocket rings-a-bit-apart --bit end:6 --depth 3.785 --step 6mm
pocket letters-opened --bit end:1.54 --depth 3.611 --depth-per-pass 2.365 --step 1mm --ramp 11.6deg
pocket letters-with-a-finish --bit end:3.175 --depth 6 --depth-per-pass 2.469 --conventional --step 3.124mm --ramp 13.7deg --finish 0.21 --slots
pocket letter-of-crescents --bit end:2 --depth 2.511 --depth-per-pass 0.517 --step 1.582mm --ramp 7.7deg --finish 0.33
pocket short-spines --bit end:2 --depth 3 --step 2mm --ramp 2deg
profile plate-with-tabs --bit end:6 --depth 12 --depth-per-pass 3 --ramp 30deg --tabs 4 --tab 6x1.5
pocket star-with-a-finish --bit end:3.175 --depth 4.03 --depth-per-pass 1.16 --step 1.27mm --pattern lines --angle 137deg --finish 0.15 --ramp 2deg --slots
profile hole-at-its-wall --bit end:1 --depth 12.959 --depth-per-pass 2.944 --side on --tabs 4 --tab 3.7x1.01
profile slit-with-tabs --bit end:4 --depth 3.886 --depth-per-pass 1.174 --side inside --ramp 10.7deg --tabs 4 --tab 2.5x2.92 --finish 0.473
profile narrow-cross --bit end:3.175 --side inside --depth 6.48 --depth-per-pass 3.45 --skin 0.21 --finish 0.26
pocket wide-with-a-finish --bit end:2 --depth 1.083 --depth-per-pass 0.27 --step 0.8mm --finish 0.35 --ramp 0deg --clear-bit end:4
pocket cross-by-three-bits --bit end:6 --depth 4.826 --depth-per-pass 2.511 --step 5.7mm --slots --ramp 20deg --clear-bit end:12 --clear-bit end:7.8
pocket conventional-after-a-larger --bit end:6 --depth 4.322 --depth-per-pass 4.3 --step 3mm --last-pass 0.98 --conventional --ramp 2deg --clear-bit end:12
v-carve island-near-its-wall --bit v150:60 --step 0.5mm
v-carve disc-by-its-wall --bit v15:24.2 --max-depth 0.358 --step 1.224mm --depth-per-pass 2.984 --clear-bit end:3
v-carve pinched-letters --bit v20:51.59:0.46 --step 1.092mm --max-depth 2.567
v-carve pinched-letters --bit v60:12
v-carve sliver-at-a-disc --bit v15:23.39 --max-depth 3.916 --step 0.349mm
v-carve low-cone --bit v150:60
v-carve scribble-round-a-corner --bit v90:49.07 --step 0.127mm
v-carve low-cone --bit v150:3:0.5 --max-depth 1.379 --clear-bit end:3
profile letter-with-slots --bit end:4 --depth 17.002 --depth-per-pass 1.417 --last-pass 0.095 --ramp 7.3deg --finish 0.397
pocket two-letters-after-a-larger --no-arcs --bit end:1 --depth 0.882 --depth-per-pass 3.578 --step 0.967mm --ramp 3.1deg --pattern lines --angle 85deg --clear-bit end:1.3
pocket islands-by-a-hair --bit end:1.5 --depth 7.033 --depth-per-pass 3.713 --last-pass 2.118 --conventional --step 0.994mm --ramp 21deg --finish 0.349
drag bent-arm --bit drag:0.35 --pressed 1 --pattern rings --step 0.289mm --fill solid`
  .split('\n')
  .map((line) => line.split(' '));

describe.skipIf(ONE)('what went wrong once', () => {
  test.each(HARD)('%s %s', async (kind, name, ...options) => {
    const art = fileURLToPath(new URL(`../drawings/hard/${name}.svg`, import.meta.url));
    const folder = mkdtempSync(`${tmpdir()}/kerbe-judge-`);
    try {
      await cutToFiles(readCutOptions([kind, art, ...options, '--out', `${folder}/a.nc`]));
      const program = readFileSync(`${folder}/a.nc`, 'utf8');
      expect(
        judge(program, drawingOf(readFileSync(art, 'utf8')), askedFor(kind as Cut['kind'], options.join(' '))),
      ).toEqual([]);
      // A ramp there and back is no thousands of moves of a few micrometres.
      const tiny = movesOf(program, kind === 'drag').filter(
        (m) => m.feed > 0 && m.bz < m.az && Math.hypot(m.bx - m.ax, m.by - m.ay) < 0.004,
      );
      expect(tiny.length).toBeLessThan(100);
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  });
});

describe.skipIf(ONE)('the judge sees what is wrong', () => {
  const square = drawingOf('<svg viewBox="0 0 20 20"><path d="M2 2L18 2L18 18L2 18Z"/></svg>');
  const asked = (kind: Cut['kind'], options: string) => askedFor(kind, `--bit end:4 ${options}`);
  const program = (...lines: string[]) =>
    ['G17 G21 G90 G94 G54', 'T1 M6', 'S1000 M3', 'G0 X10 Y10', 'G0 Z1', 'F1000', ...lines, 'G0 Z5', 'M30'].join('\n');
  test.each([
    ['a move beyond the outline', ['G1 Z-1', 'G1 X16.1'], /beyond the outline/],
    ['wood left', ['G1 Z-1', 'G1 X12'], /leaves .* mm²/],
    ['too deep at once', ['G1 Z-2', 'G1 X12'], /at once/],
    ['straight down where a ramp was asked for', ['G1 Z-1', 'G1 X12'], /goes down in wood at 90/],
    ['a rapid move into wood', ['G0 Z-0.5', 'G1 Z-1', 'G1 X12'], /rapid move 0.500 mm into wood/],
    ['not deep enough', ['G1 Z-0.5', 'G1 X12'], /only 0.5 mm deep/],
    ['the wall the wrong way round', ['G1 Z-1', 'X16', 'Y4', 'X4', 'Y16', 'X16', 'Y10'], /against the direction/],
  ])('%s', (_, lines, finding) => {
    expect(judge(program(...lines), square, asked('pocket', '--depth 1 --depth-per-pass 1')).join('\n')).toMatch(
      finding,
    );
  });

  /** A square burnt a kerf of 0.4 outside its line, twice. */
  const ROUND = ['G1 X18.2 F600 S500', 'Y18.2', 'X1.8', 'Y1.8'];
  const KERF = ['G0 X1.8 Y1.8', ...ROUND, ...ROUND, 'S0'];
  const SCORE = ['G0 X2 Y2', 'G1 X18 F600 S500', 'Y18', 'X2', 'Y2', 'S0'];
  const row = (y: number) => [`G0 X1 Y${y}`, 'G1 X2.2 F600', 'X17.8 S500', 'X19 S0'];
  const FILL = Array.from({ length: 16 }, (_, k) => row(2.5 + k)).flat();
  const without = (lines: string[], at: number, ...instead: string[]) => lines.toSpliced(at, 1, ...instead);
  const cut = '--beam 0.4 --power 50% --feed 600 --passes 2';
  const score = '--beam 0.4 --power 50% --feed 600';
  const fill = '--beam 0.4 --power 50% --feed 600 --lines 1 --angle 0deg --ways one';
  test.each([
    ['a kerf as it should be', 'laser-cut', cut, KERF, /^$/],
    ['a score as it should be', 'laser-score', score, SCORE, /^$/],
    ['lines as they should be', 'laser-fill', fill, FILL, /^$/],
    ['a pass too few', 'laser-cut', cut, KERF.toSpliced(5, 4), /cut 1 times at .*, 2 were asked for/],
    ['a corner cut off', 'laser-cut', cut, without(KERF, 2, 'X17.5 Y18.2'), /beyond the outline/],
    ['the beam on in a rapid move', 'laser-score', score, ['S500', ...SCORE], /rapid move with the beam on/],
    ['another power', 'laser-score', score, without(SCORE, 1, 'G1 X18 F600 S400'), /burns at 40 %/],
    ['another feed', 'laser-score', score, without(SCORE, 1, 'G1 X18 F700 S500'), /feeds 700 mm\/min/],
    ['no air', 'laser-score', score, ['M9', ...SCORE], /with the air off/],
    ['a line not followed', 'laser-score', score, without(SCORE, 3, 'X2 S0'), /burnt 0 times/],
    ['burnt beside the lines', 'laser-score', score, without(SCORE, 3, 'X2', 'X5 Y5', 'X2 Y18'), /beside the lines/],
    ['a line left out', 'laser-fill', fill, FILL.toSpliced(8, 4), /leaves .* unburnt/],
    ['a line that ends early', 'laser-fill', fill, without(FILL, 6, 'X17 S500'), /leaves .* unburnt/],
    ['lines that are not apart evenly', 'laser-fill', fill, without(FILL, 4, 'G0 X1 Y3.4'), /no whole number of steps/],
    [
      'no room to come to its feed',
      'laser-fill',
      fill,
      without(FILL, 4, 'G0 X2.19 Y3.5'),
      /mm beside it, and 0.020 are needed/,
    ],
    ['burnt past the edge', 'laser-fill', fill, without(FILL, 6, 'X17.9 S500'), /beyond the outline/],
    [
      'gone back along',
      'laser-fill',
      fill,
      FILL.toSpliced(4, 4, 'G0 X19 Y3.5', 'G1 X17.8 F600', 'X2.2 S500', 'X1 S0'),
      /gone back along/,
    ],
  ] as const)('of a beam: %s', (_, kind, options, lines, finding) => {
    const air = kind === 'laser-fill' ? 'M9' : 'M8';
    const begin = ['G17 G21 G90 G94 G54', '(c: beam:0.4, 50 % power, )', air, 'M4 S0'];
    const text = [...begin, ...lines, 'M5', 'M9', 'M30'].join('\n');
    expect(judge(text, square, askedFor(kind, options)).join('\n')).toMatch(finding);
  });

  /** Burnt with some settings, and judged as if others had been asked for. */
  const KERFS = '--kerf 1 --feed 2500 --pierce-height 3.8 --pierce-delay 0.5 --cut-height 1.5 --thickness 2';
  test.each([
    ['as it should be', '', '', (text: string) => text, /^$/],
    [
      'the square edge on the other side',
      '--side outside',
      '--square-edge left',
      (text: string) => text,
      /square edge in the scrap/,
    ],
    [
      'another kerf',
      '',
      '--kerf 1.1',
      (text: string) => text.replaceAll('1.1 mm', '1 mm'),
      /uncut|beyond|beside|does not|kerf/,
    ],
    ['cut higher', '', '', (text: string) => text.replaceAll('Z1.5', 'Z1.7'), /mm high, 1\.5 was asked for/],
    ['pierced where nothing was felt for', '', '', (text: string) => text.replace(/^G38.*$/m, ''), /not felt for/],
    ['no delay', '', '', (text: string) => text.replace(/^G4 .*$/m, ''), /waits 0 s at a pierce, 0\.5 were asked for/],
  ])('of an arc: %s', async (_, options, besides, changed, finding) => {
    const folder = mkdtempSync(`${tmpdir()}/kerbe-judge-`);
    try {
      const art = fileURLToPath(new URL('../drawings/hard/plate-with-tabs.svg', import.meta.url));
      const all = `plasma ${art} ${KERFS} ${options} ${besides} --out ${folder}/a.nc`.split(/\s+/);
      await cutToFiles(readCutOptions(all));
      const text = changed(readFileSync(`${folder}/a.nc`, 'utf8'));
      expect(judge(text, drawingOf(readFileSync(art, 'utf8')), askedFor('plasma', `${KERFS} ${options}`)).join('\n')).toMatch(finding); // prettier-ignore
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  });
});
