import type { Page } from '@playwright/test';
import { atRest, connectAndHome, done, expect, lend } from './kerbe.ts';

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
export async function pointAt(page: Page, what: 'the mark of zero' | 'a place far along the edge'): Promise<void> {
  const words = new RegExp(`${what} (?:is )?([\\d.]+) mm to the (right|left), ([\\d.]+) mm (back|in front)`);
  await expect(caption(page)).toContainText(what);
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

/** Ticks the list at Set-up to its end. */
export async function tickAll(page: Page): Promise<void> {
  for (const box of await page.getByRole('list', { name: 'In this order' }).getByRole('checkbox').all()) {
    if (!(await box.isChecked())) await box.click();
    await expect(box).toBeChecked();
  }
}

/** Everything at Set-up up to where the sheet was felt for: laid, clamped, pointed at in two places. */
export async function layTheSheet(page: Page, nozzle: string): Promise<void> {
  await connectAndHome(page, 'plasma table');
  await lend(page, 'Lay the sheet');
  await page.getByRole('button', { name: 'Put the work clamp on' }).click();
  await lend(page, `Put ${nozzle} in the stand-in`);
  await done(page, `${nozzle} is in`);
  await expect(page.getByText(`${nozzle} was said to be in.`)).toBeVisible();
  await pointAt(page, 'the mark of zero');
  await done(page, /The spot is on the lower left corner/);
  await expect(page.getByText(/was pointed at \d\d:\d\d/)).toBeVisible();
  await pointAt(page, 'a place far along the edge');
  await done(page, 'The spot is on the edge along X');
  await expect(page.getByRole('status').filter({ hasText: /turned by -?\d/ })).toBeVisible();
  // Back over metal, inside the edge.
  await byHand(page).getByRole('button', { name: '100', exact: true }).click();
  await press(page, /X−/);
  await press(page, /X−/);
  await byHand(page).getByRole('button', { name: '10', exact: true }).click();
  for (let k = 0; k < 3; k++) await press(page, /Y\+/);
  await done(page, 'Feel for the sheet');
  await expect(page.getByText(/It was felt \d\d:\d\d/)).toBeVisible();
}
