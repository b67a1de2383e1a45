import { expect, type Page } from '@playwright/test';

/** What a bench is at when the next test can begin. */
const AT_REST = ['off', 'lost', 'left', 'unhomed', 'ready'];

/**
 * After a test that failed: what it left on is stopped and cleared, so that the tests after it say what they find themselves.
 * @param page of that test; it commands, and lets go of the benches when it is closed.
 */
export async function leaveBenches(page: Page, address: string): Promise<void> {
  const { request } = page;
  const at = (path: string) => new URL(path, address).href;
  const own = await page.evaluate(() => sessionStorage.getItem('kerbe-page'));
  const headers = { 'x-kerbe-page': own ?? 'a-test', 'x-kerbe-name': '' };
  const tell = (bench: string, command: string) =>
    request.post(at(`/api/benches/${bench}/command`), { headers, data: { command } });
  await expect
    .poll(
      async () => {
        const { benches } = (await (await request.get(at('/api/benches'))).json()) as {
          benches: { id: string; bench: string }[];
        };
        const busy = benches.filter(({ bench }) => !AT_REST.includes(bench));
        for (const { id, bench } of busy) {
          await tell(id, 'stop');
          if (!['alarm', 'emergency'].includes(bench)) continue;
          const hand = { hand: 'emergency', pressed: false };
          await request.post(at(`/api/benches/${id}/stand-in`), { headers, data: hand });
          await tell(id, 'take');
          await tell(id, 'clear');
        }
        return busy.map(({ id, bench }) => `${id}: ${bench}`);
      },
      { intervals: [1000] },
    )
    .toEqual([]);
}
