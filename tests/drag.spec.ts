import type { Page } from '@playwright/test';
import { atRest, done, computed, connectAndHome, expect, goTo, lend, startRun, test, tickTheList } from './kerbe.ts';
import { noteInLog, writePrograms } from './story-steps.ts';

// Brass labels: outline, hatch and an open flourish, drawn by a point that does not turn, from artwork to the finished plate.

const caption = (page: Page) => page.getByText('Through the window of the stand-in.').locator('..');
const byHand = (page: Page) => page.getByRole('region', { name: 'Move by hand' });

/** One step by hand, and the next when it stands and the window was looked through anew. */
async function press(page: Page, name: RegExp): Promise<void> {
  await byHand(page).getByRole('button', { name }).click();
  await page.waitForTimeout(120);
  await atRest(page);
  await page.waitForTimeout(330);
}
const stepOf = (page: Page, step: string) => byHand(page).getByRole('button', { name: step, exact: true }).click();

/** Lowers the tip by ever smaller steps until the paper drags. */
async function untilPaperDrags(page: Page): Promise<void> {
  const feel = page.getByText(/^The paper, 0.1 mm thick, (is free|just drags|is held)/);
  for (const step of ['10', '1', '0.1', '0.02']) {
    await stepOf(page, step);
    for (let k = 0; k < 40; k++) {
      const felt = await feel.innerText();
      if (felt.includes('just drags')) return;
      if (felt.includes('is held')) {
        await press(page, /Z\+/);
        break;
      }
      const below = Number(/and ([\d.]+) mm below/.exec(await caption(page).innerText())?.[1] ?? 0);
      if (step === '10' && below < 12) break;
      await press(page, /Z−/);
    }
  }
  await expect(feel).toContainText('just drags');
}

/** Brings the tip over the mark of zero by looking. */
async function overTheMark(page: Page): Promise<void> {
  for (const step of [100, 10, 1]) {
    await stepOf(page, String(step));
    for (let k = 0; k < 40; k++) {
      const found = /([\d.]+) mm to the (right|left), ([\d.]+) mm (back|in front)/.exec(
        await caption(page).innerText(),
      )!;
      const [x, y] = [Number(found[1]), Number(found[3])];
      if (x >= 0.6 * step) await press(page, found[2] === 'right' ? /X\+/ : /X−/);
      else if (y >= 0.6 * step) await press(page, found[4] === 'back' ? /Y\+/ : /Y−/);
      else break;
    }
  }
}

test('brass labels, from artwork through zero by paper to the finished plate', async ({ shop }) => {
  await shop.getByRole('link', { name: /Instrument labels/ }).click();
  await computed(shop);

  // Artwork: the words, and a drawing with a flourish that is open.
  await expect(shop.getByLabel('Words')).toHaveValue('Great refractor');
  await expect(shop.getByText('drawing, 3 shapes')).toBeVisible();

  // Bits: the point, its line and its spring.
  await goTo(shop, 'Bits');
  await expect(shop.getByRole('img', { name: /Diamond 0.3, drawn to scale/ })).toBeVisible();
  await expect(shop.getByText('it does not turn')).toBeVisible();

  // Cuts: a flourish more, drawn as it is; and what cannot be gets a sentence.
  await goTo(shop, 'Cuts');
  const name = shop.locator('[data-cut=name]');
  await expect(name.locator('.facts')).toContainText('lines across');
  const pressed = name.getByLabel('pressed', { exact: true });
  await pressed.fill('7');
  await pressed.press('Enter');
  await expect(shop.getByText(/its spring gives 5 mm; press it less/).first()).toBeVisible();
  await shop.getByRole('button', { name: 'Undo' }).click();
  await expect(pressed).toHaveValue('2.5 mm');
  await computed(shop);
  await name.getByLabel('fill', { exact: true }).selectOption('solid');
  await expect(shop.getByText(/leave stripes, and this filling is to be solid/)).toBeVisible();
  await shop.getByRole('button', { name: 'Let it be textured' }).click();
  await expect(shop.getByText(/leave stripes, and this filling is to be solid/)).toHaveCount(0);

  const [program] = await writePrograms(shop, ['instrument-labels.nc']);
  await expect(shop.getByRole('rowheader', { name: 'between the cuts and back', exact: true })).toBeVisible();
  expect(program).toContain('spindle off');
  expect(program).not.toMatch(/\bM0*[34]\b/);

  // Set-up: no plate, before anything is said of the tool; the height by paper, the place by sight.
  await connectAndHome(shop);
  await lend(shop, 'Lay the stock');
  await lend(shop, 'Put Diamond 0.3 in the stand-in');
  await done(shop, 'Diamond 0.3 is in');
  const away = shop.getByRole('button', { name: 'Take plate and clip away' });
  if (await away.isVisible()) await away.click();
  await expect(shop.getByText(/carries no current, so the touch plate cannot feel it/)).toBeVisible();
  await expect(shop.getByRole('button', { name: 'Set zero' })).toHaveCount(0);
  await expect(shop.getByText(/was sensed to close/)).toHaveCount(0);
  await expect(shop.getByText(/Spindle warm/)).toHaveCount(0);
  await expect(shop.getByText(/Spindle off at its own switch/)).toBeVisible();

  await overTheMark(shop);
  await shop.getByRole('button', { name: 'Set X and Y here' }).click();
  await expect(shop.getByText(/X and Y were set \d\d:\d\d.*by sight, with Diamond 0.3/)).toBeVisible();
  await stepOf(shop, '10');
  await press(shop, /X\+/);
  await press(shop, /Y\+/);
  await shop.getByRole('button', { name: 'Hold a slip of paper under the tip' }).click();
  await untilPaperDrags(shop);
  await shop.getByRole('button', { name: 'Set Z here' }).click();
  await expect(shop.getByText(/Z was set \d\d:\d\d.*on paper of 0.1 mm, with Diamond 0.3/)).toBeVisible();
  await shop.getByRole('button', { name: 'Take the paper away' }).click();
  await tickTheList(shop);

  await startRun(shop);
  await expect(shop.getByText(/Done\. It took/)).toBeVisible();
  const look = await (await shop.request.get(new URL('/api/benches/dome-workshop/stand-in', shop.url()).href)).json();
  const { drawn } = (look as { piece: { drawn: number } }).piece;
  // 1.69, 0.47 and 0.58 m by Proof, of which 187 ways down take 3.5 mm each.
  expect(drawn).toBeGreaterThan(2050);
  expect(drawn).toBeLessThan(2130);
  await noteInLog(
    shop,
    ['Diamond 0.3', '2.5 mm pressed', 'spindle off'],
    'Crisp; the small print as large as it should be.',
  );
});
