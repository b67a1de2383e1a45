import { DATA } from './paths.ts';
import { startShop } from './shop.ts';

/** `./kerbe start`: starts the shop and prints its address; Ctrl-C stops all of it. */
export async function start(): Promise<void> {
  const shop = await startShop({
    data: DATA,
    web: 4180,
    database: 4190,
    rate: Number(process.env.KERBE_RATE ?? 1),
    seed: Date.now() % 100_000,
  });
  console.log(`\n  Kerbe is ready: ${shop.address}\n\n  Ctrl-C stops it.`);
  let stopping = false;
  const stop = () => {
    if (stopping) return;
    stopping = true;
    shop.stop();
    process.exit(0);
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  for (const [name, child] of Object.entries(shop.processes))
    child.on('exit', (code) => {
      if (stopping) return;
      console.error(`The ${name} process ended (${code}); everything is stopped. Start again with ./kerbe start.`);
      stop();
    });
  await new Promise(() => {});
}
