import { readFileSync } from 'node:fs';
import { computed, drawnAt, expect, goTo, setNumber, test } from './kerbe.ts';

const open = (shop: import('@playwright/test').Page, name: string, content: string | Buffer) =>
  shop
    .getByLabel('Job file to open')
    .setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(content) });

test('a job goes out as a file and comes back as a job of its own, with its artwork', async ({ shop }) => {
  await shop.locator('a[href="/jobs/meridian-plate/artwork"]').click();
  await computed(shop);
  await goTo(shop, 'Proof');
  const [download] = await Promise.all([
    shop.waitForEvent('download'),
    shop.getByRole('link', { name: 'Export the job' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('meridian-room-plate.kerbe.json');
  const text = readFileSync(await download.path(), 'utf8');
  expect(Object.keys(JSON.parse(text).assets)).not.toHaveLength(0);

  await shop.goto(process.env.KERBE_ADDRESS!);
  await open(shop, 'meridian.kerbe.json', text);
  await expect(shop.getByRole('heading', { level: 1, name: 'Artwork' })).toBeVisible();
  await computed(shop);
  await expect.poll(async () => (await drawnAt(shop, 0, 0)).length).toBe(4);
  await goTo(shop, 'Stock');
  // Its unit is the inch; changing it changes how numbers are written, not the board.
  await expect(shop.getByLabel('length', { exact: true })).toHaveValue('10 in');
  await shop.locator('.card').getByText('mm', { exact: true }).click();
  await expect(shop.getByLabel('length', { exact: true })).toHaveValue('254 mm');
  await setNumber(shop, 'length', '11 in');
  await expect(shop.getByLabel('length', { exact: true })).toHaveValue('279.4 mm');
});

test('a file that is not a job says so, and makes nothing', async ({ shop }) => {
  await expect(shop.getByRole('listitem').first()).toBeVisible();
  const jobs = await shop.getByRole('listitem').count();
  const alert = shop.getByRole('alert');
  await open(shop, 'notes.kerbe.json', 'milk, bread');
  await expect(alert).toContainText('not a Kerbe job (it is not JSON)');
  await open(shop, 'other.kerbe.json', '{"colour":"red"}');
  await expect(alert).toContainText(/job/i);
  await shop.reload();
  await expect(shop.getByRole('listitem')).toHaveCount(jobs);
});

test('a job of version 1 opens as it was, and holds on to its shapes by marks as soon as it is changed', async ({
  shop,
}) => {
  const old = readFileSync(new URL('./old-jobs/night-light.kerbe.json', import.meta.url), 'utf8');
  await open(shop, 'night-light.kerbe.json', old);
  await expect(shop.getByRole('heading', { level: 1, name: 'Artwork' })).toBeVisible();
  await computed(shop);
  await goTo(shop, 'Cuts');
  await expect(shop.locator('[data-cut=lights] .facts')).toContainText('5 holes');
  const exported = async () => {
    await goTo(shop, 'Proof');
    const [download] = await Promise.all([
      shop.waitForEvent('download'),
      shop.getByRole('link', { name: 'Export the job' }).click(),
    ]);
    return readFileSync(await download.path(), 'utf8');
  };
  expect(await exported()).toContain('"nth:3"');
  await goTo(shop, 'Stock');
  await setNumber(shop, 'length', '230');
  await expect(shop.getByText('All changes kept')).toBeVisible();
  await computed(shop);
  const now = await exported();
  expect(now).toContain('"id:light 1"');
  expect(now).not.toContain('nth:');
  await goTo(shop, 'Cuts');
  await expect(shop.locator('[data-cut=lights] .facts')).toContainText('5 holes');
});
