import { computed, expect, test } from './kerbe.ts';

// A print is laid on the stock before anything is cut: it has to be as large as the work.
test('a job is printed at full size, on as many sheets as it needs, as the sheet shows it', async ({
  shop,
  context,
}) => {
  await shop.getByRole('link', { name: /Entrance board/ }).click();
  await computed(shop);
  const [paper] = await Promise.all([
    context.waitForEvent('page'),
    shop.getByRole('link', { name: 'Print at full size' }).click(),
  ]);
  // 620 by 240 mm on paper of which 180 by 250 are drawn on.
  const sheets = paper.getByRole('img', { name: /Entrance board, sheet/ });
  await expect(sheets).toHaveCount(4);
  // CSS has 96 pixels an inch.
  const box = (await sheets.first().boundingBox())!;
  expect(box.width).toBeCloseTo((180 / 25.4) * 96, 0);
  expect(box.height).toBeCloseTo((250 / 25.4) * 96, 0);
  await expect(sheets.first().locator('path.carved.solid').first()).toBeAttached();
  await expect(paper.getByText('This line is 100 mm long').first()).toBeVisible();
  // The board itself, in the same scale.
  const board = (await sheets.first().locator('rect').boundingBox())!;
  expect(board.width / box.width).toBeCloseTo(620 / 180, 1);
  const pdf = await paper.pdf({ preferCSSPageSize: true });
  expect(pdf.toString('latin1').match(/\/Type\s*\/Page\b/g)?.length).toBe(4);
});
