import { untrack } from 'svelte';
import type { Workplace } from './workplace.svelte';

/** Lines across the stock that are tried, and samples of each. */
const TRIED = 11;
const COUNT = 240;

/** A height changes by more than this from one sample to the next where a groove begins or ends, mm. */
const STEP = 0.05;

/** Whether any of a straight line lies over a stock. @example crosses({ x0: -5, y0: 5, x1: 20, y1: 5 }, 10, 10) // true */
export function crosses(
  { x0, y0, x1, y1 }: { x0: number; y0: number; x1: number; y1: number },
  length: number,
  width: number,
): boolean {
  return Array.from({ length: 51 }, (_, k) => k / 50).some((t) => {
    const [x, y] = [x0 + (x1 - x0) * t, y0 + (y1 - y0) * t];
    return x >= 0 && y >= 0 && x <= length && y <= width;
  });
}

/**
 * Keeps the chalk line where its section tells something: once another drawing or another stock is computed it goes to where
 * it tells most, unless someone has put it where it is and it crosses the stock still.
 */
export function keepChalk(workplace: Workplace): void {
  const { session } = workplace;
  const drawnOn = () => JSON.stringify([session.job.stock.length, session.job.stock.width, session.job.artwork]);
  let laidFor = drawnOn();
  const layAnew = async (): Promise<void> => {
    const wanted = laidFor;
    const { length, width } = session.job.stock;
    let best = { share: 0.6, told: 0 };
    for (let k = 0; k < TRIED; k++) {
      const share = (k + 0.5) / TRIED;
      const found = await session.ask('section', 0, width * share, length, width * share, COUNT);
      if (wanted !== laidFor || !found) return;
      const carved = found.heights.map((height, i) => height - found.thickness[i]);
      const steps = carved.reduce((sum, at, i) => sum + (i > 0 && Math.abs(at - carved[i - 1]) > STEP ? 1 : 0), 0);
      const told = steps + 3 * found.marks.length;
      if (told > best.told) best = { share, told };
    }
    workplace.layChalk(best.share);
  };
  $effect(() => {
    if (!session.current || laidFor === untrack(drawnOn)) return;
    laidFor = untrack(drawnOn);
    const { length, width } = untrack(() => session.job.stock);
    if (untrack(() => workplace.chalkByHand && crosses(workplace.chalk, length, width))) return;
    void layAnew();
  });
}
