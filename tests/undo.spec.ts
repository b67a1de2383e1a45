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
