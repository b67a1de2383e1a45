import type { Page } from '@playwright/test';
import { atRest, computed, connectAndHome, expect, goTo, test } from './kerbe.ts';
import { noteInLog, writePrograms } from './story-steps.ts';

// Steel: stencil letters in garden markers and a comet weathervane, from artwork to parts, with an arc that is lost on the way.

const caption = (page: Page) => page.getByText('Through the window of the stand-in.').locator('..');
const byHand = (page: Page) => page.getByRole('region', { name: 'Move by hand' });

/** One step by hand, and the next when it stands and the window was looked through anew. */
async function press(page: Page, name: RegExp): Promise<void> {
  await byHand(page).getByRole('button', { name }).click();
  await page.waitForTimeout(100);
  await atRest(page);
  await page.waitForTimeout(320);
}

/** Brings the pointer's spot to a place by looking. */
async function pointAt(page: Page, what: 'the mark of zero' | 'a place far along the edge'): Promise<void> {
  const words = new RegExp(`${what} (?:is )?([\\d.]+) mm to the (right|left), ([\\d.]+) mm (back|in front)`);
  for (const step of [100, 10, 1, 0.1]) {
    await byHand(page)
      .getByRole('button', { name: String(step), exact: true })
      .click();
    for (let k = 0; k < 40; k++) {
      const found = words.exec(await caption(page).innerText())!;
      const [x, y] = [Number(found[1]), Number(found[3])];
      if (x >= 0.6 * step) await press(page, found[2] === 'right' ? /X\+/ : /X−/);
      else if (y >= 0.6 * step) await press(page, found[4] === 'back' ? /Y\+/ : /Y−/);
      else break;
    }
  }
}

async function tickAll(page: Page): Promise<void> {
  for (const box of await page.getByRole('list', { name: 'In this order' }).getByRole('checkbox').all()) {
    if (!(await box.isChecked())) await box.click();
    await expect(box).toBeChecked();
  }
}

async function setUp(page: Page, nozzle: string): Promise<void> {
  await connectAndHome(page, 'plasma table');
  await page.getByRole('button', { name: 'Lay the sheet' }).click();
  await page.getByRole('button', { name: 'Put the work clamp on' }).click();
  await page.getByRole('button', { name: `Put ${nozzle} in the stand-in` }).click();
  await page.getByRole('button', { name: `${nozzle} is in` }).click();
  await expect(page.getByText(`${nozzle} was said to be in.`)).toBeVisible();
  await pointAt(page, 'the mark of zero');
  await page.getByRole('button', { name: /The spot is on the lower left corner/ }).click();
  await expect(page.getByText(/was pointed at \d\d:\d\d/)).toBeVisible();
  await pointAt(page, 'a place far along the edge');
  await page.getByRole('button', { name: 'The spot is on the edge along X' }).click();
  await expect(page.getByText(/the sheet lies turned by -?\d/)).toBeVisible();
  // Back over metal, inside the edge.
  await byHand(page).getByRole('button', { name: '100', exact: true }).click();
  await press(page, /X−/);
  await press(page, /X−/);
  await byHand(page).getByRole('button', { name: '10', exact: true }).click();
  for (let k = 0; k < 3; k++) await press(page, /Y\+/);
  await page.getByRole('button', { name: 'Feel for the sheet' }).click();
  await expect(page.getByText(/It was felt \d\d:\d\d/)).toBeVisible({ timeout: 30_000 });
}

const address = (page: Page, path: string) => new URL(path, page.url()).href;

test('garden markers in stencil letters, an arc lost on the way, and taken up in the scrap beside it', async ({
  shop,
}) => {
  test.setTimeout(240_000);
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

  await setUp(shop, 'Nozzle 30 A fine');
  await shop.getByRole('checkbox').nth(0).waitFor();
  await tickAll(shop);
  await shop.getByRole('button', { name: 'Go round with the pointer' }).click();
  await expect(shop.locator('html[data-bench-busy]')).toHaveCount(1, { timeout: 30_000 });
  await atRest(shop);
  await tickAll(shop);

  await goTo(shop, 'Run');
  await expect(shop.getByRole('region', { name: 'Checks of this program' })).toContainText('turned by');
  await shop.getByRole('button', { name: 'Start the run' }).click();
  // The air fails as soon as the arc burns a while.
  await expect(shop.getByText(/^Arc on, \d+ V$/)).toBeVisible();
  await expect
    .poll(
      async () => {
        await shop.request.post(address(shop, '/api/benches/iron-yard/stand-in'), { data: { hand: 'blow' } });
        return shop.getByText(/The arc is out and the torch comes up/).count();
      },
      { intervals: [50] },
    )
    .toBe(1);
  await expect(shop.getByRole('button', { name: /^Go on/ })).toBeDisabled();
  await shop.getByRole('button', { name: 'Stop', exact: true }).click();
  await atRest(shop);
  await expect(shop.getByRole('heading', { name: 'Take the broken run up again' })).toBeVisible();

  // Gone round again with the pointer: what broke off is offered all the same.
  await goTo(shop, 'Set-up');
  await tickAll(shop);
  await shop.getByRole('button', { name: 'Go round with the pointer' }).click();
  await expect(shop.locator('html[data-bench-busy]')).toHaveCount(1, { timeout: 30_000 });
  await atRest(shop);
  await tickAll(shop);
  await goTo(shop, 'Run');
  await expect(shop.getByText('Gone round. Nothing was on, and nothing was cut.')).toBeVisible();
  await shop.getByRole('button', { name: 'Make and check what is left' }).click();
  await expect(shop.getByText(/the seam will be there/)).toBeVisible();
  await shop.getByLabel(/I have looked at the work/).check();
  await shop.getByRole('button', { name: 'Take it up', exact: true }).click();
  await expect(shop.getByText(/Done\. It took/)).toBeVisible({ timeout: 60_000 });
  const look = (await (await shop.request.get(address(shop, '/api/benches/iron-yard/stand-in'))).json()) as {
    damage: Record<string, number>;
    pieces: { minX: number; maxX: number }[];
  };
  expect(look.damage).toEqual({ nozzleTouched: 0, piercedLow: 0, cutInAir: 0, ranIntoTipped: 0 });
  // Three plates of 120 by 120 mm among what came free.
  expect(look.pieces.filter(({ minX, maxX }) => Math.abs(maxX - minX - 120) < 2)).toHaveLength(3);
  await noteInLog(shop, ['Nozzle 30 A fine'], 'Clean; the seam does not show.');
  // The log counts what cut, and says of each how its program was made.
  const runs = shop.locator('article');
  await expect(runs).toHaveCount(4);
  await expect(shop.locator('.card-head')).toContainText('2 runs');
  await expect(runs.nth(0)).toContainText('takes up after line');
  await expect(runs.nth(1)).toContainText('dry run, finished');
  await expect(runs.nth(2)).toContainText('is turned by');
});
