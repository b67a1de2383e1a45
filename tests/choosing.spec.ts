import type { Page } from '@playwright/test';
import { computed, drawnAt, expect, goTo, jobOf, onScreen, outline, test } from './kerbe.ts';

/** Pages count what is clicked, so that “in two clicks” is counted and not believed. */
async function counting(page: Page): Promise<() => Promise<number>> {
  await page.evaluate(() => {
    const before = 'clicks' in window;
    (window as unknown as { clicks: number }).clicks = 0;
    if (!before) window.addEventListener('click', (event) => event.detail > 0 && (window as unknown as { clicks: number }).clicks++, true);
  }); // prettier-ignore
  return () => page.evaluate(() => (window as unknown as { clicks: number }).clicks);
}

async function lettered(page: Page, name: string, text: string): Promise<void> {
  await page.getByLabel('Called').fill(name);
  await page.getByRole('button', { name: 'Make it' }).click();
  await page.getByRole('button', { name: 'Add lettering' }).click();
  await page.getByLabel('Words').fill(text);
  await computed(page);
  await goTo(page, 'Cuts');
}

test('three lines of lettering are given to a new cut in two clicks', async ({ shop }) => {
  await lettered(shop, 'Three lines', 'Mind\nthe moon\ntonight');
  const clicks = await counting(shop);
  await shop.getByRole('button', { name: 'Add a V-carve' }).click();
  // Nothing was chosen: it took all that was free, and says so.
  await expect(shop.getByText('It took 18 shapes: the closed outlines that no cut has yet')).toBeVisible();
  await computed(shop);
  expect(await clicks()).toBe(1);
  // The same by choosing: the item on the list, and the cut.
  await shop.getByRole('button', { name: 'Undo' }).click();
  await expect(shop.locator('li.active')).toHaveCount(0);
  await outline(shop, 'Lettering 1');
  const again = await counting(shop);
  await (await outline(shop, 'Lettering 1')).click();
  await shop.getByRole('button', { name: 'Add a pocket' }).click();
  await computed(shop);
  await expect(shop.locator('li.active')).toContainText('Lettering 1');
  expect(await again()).toBe(2);
});

test('a click takes the letter, its word or its line; a box and a lasso take what lies in them', async ({ shop }) => {
  await lettered(shop, 'By clicks', 'Mind\nthe moon');
  const tree = shop.getByRole('tree', { name: 'Outlines' });
  const told = async (row: string) => {
    await outline(shop, row);
    return tree.getByRole('treeitem').filter({ hasText: row }).first().locator('.mute').innerText();
  };
  await outline(shop, 'the moon');
  // Where letters are, their boxes on the screen say: the list points at them.
  const placeOf = async (row: string) => {
    await tree.getByRole('treeitem').filter({ has: shop.getByRole('checkbox', { name: row, exact: true }) }).focus(); // prettier-ignore
    const box = (await shop.locator('svg[data-frame] > path.seen').boundingBox())!;
    return { ...box, middle: { x: box.x + box.width / 2, y: box.y + box.height / 2 } };
  };
  const line = await placeOf('the moon');
  const first = { x: line.x + 24, y: line.middle.y };
  await shop.mouse.click(first.x, first.y);
  expect(await told('the moon')).toBe('1 of 7');
  await shop.mouse.click(first.x, first.y);
  expect(await told('the moon')).toBe('0 of 7');
  for (const [takes, count] of [
    ['its word', '3 of 7'],
    ['its line of lettering', '7 of 7'],
  ]) {
    await shop.getByLabel('what a click takes').selectOption({ label: takes });
    await shop.mouse.click(first.x, first.y);
    expect(await told('the moon'), takes).toBe(count);
  }
  await shop.getByRole('button', { name: 'Let go' }).click();
  expect(await told('the moon')).toBe('0 of 7');

  const drag = async (...places: { x: number; y: number }[]) => {
    await shop.mouse.move(places[0].x, places[0].y);
    await shop.mouse.down();
    for (const { x, y } of places.slice(1)) await shop.mouse.move(x, y, { steps: 4 });
    await shop.mouse.up();
  };
  const around = (box: { x: number; y: number; width: number; height: number }, share = 1) => [
    { x: box.x - 6, y: box.y - 6 },
    { x: box.x + box.width * share + 6, y: box.y - 6 },
    { x: box.x + box.width * share + 6, y: box.y + box.height + 6 },
    { x: box.x - 6, y: box.y + box.height + 6 },
  ];
  const [corner, , opposite] = around(line);
  await shop.getByRole('button', { name: 'By a box around them' }).click();
  await drag(corner, opposite);
  expect(await told('the moon')).toBe('7 of 7');
  expect(await told('Mind')).toBe('0 of 4');
  await shop.getByRole('button', { name: 'By a line around them' }).click();
  const word = await placeOf('Mind');
  await drag(...around(word), around(word)[0]);
  expect(await told('Mind')).toBe('4 of 4');

  // What is chosen is drawn as chosen, and the cut takes it.
  await shop.getByRole('button', { name: 'Add a V-carve' }).click();
  await computed(shop);
  await expect(shop.locator('li.active')).toContainText('Lettering 1');
});

