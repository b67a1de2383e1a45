import { DATA } from './paths.ts';
import { AlreadyRunning } from './shop-lock.ts';
import { type Shop, startShop } from './shop.ts';

/** `./kerbe start`: starts the shop and prints its address; Ctrl-C stops all of it. A second start says where it is. */
export async function start(): Promise<void> {
  let shop: Shop | undefined;
  let stopping = false;
  // Also while it is being started: what runs by then is stopped when the rest is there.
  const stop = () => {
    stopping = true;
    if (!shop) return;
    shop.stop();
    process.exit(0);
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  try {
    shop = await startShop({
      data: DATA,
      web: 4180,
      database: 4190,
      rate: Number(process.env.KERBE_RATE ?? 1),
      seed: Date.now() % 100_000,
    });
  } catch (error) {
    if (!(error instanceof AlreadyRunning)) throw error;
    console.log(`\n  ${error.message}\n`);
    return;
  }
  if (stopping) return stop();
  console.log(`\n  Kerbe is ready: ${shop.address}\n\n  Ctrl-C stops it.`);
  await new Promise(() => {});
}
