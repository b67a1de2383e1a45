import { heaviest } from '../command/src/bench-load.ts';
import { expect, goTo, test } from './kerbe.ts';

/** The job of one outline of 60,000 points: a single piece of work that hears nothing while it lasts. */
const stubborn = () => {
  const file = heaviest()[1];
  return JSON.stringify({ ...file, job: { ...file.job, name: 'Stubborn outline' } });
};

test('computing that takes long shows how far it is; cancelled, the page can be gone on with', async ({ shop }) => {
  const made = await shop.request.post(new URL('/api/jobs/import', process.env.KERBE_ADDRESS).href, {
    data: Buffer.from(stubborn()),
    headers: { 'content-type': 'application/octet-stream' },
  });
  expect(made.status()).toBe(200);
  const { id } = (await made.json()) as { id: string };
  await shop.goto(new URL(`/jobs/${id}/cuts`, process.env.KERBE_ADDRESS).href);
  const bar = shop.locator('.computing');
  await expect(bar.getByRole('button', { name: 'Cancel' })).toBeVisible();
  await bar.getByRole('button', { name: 'Cancel' }).click();
  await expect(bar).toContainText('Computing was cancelled');
  // Not “computing” for ever, and nothing comes back by itself.
  await shop.waitForTimeout(1500);
  await expect(bar).toContainText('Computing was cancelled');
  const route = shop.getByRole('navigation', { name: 'The route of this job' });
  await expect(route.getByRole('link', { name: /^Proof/ })).toContainText('out of date');
  await expect(route.getByRole('link', { name: /^Cuts/ })).not.toContainText('computing');

  // The artwork is taken away, and what is left is computed at once, in a thread that is free.
  await goTo(shop, 'Artwork');
  await shop.getByRole('button', { name: /^Remove/ }).click();
  await expect(route.getByRole('link', { name: /^Artwork/ })).toContainText('empty');
  await expect(bar).toHaveCount(0);
  await expect(route.getByRole('link', { name: /^Proof/ })).not.toContainText(/computing|out of date/);
  await goTo(shop, 'Stock');
  await shop.getByLabel('length', { exact: true }).first().fill('500');
  await shop.getByLabel('length', { exact: true }).first().press('Enter');
  await expect(shop.getByText('All changes kept')).toBeVisible();
});

test('a change made while something stubborn is computed for the state before is not kept waiting by it', async ({
  shop,
}) => {
  const made = await shop.request.post(new URL('/api/jobs/import', process.env.KERBE_ADDRESS).href, {
    data: Buffer.from(stubborn()),
    headers: { 'content-type': 'application/octet-stream' },
  });
  const { id } = (await made.json()) as { id: string };
  await shop.goto(new URL(`/jobs/${id}/artwork`, process.env.KERBE_ADDRESS).href);
  await expect(shop.locator('.computing').getByRole('button', { name: 'Cancel' })).toBeVisible();
  await shop.getByRole('button', { name: /^Remove/ }).click();
  const route = shop.getByRole('navigation', { name: 'The route of this job' });
  await expect(route.getByRole('link', { name: /^Proof/ })).not.toContainText('computing');
});

test('a cut that hears nothing while it is computed is said to be under way, and can be cancelled', async ({
  shop,
}) => {
  const [, , { job, assets }] = heaviest();
  const large = { ...job, name: 'Large pond', cuts: job.cuts.map((cut) => ({ ...cut, slots: true })) };
  const made = await shop.request.post(new URL('/api/jobs/import', process.env.KERBE_ADDRESS).href, {
    data: Buffer.from(JSON.stringify({ job: large, assets })),
    headers: { 'content-type': 'application/octet-stream' },
  });
  const { id } = (await made.json()) as { id: string };
  await shop.goto(new URL(`/jobs/${id}/cuts`, process.env.KERBE_ADDRESS).href);
  const bar = shop.locator('.computing');
  await expect(bar).toContainText('Pocket heavy');
  await bar.getByRole('button', { name: 'Cancel' }).click();
  await expect(bar).toContainText('Computing was cancelled');
});
