import { computed, expect, goTo, prepareStandIn, setNumber, test, touchOff } from './kerbe.ts';

test('from artwork to a carved board on the stand-in router', async ({ shop }) => {
  await shop.getByRole('link', { name: /Entrance board/ }).click();
  await computed(shop);

  // The wording is changed, and the carving follows.
  await goTo(shop, 'Cuts');
  const deepest = shop.locator('[data-cut=carve] .facts');
  await expect(deepest).toContainText('6.5 mm deepest');
  const before = await deepest.innerText();
  await goTo(shop, 'Artwork');
  await shop.getByRole('button', { name: /^Words/ }).click();
  await shop.getByRole('textbox', { name: 'Words', exact: true }).fill('Fernhill\nDome');
  await expect(shop.getByText('All changes kept')).toBeVisible();
  await computed(shop);
  await goTo(shop, 'Cuts');
  await expect(deepest).toContainText('deepest');
  await expect(deepest).not.toHaveText(before);

  // A number takes a sum; the section and the time follow.
  await setNumber(shop, 'depth limit', '1/4 in + 0.15');
  await expect(shop.getByLabel('depth limit').first()).toHaveValue('6.5 mm');
  await setNumber(shop, 'depth limit', '4 + 1');
  await expect(deepest).toContainText('5 mm deepest');
  await expect(shop.getByRole('img', { name: /Section through the work, deepest groove 5 mm/ })).toBeVisible();

  // Proof: no remark that must be mended; the program is written and comes down.
  await goTo(shop, 'Proof');
  await expect(shop.getByText('Mend:')).toHaveCount(0);
  await shop.getByRole('button', { name: 'Write the program' }).click();
  const [download] = await Promise.all([
    shop.waitForEvent('download'),
    shop.getByRole('link', { name: 'entrance-board.nc' }).click(),
  ]);
  const { readFileSync } = await import('node:fs');
  const program = readFileSync(await download.path(), 'utf8');
  expect(program).toMatch(/^\(Entrance board - revision \d+, \d{4}-\d\d-\d\d\)/);
  expect(program).toMatch(/T1 M6/);
  expect(program).toMatch(/G1 .*Z-4\.999|Z-5\b/);

  // Set-up in the trade's order.
  await prepareStandIn(shop, 'V 60° 12.7');
  await shop.getByRole('button', { name: 'Set zero' }).click();
  await expect(shop.getByRole('alert')).toContainText('tap the plate against the bit first');
  await touchOff(shop);
  await expect(shop.getByRole('button', { name: 'Go to zero: up, across, down' })).toBeEnabled();
  await shop.getByRole('button', { name: 'Go to zero: up, across, down' }).click();
  await expect(shop.getByRole('alert')).toContainText('take the clip and the plate away');
  await shop.getByRole('button', { name: 'Take plate and clip away' }).click();
  await shop.getByRole('button', { name: 'Go to zero: up, across, down' }).click();
  await expect(shop.getByText('X 0 Y 0 Z 6 mm')).toBeVisible({ timeout: 30_000 });

  // The run, held once, with a bit change.
  await goTo(shop, 'Run');
  await shop.getByRole('checkbox').check();
  await shop.getByRole('button', { name: 'Start the run' }).click();
  await shop.getByRole('button', { name: 'Hold' }).click();
  await expect(shop.getByRole('button', { name: 'Go on' })).toBeVisible();
  await shop.getByRole('button', { name: 'Go on' }).click();
  await expect(shop.getByRole('heading', { name: 'Bit change: End mill 6.35' })).toBeVisible({ timeout: 90_000 });
  await shop.getByRole('button', { name: 'Press the emergency stop' }).click();
  await shop.getByRole('button', { name: 'Put End mill 6.35 in the stand-in' }).click();
  await shop.getByRole('button', { name: /is in: measure it/ }).click();
  await expect(shop.getByRole('alert')).toContainText('release it so that the new bit can be measured');
  await shop.getByRole('button', { name: 'Release the emergency stop' }).click();
  await expect(shop.getByRole('button', { name: 'Press the emergency stop' })).toBeVisible();
  await shop.getByRole('button', { name: /is in: measure it/ }).click();

  // Closing the page does not stop the run.
  const address = shop.url();
  await shop.goto('about:blank');
  await shop.waitForTimeout(1000);
  await shop.goto(address);
  await expect(shop.getByText(/Done\. It took/)).toBeVisible({ timeout: 120_000 });

  // The log knows of it, and keeps a note.
  await goTo(shop, 'Log');
  const entry = shop.getByRole('article').first();
  await expect(entry).toContainText('finished', { timeout: 15_000 });
  await expect(entry).toContainText('V 60° 12.7, 5 mm deep');
  await expect(entry).toContainText(/Planned \d+ min \d\d s, took \d+ min/);
  await entry.getByLabel('What came out, what to change').fill('Letters clean; one more coat of oil.');
  await entry.getByLabel('What came out, what to change').press('Tab');
  await expect(shop.getByText('Note kept.')).toBeVisible();
  await shop.reload();
  await expect(shop.getByRole('article').first().getByLabel('What came out, what to change')).toHaveValue(
    'Letters clean; one more coat of oil.',
  );
  await shop.getByRole('article').first().getByRole('button', { name: 'Run it again' }).click();
  await expect(shop.getByRole('heading', { level: 1, name: 'Set-up' })).toBeVisible();
});
