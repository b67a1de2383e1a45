import type { Locator } from '@playwright/test';
import { computed, expect, goTo, setNumber, test } from './kerbe.ts';

/** Letters one after the other with no time between them, however seldom this test is given a turn. */
const burst = (field: Locator, letters: string) =>
  field.evaluate((area: HTMLTextAreaElement, text) => {
    for (const letter of text) {
      area.value += letter;
      area.dispatchEvent(new InputEvent('input', { bubbles: true, data: letter, inputType: 'insertText' }));
    }
  }, letters);

test('a step back works everywhere: right after a number, and in words, where a burst of typing is one step', async ({
  shop,
}) => {
  await shop.getByLabel('Called').fill('Steps in fields');
  await shop.getByRole('button', { name: 'Make it' }).click();
  await shop.getByRole('button', { name: 'Add lettering' }).click();
  await computed(shop);
  // What follows within a moment would be one step with it.
  await expect(shop.getByText('All changes kept')).toBeVisible();
  const height = shop.getByLabel('cap height', { exact: true });
  const before = await height.inputValue();
  await setNumber(shop, 'cap height', '31');
  await expect(height).toHaveValue('31 mm');
  await height.focus();
  await shop.keyboard.press('Control+z');
  await expect(height).toHaveValue(before);
  await shop.keyboard.press('Control+Shift+Z');
  await expect(height).toHaveValue('31 mm');
  // Letters that are not taken yet are the field's own.
  await height.fill('4');
  await shop.keyboard.type('5');
  await shop.keyboard.press('Control+z');
  await expect(height).not.toHaveValue('45');
  await shop.keyboard.press('Escape');
  await expect(height).toHaveValue('31 mm');

  const words = shop.getByLabel('Words');
  await words.fill('');
  await expect(shop.getByText('All changes kept')).toBeVisible();
  await burst(words, 'Moon');
  await expect(shop.getByText('All changes kept')).toBeVisible();
  await burst(words, ' and sun');
  await expect(shop.getByText('All changes kept')).toBeVisible();
  await shop.keyboard.press('Control+z');
  await expect(words).toHaveValue('Moon');
  await shop.keyboard.press('Control+z');
  await expect(words).toHaveValue('');
  await shop.keyboard.press('Control+Shift+Z');
  await shop.keyboard.press('Control+Shift+Z');
  await expect(words).toHaveValue('Moon and sun');

  // A step back stays in its field: what was done elsewhere, and the lettering itself, are not taken away under the cursor.
  for (let k = 0; k < 6; k++) await shop.keyboard.press('Control+z');
  await expect(words).toHaveValue('Your words');
  await expect(shop.getByText('All changes kept')).toBeVisible();
  await expect(words).toBeFocused();
  await expect(height).toHaveValue('31 mm');
  // Beside the fields they are.
  await shop.getByRole('heading', { level: 1 }).first().click();
  await shop.keyboard.press('Control+z');
  await expect(height).toHaveValue(before);
});

test('nothing typed is lost by a reload or the end of the page, taken or not', async ({ shop, context }) => {
  await shop.getByLabel('Called').fill('Typed and gone');
  await shop.getByRole('button', { name: 'Make it' }).click();
  await shop.getByRole('button', { name: 'Add lettering' }).click();
  await computed(shop);
  await expect(shop.getByText('All changes kept')).toBeVisible();
  // Taken, but not on its way to the server yet.
  await shop.route('**/api/jobs/*', (route) => (route.request().method() === 'PUT' ? route.abort() : route.continue()));
  await shop.getByLabel('Words').fill('Kept');
  await shop.unroute('**/api/jobs/*');
  await shop.reload();
  await expect(shop.getByLabel('Words')).toHaveValue('Kept');
  await expect(shop.getByText('All changes kept')).toBeVisible();

  // Not taken: no Enter, no other field.
  await shop.getByLabel('cap height', { exact: true }).fill('2 * 13');
  await shop.reload();
  const height = shop.getByLabel('cap height', { exact: true });
  await expect(height).toHaveValue('2 * 13');
  await expect(height).toBeFocused();
  await shop.keyboard.press('Enter');
  await expect(height).toHaveValue('26 mm');

  await goTo(shop, 'Stock');
  await shop.getByLabel('length', { exact: true }).fill('41');
  const address = shop.url();
  // The page dies, and nobody tells the field anything.
  const crashed = shop.waitForEvent('crash');
  void (await context.newCDPSession(shop)).send('Page.crash').catch(() => {});
  await crashed;
  const again = await context.newPage();
  await again.goto(address);
  await expect(again.getByLabel('length', { exact: true })).toHaveValue('41');
  await again.keyboard.press('Escape');
  await expect(again.getByLabel('length', { exact: true })).not.toHaveValue('41');
  await again.reload();
  await computed(again);
  await expect(again.getByLabel('length', { exact: true })).not.toHaveValue('41');
});
