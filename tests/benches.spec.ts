import {
  atRest,
  expect,
  feedAt,
  goTo,
  lend,
  prepareStandIn,
  setUp,
  startRun,
  test,
  tickTheList,
  touchOff,
} from './kerbe.ts';
import { doneWithoutThePage, holdBySpace, noteInLog, writePrograms } from './story-steps.ts';
import type { Page } from '@playwright/test';

const choose = async (page: Page, bench: string) => {
  await goTo(page, 'Set-up');
  await page.getByLabel('bench', { exact: true }).selectOption({ label: bench });
  // It waits until the server knows which bench the job is for.
  await expect(page.getByRole('button', { name: 'Connect the stand-in router' })).toBeEnabled();
};

/** The program asks for the spindle, and its operator switches it on. */
const spindleOn = async (page: Page) => {
  await expect(page.getByText(/start the spindle at/)).toBeVisible();
  await lend(page, 'Switch the spindle on');
  // A Hold that is pressed before this was taken comes first, and the program waits on.
  await Promise.all([
    page.waitForResponse(/\/api\/benches\/[^/]+\/command$/),
    page.getByRole('button', { name: 'It is done: go on' }).click(),
  ]);
};

const done = (page: Page) => expect(page.getByText(/Done\. It took/)).toBeVisible();

test('two benches run two jobs at the same time, one of them a program for each bit', async ({ shop, context }) => {
  const jobs = shop.url();
  // A bench without a tool setter, whose spindle is switched by hand: its height is zeroed for every bit.
  await shop.getByRole('link', { name: /Sundial face/ }).click();
  await choose(shop, 'Pavilion router');
  // From the drawing on, as on the first bench: a number is changed, and section, programs and log follow it.
  await goTo(shop, 'Cuts');
  const depth = shop.locator('[data-cut=hours]').getByLabel('depth', { exact: true });
  await depth.fill('0.4 + 0.2');
  await depth.press('Enter');
  await expect(shop.locator('[data-cut=hours] .facts')).toContainText('0.6 mm deepest');
  const written = await writePrograms(shop, ['sundial-face-1-v-60-12-7.nc', 'sundial-face-2-end-mill-6-35.nc']);
  expect(written[0]).toMatch(/Z-0\.6\b/);
  for (const program of written) expect(program).toMatch(/\(start the spindle at \d+ rpm\)\nM0/);
  await setUp(shop, 'V 60° 12.7');
  await goTo(shop, 'Run');
  const programs = shop.getByRole('group', { name: /One program a bit/ });
  await expect(programs.getByRole('radio')).toHaveCount(2);
  await expect(programs.getByRole('radio', { name: /^1 V 60/ })).toBeChecked();

  // Someone else at the first bench, with another job.
  const other = await context.newPage();
  await other.goto(jobs);
  await other.getByRole('link', { name: /Night-light plate/ }).click();
  await other.getByRole('link', { name: /^Set-up/ }).click();
  await expect(other.getByText('On the')).toContainText('which reaches 820 × 520 × 130');
  const first = await other.getByRole('button', { name: /^Put .* in the stand-in$/ }).count();
  if (first === 0) {
    const connect = other.getByRole('button', { name: 'Connect the stand-in router' });
    await connect.or(other.getByRole('button', { name: 'Home', exact: true })).waitFor();
    if (await connect.isVisible()) await connect.click();
  }
  const put = other.getByRole('button', { name: /^Put .* in the stand-in$/ });
  const bit = /^Put (.*) in the stand-in$/.exec(await put.innerText())![1];
  await setUp(other, bit);

  await startRun(shop);
  await spindleOn(shop);
  await shop.getByRole('button', { name: 'Hold' }).click();
  await expect(shop.getByRole('button', { name: 'Go on' })).toBeVisible();
  // Whatever becomes of the job meanwhile, what moves can be held here.
  await shop.getByRole('button', { name: 'Undo' }).click();
  await expect(shop.getByRole('button', { name: 'Redo' })).toBeEnabled();
  await shop.waitForTimeout(500);
  await expect(shop.getByRole('button', { name: 'Go on' })).toBeVisible();
  await shop.getByRole('button', { name: 'Redo' }).click();
  await expect(shop.getByRole('button', { name: 'Redo' })).toBeDisabled();
  // What goes on at that bench is seen from the other page, however late that hears of it.
  await feedAt(shop, 10);
  // Both are at it, each with its own Hold.
  await startRun(other);
  await expect(other.getByRole('button', { name: 'Go on' })).toHaveCount(0);
  const benches = await (await other.request.get(new URL('/api/benches', jobs).href)).json();
  expect(
    benches.benches.map(({ id, bench }: { id: string; bench: string }) => [id, bench.startsWith('held:')]),
  ).toEqual([
    ['dome-workshop', false],
    ['pavilion', true],
    ['iron-yard', false],
    ['lantern-room', false],
  ]);
  // What moves elsewhere is held from any page: of a job for another bench, and of one that is carried over by hand.
  const strip = other.getByRole('region', { name: 'Other machines' });
  await expect(strip).toContainText('Pavilion router is held, while it was running');
  await shop.getByRole('button', { name: 'Go on' }).click();
  await expect(strip).toContainText(/Pavilion router is (running|being)/);
  await strip.getByRole('button', { name: 'Hold Pavilion router' }).click();
  await expect(shop.getByRole('button', { name: 'Go on' })).toBeVisible();
  await expect(shop.getByRole('region', { name: 'Other machines' })).toContainText(
    /Dome workshop router is (running|waiting for a bit)/,
  );
  await feedAt(shop, 100);
  await shop.getByRole('button', { name: 'Go on' }).click();
  await doneWithoutThePage(shop);
  await expect(strip).toHaveCount(0);

  // The walk goes on with the next program: its bit, its height, its run.
  await expect(programs.getByRole('radio', { name: /^2 End mill/ })).toBeChecked();
  await expect(programs).toContainText('done');
  await expect(shop.getByText(/Next comes End mill 6\.35: put it in at Set-up, zero its height/)).toBeVisible();
  await goTo(shop, 'Set-up');
  await shop.getByLabel('bit to put in').selectOption({ label: 'End mill 6.35' });
  await prepareStandIn(shop, 'End mill 6.35');
  await touchOff(shop);
  await tickTheList(shop);
  await goTo(shop, 'Run');
  await programs.getByRole('radio', { name: /^2 End mill/ }).check();
  await startRun(shop);
  await spindleOn(shop);
  await holdBySpace(shop);
  await done(shop);

  // Each bench keeps its own record, and the log says which it was.
  await goTo(shop, 'Log');
  await expect(shop.getByRole('article')).toHaveCount(2);
  for (const entry of await shop.getByRole('article').all()) {
    await expect(entry).toContainText('Pavilion router');
    await expect(entry).toContainText('finished');
  }
  await noteInLog(shop, ['Pavilion router', 'End mill 6.35'], 'The rim wants a second pass.');
  // The first bench is left as others want to find it.
  await other.getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(other.getByText(/Stopped after line/)).toBeVisible();
  await atRest(other);
  await other.close();
});
