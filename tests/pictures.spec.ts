import { bringOverPlate, computed, expect, goTo, prepareStandIn, test } from './kerbe.ts';

// Not a check: makes the pictures of docs/screenshots/ anew. Run with KERBE_PICTURES=1 npx playwright test -c tests pictures
test.skip(!process.env.KERBE_PICTURES, 'pictures are made on request');

test('pictures of every main view', async ({ shop }) => {
  const picture = (name: string) => shop.screenshot({ path: `docs/screenshots/${name}.png` });
  await expect(shop.getByRole('link', { name: /Entrance board/ })).toBeVisible();
  await shop.waitForTimeout(300);
  await picture('jobs');
  await shop.getByRole('link', { name: /Night-light plate/ }).click();
  await computed(shop);
  await goTo(shop, 'Cuts');
  await shop.getByRole('button', { name: 'moon' }).click();
  await shop.locator('[data-cut=moon]').evaluate((cut) => cut.scrollIntoView());
  await shop.waitForTimeout(500);
  await picture('pockets');
  await shop.locator('[data-cut=edge]').getByRole('button', { name: 'edge' }).click();
  await shop.locator('[data-cut=edge]').evaluate((cut) => cut.scrollIntoView());
  await shop.waitForTimeout(500);
  await picture('cut-out');
  await shop.getByRole('link', { name: 'All jobs' }).click();
  await shop.getByRole('link', { name: /Entrance board/ }).click();
  await computed(shop);
  for (const stop of ['Artwork', 'Stock', 'Bits', 'Cuts', 'Proof']) {
    await goTo(shop, stop);
    await shop.waitForTimeout(900);
    await picture(stop.toLowerCase());
  }
  await shop.getByRole('button', { name: 'The carved piece' }).click();
  await expect(shop.getByText('Carving the picture')).toHaveCount(0, { timeout: 40_000 });
  await shop.waitForTimeout(800);
  await picture('carved-piece');
  await prepareStandIn(shop, 'V 60° 12.7');
  await shop.getByRole('button', { name: 'Tap the plate on the bit' }).click();
  await bringOverPlate(shop);
  await shop.locator('.card').evaluate((card) => card.scrollTo(0, 0));
  await picture('set-up');
  await shop.getByRole('button', { name: 'Set zero' }).click();
  await expect(shop.getByText(/Zero was set at/)).toBeVisible({ timeout: 60_000 });
  await shop.locator('.card').evaluate((card) => card.scrollTo(0, 10_000));
  await shop.waitForTimeout(300);
  await picture('set-up-zero');
  await shop.getByRole('button', { name: 'Take plate and clip away' }).click();
  await goTo(shop, 'Run');
  await shop.getByRole('checkbox').check();
  await shop.getByRole('button', { name: 'Start the run' }).click();
  await expect(shop.getByText(/carving, [3-9] %|carving, 1\d %/)).toBeVisible({ timeout: 60_000 });
  await picture('run');
  await expect(shop.getByRole('heading', { name: /^Bit change/ })).toBeVisible({ timeout: 90_000 });
  await shop.waitForTimeout(400);
  await picture('bit-change');
  await shop.getByRole('button', { name: 'Put End mill 6.35 in the stand-in' }).click();
  await shop.getByRole('button', { name: /is in: measure it/ }).click();
  await expect(shop.getByText(/Done\. It took/)).toBeVisible({ timeout: 120_000 });
  await goTo(shop, 'Log');
  await expect(shop.getByRole('article').first()).toContainText('finished');
  await shop.waitForTimeout(400);
  await picture('log');
});
