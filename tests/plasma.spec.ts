import type { Page } from '@playwright/test';
import { atRest, computed, expect, goTo, startRun, test } from './kerbe.ts';
import { layTheSheet, tickAll } from './plasma-steps.ts';
import { carveMeanwhile, noteInLog, writePrograms } from './story-steps.ts';

// Steel: stencil letters in garden markers and a comet weathervane, from artwork to parts, with an arc that is lost on the way.

const address = (page: Page, path: string) => new URL(path, page.url()).href;

test('garden markers in stencil letters, an arc lost on the way, and taken up in the scrap beside it', async ({
  shop,
}) => {
  await shop.getByRole('link', { name: /Garden markers/ }).click();
  await computed(shop);

  // Bits: the nozzle's chart, and one that is none.
  await goTo(shop, 'Bits');
  await expect(shop.getByText('The values that ship are made up; the torch’s manual rules.')).toBeVisible();
  await shop
    .getByRole('button', { name: /Nozzle 30 A fine/ })
    .first()
    .click();
  const chart = shop.getByLabel('Bring in a chart as CSV');
  await chart.setInputFiles({ name: 'chart.csv', mimeType: 'text/csv', buffer: Buffer.from('material,kerf\nsteel,1') });
  await expect(shop.getByText('No column is called “thickness”; name it in the heading.')).toBeVisible();

  // Cuts: without its bars the letters' middles would drop out; the remark ties them again.
  await goTo(shop, 'Cuts');
  const markers = shop.locator('[data-cut=markers]');
  await expect(markers.locator('.facts')).toContainText('pierces');
  await expect(markers.locator('.facts')).toContainText('kerf taken off here');
  await markers.getByText('More about how it is cut').click();
  const bridges = markers.getByLabel('bridges', { exact: true });
  await bridges.fill('0');
  await bridges.press('Enter');
  await expect(shop.getByText(/islands would drop out, as the middle of an O does/)).toBeVisible();
  await shop.getByRole('button', { name: /Tie them by bars of/ }).click();
  await expect(shop.getByText(/would drop out/)).toHaveCount(0);
  await computed(shop);

  const [program] = await writePrograms(shop, ['garden-markers-1-nozzle-30-a-fine.nc']);
  expect(program).toContain('G38.2');
  expect(program).toContain('kerf 1 mm taken off here');

  await layTheSheet(shop, 'Nozzle 30 A fine');
  await shop.getByRole('checkbox').nth(0).waitFor();
  await tickAll(shop);
  await shop.getByRole('button', { name: 'Go round with the pointer' }).click();
  await expect(shop.locator('html[data-bench-busy]')).toHaveCount(1);
  await atRest(shop);
  await tickAll(shop);

  await goTo(shop, 'Run');
  await expect(shop.getByRole('region', { name: 'Checks of this program' })).toContainText('turned by');
  await shop.getByRole('button', { name: 'Start the run' }).click();
  // Slowly, so that the arc is seen to burn, however seldom this test is given a turn.
  await expect(shop.locator('html[data-bench-busy]')).toHaveCount(1);
  const own = await shop.evaluate(() => sessionStorage.getItem('kerbe-page')!);
  await shop.request.post(address(shop, '/api/benches/iron-yard/command'), {
    headers: { 'x-kerbe-page': own },
    data: { command: 'feed', percent: 10 },
  });
  // The air fails once the arc has burnt a while; tried again where a cut ended by itself in between.
  const bench = address(shop, '/api/benches/iron-yard/stand-in');
  const lost = shop.getByText(/The arc is out and the torch comes up/);
  let burning = 0;
  await expect
    .poll(
      async () => {
        const { arc } = (await (await shop.request.get(bench)).json()) as { arc: string };
        burning = arc === 'on' ? burning + 1 : 0;
        if (burning > 2) await shop.request.post(bench, { data: { hand: 'blow' } });
        return lost.isVisible();
      },
      { intervals: [10] },
    )
    .toBe(true);
  await expect(shop.getByRole('button', { name: /^Go on/ })).toBeDisabled();
  await shop.getByRole('button', { name: 'Stop', exact: true }).click();
  await atRest(shop);
  await expect(shop.getByRole('heading', { name: 'Take the broken run up again' })).toBeVisible();

  // Gone round again with the pointer: what broke off is offered all the same.
  await goTo(shop, 'Set-up');
  await tickAll(shop);
  await shop.getByRole('button', { name: 'Go round with the pointer' }).click();
  await expect(shop.locator('html[data-bench-busy]')).toHaveCount(1);
  await atRest(shop);
  await tickAll(shop);
  await goTo(shop, 'Run');
  await expect(shop.getByText('Gone round. Nothing was on, and nothing was cut.')).toBeVisible();
  // Where it was lost is a matter of chance: one place of 250 has no room beside it.
  const goesOn = shop.getByText(/It goes on at .* from zero/);
  const refused = shop.getByRole('alert').filter({ hasText: /no room in the scrap|may have come free/ });
  for (const by of ['beside', 'next']) {
    await shop.getByLabel('where the run is taken up').selectOption(by);
    await shop.getByRole('button', { name: 'Make and check what is left' }).click();
    await expect(goesOn.or(refused)).toBeVisible();
    if (await goesOn.isVisible()) break;
  }
  await expect(goesOn).toBeVisible();
  // The mark lies where the numbers say, on the sheet as it is drawn: turned back about zero, its lower left corner.
  const [, x, y] = /at ([\d.]+) mm and ([\d.]+) mm from zero/.exec(await goesOn.innerText())!.map(Number);
  const turned = await shop.getByText(/The program is turned by/).innerText();
  const turn = (Number(/by (-?[\d.]+)°/.exec(turned)![1]) * Math.PI) / 180;
  const mark = shop.locator('svg[data-frame] g').filter({ hasText: 'goes on here' });
  const [left, top] = /translate\(([\d.]+) ([\d.]+)\)/.exec((await mark.getAttribute('transform'))!)!.slice(1).map(Number); // prettier-ignore
  const [k, x0, y0] = (await shop.locator('svg[data-frame]').getAttribute('data-frame'))!.split(' ').map(Number);
  expect(Math.abs(turn)).toBeGreaterThan(0.002);
  expect((left - x0) / k).toBeCloseTo(x * Math.cos(turn) + y * Math.sin(turn), 0);
  expect((y0 - top) / k).toBeCloseTo(y * Math.cos(turn) - x * Math.sin(turn), 0);
  const whole = (await shop.getByLabel('where the run is taken up').inputValue()) === 'beside';
  if (process.env.KERBE_PICTURES) {
    const heading = shop.getByRole('heading', { name: 'Take the broken run up again' });
    await heading.evaluate((it) => it.scrollIntoView());
    await shop.waitForTimeout(300);
    await shop.screenshot({ path: 'docs/screenshots/run-taken-up.png' });
  }
  await shop.getByLabel(/I have looked at the work/).check();
  await shop.getByRole('button', { name: 'Take it up', exact: true }).click();
  await expect(shop.getByText(/Done\. It took/)).toBeVisible();
  const look = (await (await shop.request.get(address(shop, '/api/benches/iron-yard/stand-in'))).json()) as {
    damage: Record<string, number>;
    pieces: { minX: number; maxX: number }[];
  };
  expect(look.damage).toEqual({ nozzleTouched: 0, piercedLow: 0, cutInAir: 0, ranIntoTipped: 0, kerfTwice: 0 });
  // Three plates of 120 by 120 mm among what came free, or all but the one that was skipped.
  const plates = look.pieces.filter(({ minX, maxX }) => Math.abs(maxX - minX - 120) < 2);
  if (whole) expect(plates).toHaveLength(3);
  else expect(plates.length).toBeGreaterThanOrEqual(2);
  await noteInLog(shop, ['Nozzle 30 A fine'], 'Clean; the seam does not show.');
  // The log counts what cut, and says of each how its program was made.
  const runs = shop.locator('article');
  await expect(runs).toHaveCount(4);
  await expect(shop.locator('.card-head')).toContainText('2 runs');
  await expect(runs.nth(0)).toContainText('takes up after line');
  await expect(runs.nth(1)).toContainText('dry run, finished');
  await expect(runs.nth(2)).toContainText('is turned by');
});

test('a comet weathervane, while a board is carved on the router', async ({ shop, context }) => {
  const jobs = shop.url();
  await shop.getByRole('link', { name: /Comet weathervane/ }).click();
  await computed(shop);
  await writePrograms(shop, ['comet-weathervane-1-nozzle-45-a.nc']);
  await layTheSheet(shop, 'Nozzle 45 A');
  await tickAll(shop);

  const other = await carveMeanwhile(context, jobs);
  await startRun(shop);
  await expect(shop.getByText(/Done\. It took/)).toBeVisible();
  // The router, started before, went on all the while: to where it asks for its next bit.
  await expect(other.getByRole('heading', { name: /^Bit change: / })).toBeVisible();
  await goTo(shop, 'Set-up');
  const look = await (await shop.request.get(address(shop, '/api/benches/iron-yard/stand-in'))).json();
  expect(look.damage).toEqual({ cutInAir: 0, nozzleTouched: 0, piercedLow: 0, ranIntoTipped: 0, kerfTwice: 0 });
  await noteInLog(shop, ['Nozzle 45 A'], 'Hung in the wind.');
  // The board is given up there, as someone at it would.
  await other.getByRole('button', { name: 'Stop', exact: true }).click();
  await atRest(other);
});
