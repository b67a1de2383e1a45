import { DATA } from './paths.ts';
import { AlreadyRunning } from './shop-lock.ts';
import { type Shop, startShop } from './shop.ts';
import { startTrouble } from './start-trouble.ts';

/**
 * `./kerbe start`: starts the shop and prints its address; Ctrl-C stops all of it, also while it is being started. A second
 * start says where it is.
 */
export async function start(): Promise<void> {
  const ending = new AbortController();
  let shop: Shop | undefined;
  const stop = () => {
    ending.abort();
    if (!shop) return;
    shop.stop();
    process.exit(0);
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  process.on('SIGHUP', stop);
  try {
    shop = await startShop({
      data: DATA,
      web: 4180,
      database: 4190,
      rate: Number(process.env.KERBE_RATE ?? 1),
      seed: Date.now() % 100_000,
      signal: ending.signal,
    });
  } catch (error) {
    if (ending.signal.aborted) process.exit(0);
    if (!(error instanceof AlreadyRunning)) throw startTrouble(error as Error, DATA);
    console.log(`\n  ${error.message}\n`);
    return;
  }
  if (ending.signal.aborted) return stop();
  console.log(`\n  Kerbe is ready: ${shop.address}\n\n  Ctrl-C stops it.`);
  await new Promise(() => {});
}
