import { readFileSync } from 'node:fs';
import { computed, expect, goTo, setNumber, test } from './kerbe.ts';
import { writePrograms } from './story-steps.ts';

const MARKER = JSON.parse(readFileSync(new URL('../demo/jobs/comet-marker.kerbe.json', import.meta.url), 'utf8')) as {
  job: { name: string; stock: { corners: number[] } };
};

test('advice is left on purpose with a reason, which the heading tells, until its cause is another', async ({
  shop,
}) => {
  MARKER.job.name = 'Uneven marker';
  MARKER.job.stock.corners = [9, 9, 8.4, 8.4];
  const made = await shop.request.post(new URL('/api/jobs/import', shop.url()).href, {
    data: JSON.stringify(MARKER),
    headers: { 'content-type': 'application/octet-stream' },
  });
  const { id } = (await made.json()) as { id: string };
  await shop.goto(new URL(`/jobs/${id}/proof`, shop.url()).href);
  await computed(shop);
  const advice = shop.getByLabel('Could be better').filter({ hasText: 'The corners differ by 0.6 mm' });
  await advice.getByRole('button', { name: 'Leave it on purpose…' }).click();
  await expect(advice.getByRole('button', { name: 'Leave it', exact: true })).toBeDisabled();
  await advice.getByLabel('Why it is left as it is').fill('Weathered wood; nobody sees it');
  if (process.env.KERBE_SHOTS) await shop.screenshot({ path: `${process.env.KERBE_SHOTS}/leave.png` });
  await advice.getByRole('button', { name: 'Leave it', exact: true }).click();
  await expect(advice).toHaveCount(0);
  const left = shop.getByRole('region', { name: 'Left on purpose' });
  await expect(left).toContainText('Weathered wood; nobody sees it');
  await expect(shop.getByText('All changes kept')).toBeVisible();
  await shop.reload();
  await computed(shop);
  await expect(left).toContainText('The corners differ by 0.6 mm');
  if (process.env.KERBE_SHOTS) await shop.screenshot({ path: `${process.env.KERBE_SHOTS}/left.png` });
  const [program] = await writePrograms(shop, ['uneven-marker.nc']);
  expect(program.slice(0, 3000)).toMatch(/this program leaves a remark as it is: The corners differ by 0\.6 mm/);
  expect(program.slice(0, 3000)).toMatch(/this program leaves it so \d{4}-\d\d-\d\d: Weathered wood, nobody sees it/);

  // Lower still at one corner: it is another matter now.
  await goTo(shop, 'Stock');
  await setNumber(shop, 'thickness lower left', '9.2');
  await computed(shop);
  await expect(shop.getByLabel('Could be better').filter({ hasText: 'The corners differ by 0.8 mm' })).toBeVisible();
  await shop.getByRole('button', { name: 'Undo' }).click();
  await computed(shop);
  await goTo(shop, 'Proof');
  await left.getByRole('button', { name: 'Remark on it again' }).click();
  await expect(advice).toBeVisible();
});