test('a press that comes twice makes one cut, and an item put back where it lay leaves nothing in the hand', async ({
  shop,
}) => {
  await lettered(shop, 'Twice and little', 'Moon');
  await shop.getByRole('button', { name: 'Add a V-carve' }).dblclick();
  await computed(shop);
  await expect(shop.locator('li[data-cut]')).toHaveCount(1);

  await goTo(shop, 'Artwork');
  await computed(shop);
  const { stock } = await jobOf(shop);
  const at = await onScreen(shop, stock.length / 2 + 8, stock.width / 2 + 6);
  const canvases = shop.locator('.sheet canvas');
  await shop.mouse.move(at.x, at.y);
  await shop.mouse.down();
  await shop.mouse.move(at.x + 40, at.y, { steps: 4 });
  await expect(canvases).toHaveCount(2);
  await shop.mouse.move(at.x, at.y, { steps: 4 });
  await shop.mouse.up();
  await expect(canvases).toHaveCount(1);
  // Moved in earnest it is in the hand until the sheet shows it where it was put.
  await shop.mouse.move(at.x, at.y);
  await shop.mouse.down();
  await shop.mouse.move(at.x + 40, at.y, { steps: 4 });
  await shop.mouse.up();
  await expect(canvases).toHaveCount(1);
  await expect(shop.getByText('All changes kept')).toBeVisible();
});

test('every shape can be reached and chosen by the keyboard, on the sheet and in the list', async ({ shop }) => {
  await lettered(shop, 'By keys', 'Mi\nto');
  const focused = shop.locator('svg [role=checkbox]');
  await focused.focus();
  const reached = new Set<string>();
  const letter = async () => (await focused.getAttribute('aria-label'))!.slice(0, 1);
  for (const key of ['Home', 'PageDown', 'PageDown', 'PageDown']) {
    await shop.keyboard.press(key);
    reached.add(await letter());
  }
  await shop.keyboard.press('Home');
  await shop.keyboard.press('ArrowRight');
  expect(await letter()).toBe('i');
  await shop.keyboard.press('ArrowDown');
  expect('to').toContain(await letter());
  expect([...reached].sort().join('')).toBe('Miot');
  await shop.keyboard.press('Space');
  await expect(focused).toBeChecked();
  await expect(shop.getByText('1 for a new cut.')).toBeVisible();

  await outline(shop, 'Lettering 1');
  const tree = shop.getByRole('tree', { name: 'Outlines' });
  await tree.getByRole('treeitem').first().focus();
  // All of it, then into it and its first line, and one letter out again.
  await shop.keyboard.press('Space');
  await expect(tree.getByRole('treeitem').first()).toHaveAttribute('aria-checked', 'true');
  await expect(tree.getByRole('treeitem')).toHaveCount(1);
  await shop.keyboard.press('ArrowRight');
  await expect(tree.getByRole('treeitem')).toHaveCount(3);
  await shop.keyboard.press('ArrowDown');
  await shop.keyboard.press('ArrowRight');
  await shop.keyboard.press('ArrowRight');
  await shop.keyboard.press('Space');
  await expect(tree.getByRole('treeitem').nth(2)).toHaveAttribute('aria-checked', 'false');
  await expect(tree.getByRole('treeitem').first()).toHaveAttribute('aria-checked', 'mixed');
  await shop.keyboard.press('ArrowLeft');
  await expect(tree.getByRole('treeitem').nth(1)).toBeFocused();
});

test('a shape in two cuts shows both, and the state of the cut at hand', async ({ shop }) => {
  await shop.getByLabel('Called').fill('Twice cut');
  await shop.getByRole('button', { name: 'Make it' }).click();
  await shop.getByLabel('Drawing or picture to import').setInputFiles({
    name: 'plate.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" width="80mm" height="60mm" viewBox="0 0 80 60"><rect id="plate" x="10" y="10" width="60" height="40"/></svg>',
    ),
  });
  await goTo(shop, 'Cuts');
  for (const button of ['Add a V-carve', 'Add a cut-out']) {
    const first = shop.getByRole('button', { name: 'Choose shapes for it first' });
    if (await first.isVisible()) await first.click();
    await (await outline(shop, 'plate')).click();
    await shop.getByRole('button', { name: button }).click();
  }
  await computed(shop);
  // Filled as carved, though the cut-out is at hand, of which it is chosen, too.
  await expect(await outline(shop, 'plate')).toBeChecked();
  await expect(shop.getByText('All changes kept')).toBeVisible();
  const { artwork } = (await (await shop.request.get(new URL('/api' + new URL(shop.url()).pathname.replace(/\/cuts$/, ''), shop.url()).href)).json()).job; // prettier-ignore
  const [r, g, b, alpha] = await drawnAt(shop, artwork[0].x + 40, artwork[0].y + 30);
  expect(alpha).toBe(255);
  expect(r + g + b).toBeLessThan(200);
  const click = await onScreen(shop, artwork[0].x + 40, artwork[0].y + 30);
  await shop.mouse.click(click.x, click.y);
  await expect(await outline(shop, 'plate')).not.toBeChecked();
  await computed(shop);
  expect((await drawnAt(shop, artwork[0].x + 40, artwork[0].y + 30))[3]).toBe(255);
});
