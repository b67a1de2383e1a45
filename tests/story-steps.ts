import { readFileSync } from 'node:fs';
import type { BrowserContext, Page } from '@playwright/test';
import { computed, expect, goTo, setUp, startRun } from './kerbe.ts';

/** Proof: nothing that must be mended; the programs are written and come down. */
export async function writePrograms(page: Page, names: string[]): Promise<string[]> {
  await goTo(page, 'Proof');
  await expect(page.getByText('Mend:')).toHaveCount(0);
  await page.getByRole('button', { name: 'Write the program' }).click();
  const programs: string[] = [];
  for (const name of names) {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name, exact: true }).click(),
    ]);
    programs.push(readFileSync(await download.path(), 'utf8'));
  }
  return programs;
}

/** Held by Space from wherever the focus is, seen from another stop, and gone on with. */
export async function holdBySpace(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Slower', exact: true }).focus();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Go on' })).toBeVisible();
  await expect(page.getByText('100 %').first()).toBeVisible();
  await goTo(page, 'Artwork');
  await expect(page.getByRole('button', { name: 'Hold', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Go on' }).click();
  await goTo(page, 'Run');
}

/** Closing the page does not stop the run. */
export async function doneWithoutThePage(page: Page): Promise<void> {
  const address = page.url();
  // What was pressed last has arrived: a page that is left takes what it had not sent yet with it.
  await expect(page.getByRole('button', { name: 'Go on' })).toHaveCount(0);
  await expect(page.getByRole('heading', { name: /^Bit change/ })).toHaveCount(0);
  await page.goto('about:blank');
  await page.waitForTimeout(1000);
  await page.goto(address);
  await expect(page.getByText(/Done\. It took/)).toBeVisible();
}

/** The log knows of the last run, and keeps a note. */
export async function noteInLog(page: Page, knows: (string | RegExp)[], note: string): Promise<void> {
  await goTo(page, 'Log');
  const entry = page.getByRole('article').first();
  await expect(entry).toContainText('finished');
  for (const known of knows) await expect(entry).toContainText(known);
  await entry.getByLabel('What came out, what to change').fill(note);
  await entry.getByLabel('What came out, what to change').press('Tab');
  await expect(page.getByText('Note kept.')).toBeVisible();
  await page.reload();
  await expect(page.getByRole('article').first().getByLabel('What came out, what to change')).toHaveValue(note);
}

/** Somebody else carves the entrance board, on a page and a bench of their own. @param jobs address of the list of jobs. */
export async function carveMeanwhile(context: BrowserContext, jobs: string): Promise<Page> {
  const other = await context.newPage();
  await other.goto(jobs);
  await other.getByRole('link', { name: /Entrance board/ }).click();
  await computed(other);
  await setUp(other, 'V 60° 12.7');
  await startRun(other);
  return other;
}
