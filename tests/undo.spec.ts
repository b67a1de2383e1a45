import { expect, goTo, setNumber, test } from './kerbe.ts';

test('steps back that follow quickly are all taken, and a change made while one is under way is kept', async ({
  shop,
}) => {
  await shop.getByLabel('Called').fill('Back and forth');
  await shop.getByRole('button', { name: 'Make it' }).click();
  await goTo(shop, 'Stock');
  const length = shop.getByLabel('length', { exact: true });
  for (const value of ['310', '320', '330']) {
    await setNumber(shop, 'length', value);
    await expect(shop.getByText('All changes kept')).toBeVisible();
  }
  const undo = shop.getByRole('button', { name: 'Undo' });
  await undo.evaluate((button: HTMLButtonElement) => [1, 2, 3].forEach(() => button.click()));
  await expect(length).toHaveValue('300 mm');
  await expect(undo).toBeDisabled();
  await shop.getByRole('heading', { level: 1 }).click();
  await shop.keyboard.press('Control+Shift+z');
  await shop.keyboard.press('Control+Shift+z');
  await expect(length).toHaveValue('320 mm');

  // A slow answer: the width typed meanwhile belongs to what was seen, and stays.
  let answer = () => {};
  const asked = new Promise<void>((resolve) => (answer = resolve));
  await shop.route('**/undo', async (route) => {
    await asked;
    await route.continue();
  });
  await undo.click();
  await setNumber(shop, 'width', '99');
  await expect(shop.getByLabel('width', { exact: true })).toHaveValue('99 mm');
  answer();
  await expect(shop.getByText('All changes kept')).toBeVisible();
  await shop.reload();
  await expect(shop.getByLabel('width', { exact: true })).toHaveValue('99 mm');
  await expect(length).toHaveValue('320 mm');
  await expect(shop.getByText('This job was changed in another window.')).toHaveCount(0);
});

test('each change is a step of its own, however long the server takes to keep the one before', async ({ shop }) => {
  await shop.getByLabel('Called').fill('Slow to keep');
  await shop.getByRole('button', { name: 'Make it' }).click();
  await goTo(shop, 'Stock');
  let answer = () => {};
  const asked = new Promise<void>((resolve) => (answer = resolve));
  await shop.route(/\/api\/jobs\/[^/]+$/, async (route) => {
    if (route.request().method() === 'PUT') await asked;
    await route.continue();
  });
  const length = shop.getByLabel('length', { exact: true });
  for (const value of ['310', '320', '330', '340']) {
    await setNumber(shop, 'length', value);
    await shop.waitForTimeout(500);
  }
  await expect(shop.getByText('All changes kept')).toHaveCount(0);
  answer();
  await expect(shop.getByText('All changes kept')).toBeVisible();
  const undo = shop.getByRole('button', { name: 'Undo' });
  for (const value of ['330 mm', '320 mm', '310 mm', '300 mm']) {
    await undo.click();
    await expect(length).toHaveValue(value);
  }
  await expect(undo).toBeDisabled();
});

test('changes made while the server cannot be reached are all kept afterwards, each a step', async ({ page: shop }) => {
  await shop.goto(process.env.KERBE_ADDRESS!);
  await shop.getByLabel('Called').fill('Out of reach');
  await shop.getByRole('button', { name: 'Make it' }).click();
  await goTo(shop, 'Stock');
  let give = () => {};
  const given = new Promise<void>((resolve) => (give = resolve));
  let first = true;
  await shop.route(/\/api\/jobs\/[^/]+$/, async (route) => {
    if (route.request().method() !== 'PUT' || !first) return route.continue();
    first = false;
    await given;
    await route.fulfill({ status: 503, json: { problem: 'The database does not answer.' } });
  });
  const length = shop.getByLabel('length', { exact: true });
  for (const value of ['310', '320', '330', '340']) {
    await setNumber(shop, 'length', value);
    await shop.waitForTimeout(500);
  }
  give();
  await expect(shop.getByText('All changes kept')).toBeVisible();
  await shop.reload();
  await expect(length).toHaveValue('340 mm');
  // The one whose keeping failed is part of the next.
  for (const value of ['330 mm', '320 mm', '300 mm']) {
    await shop.getByRole('button', { name: 'Undo' }).click();
    await expect(length).toHaveValue(value);
  }
});

test('two things done at once are two steps', async ({ shop }) => {
  await shop.getByLabel('Called').fill('In a hurry');
  await shop.getByRole('button', { name: 'Make it' }).click();
  await goTo(shop, 'Bits');
  const bits = shop.getByRole('list', { name: 'Bits of this job' }).getByRole('listitem');
  const copy = shop.getByRole('button', { name: 'Copy as a new bit' });
  await expect(copy).toBeVisible();
  const before = await bits.count();
  await copy.evaluate((button: HTMLButtonElement) => {
    button.click();
    button.click();
  });
  await expect(bits).toHaveCount(before + 2);
  const undo = shop.getByRole('button', { name: 'Undo' });
  await undo.click();
  await expect(bits).toHaveCount(before + 1);
  await undo.click();
  await expect(bits).toHaveCount(before);
  await expect(undo).toBeDisabled();
});
