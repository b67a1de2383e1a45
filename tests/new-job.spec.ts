import { computed, expect, goTo, test } from './kerbe.ts';

test('a new job is made for a machine, and offers what that machine does', async ({ shop }) => {
  const jobs = shop.url();
  await shop.getByLabel('Called').fill('Tags by light');
  await shop.getByLabel('for the').selectOption({ label: 'Lantern room laser' });
  await shop.getByRole('button', { name: 'Make it' }).click();
  await computed(shop);
  await expect(shop.getByText('birch plywood, 300 × 150 × 3 mm')).toBeVisible();
  await goTo(shop, 'Bits');
  const rack = shop.getByRole('list', { name: /^Bits of this job/ }).getByRole('listitem');
  await expect(rack).toHaveCount(1);
  await expect(rack.getByRole('button', { name: /Beam 0.12/ })).toHaveAttribute('aria-pressed', 'true');
  await goTo(shop, 'Cuts');
  await expect(shop.getByRole('button', { name: 'Add a laser cut' })).toBeVisible();
  await expect(shop.getByRole('button', { name: 'Add a V-carve' })).toHaveCount(0);

  // The bench of the last one is the next one's.
  await shop.goto(jobs);
  await expect(shop.getByLabel('for the')).toHaveValue('lantern-room');
  await shop.getByLabel('for the').selectOption({ label: 'Dome workshop router' });
  await shop.getByLabel('Called').fill('Board by bit');
  await shop.getByRole('button', { name: 'Make it' }).click();
  await computed(shop);
  await expect(shop.getByText('oak, 300 × 150 × 20 mm')).toBeVisible();
  await goTo(shop, 'Cuts');
  await expect(shop.getByRole('button', { name: 'Add a laser cut' })).toHaveCount(0);
  await expect(shop.getByRole('button', { name: 'Add a V-carve' })).toBeVisible();
});
