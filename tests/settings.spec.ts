import { readFileSync } from 'node:fs';
import { computed, expect, goTo, test } from './kerbe.ts';

const BRASS = readFileSync(new URL('drawings/brass-board.kerbe.json', import.meta.url));

test('brass has no settings: they are asked for, none is shown, and no program is written until they are given', async ({
  shop,
}) => {
  const made = await shop.request.post(new URL('/api/jobs/import', shop.url()).href, {
    data: BRASS,
    headers: { 'content-type': 'application/octet-stream' },
  });
  const { id } = (await made.json()) as { id: string };
  await shop.goto(new URL(`/jobs/${id}/cuts`, shop.url()).href);
  await computed(shop);
  const remark = shop.getByLabel('Must be mended').filter({ hasText: 'in brass: it has no settings for it at Bits' });
  await expect(remark).toBeVisible();
  const feed = shop.getByLabel('feed', { exact: true });
  await expect(feed).toHaveValue('? mm/min');
  if (process.env.KERBE_SHOTS) await shop.screenshot({ path: `${process.env.KERBE_SHOTS}/brass.png` });

  const { revision } = (await (await shop.request.get(new URL(`/api/jobs/${id}`, shop.url()).href)).json()) as {
    revision: string;
  };
  const refused = await shop.request.post(new URL(`/api/jobs/${id}/programs`, shop.url()).href, {
    data: { revision },
    headers: { origin: new URL(shop.url()).origin },
  });
  expect(refused.status()).toBe(409);
  expect(((await refused.json()) as { problem: string }).problem).toContain('in brass');

  for (const [name, value] of [
    ['feed', '600'],
    ['plunge', '150'],
    ['spindle speed', '12000'],
    ['depth per pass', '0.2'],
  ]) {
    await expect(remark).toBeVisible();
    await shop.getByLabel(name, { exact: true }).fill(value);
    await shop.getByLabel(name, { exact: true }).press('Enter');
  }
  await expect(remark).toHaveCount(0);
  await expect(feed).toHaveValue('600 mm/min');
  await shop.getByRole('button', { name: /^Keep this as the setting of End mill 6.35 for brass$/ }).click();
  await goTo(shop, 'Bits');
  await expect(shop.getByLabel('feed in brass')).toHaveValue('600');
});
