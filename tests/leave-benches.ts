import type { APIRequestContext } from '@playwright/test';
import { expect } from '@playwright/test';

/** Who tidies up: a page of its own, which nobody looks at. */
const HEADERS = { 'x-kerbe-page': 'whoever-tidies-up', 'x-kerbe-name': '' };
/** What a bench is at when the next test can begin. */
const AT_REST = ['off', 'lost', 'left', 'unhomed', 'ready'];

/** After a test that failed: what it left on is stopped and cleared, so that the tests after it say what they find themselves. */
export async function leaveBenches(request: APIRequestContext, address: string): Promise<void> {
  const at = (path: string) => new URL(path, address).href;
  const tell = (bench: string, command: string) =>
    request.post(at(`/api/benches/${bench}/command`), { headers: HEADERS, data: { command } });
  await expect
    .poll(
      async () => {
        const { benches } = (await (await request.get(at('/api/benches'))).json()) as {
          benches: { id: string; bench: string }[];
        };
        const busy = benches.filter(({ bench }) => !AT_REST.includes(bench));
        for (const { id } of busy) {
          await tell(id, 'stop');
          const hand = { hand: 'emergency', pressed: false };
          await request.post(at(`/api/benches/${id}/stand-in`), { headers: HEADERS, data: hand });
          await tell(id, 'take');
          await tell(id, 'clear');
        }
        return busy.map(({ id, bench }) => `${id}: ${bench}`);
      },
      { intervals: [1000] },
    )
    .toEqual([]);
}
