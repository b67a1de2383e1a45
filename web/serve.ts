import { createServer } from 'node:http';
import { processFile } from '@kerbe/machine/process-file';

/**
 * The built web application as a process: `serve.ts --port N`, on loopback. A worker's script is answered with a policy
 * of its own, since the geometry library's bindings are made at run time; pages keep the strict one.
 */
const port = Number(process.argv[process.argv.indexOf('--port') + 1] || 0);

const WORKER_POLICY = "default-src 'none'; script-src 'self' 'unsafe-eval' 'wasm-unsafe-eval'; connect-src 'self'";

/** Most bytes of any body, in MB. */
const MOST = 81;
process.env.BODY_SIZE_LIMIT ??= `${MOST}M`;
process.env.KERBE_HEAVY ??= processFile(new URL('./src/lib/server/heavy/worker.ts', import.meta.url));

const server = createServer((request, response) => {
  if (Number(request.headers['content-length'] ?? 0) > MOST * 1_048_576) {
    // Heard to its end, though for nothing: who is cut off while sending never reads why.
    request.resume();
    response.writeHead(413, { 'content-type': 'application/json', connection: 'close' });
    request.once('end', () => {
      response.end(
        JSON.stringify({
          problem: `This is larger than anything that is taken (${MOST} MB); make it smaller and try again.`,
        }),
      );
    });
    return;
  }
  if ((request.url ?? '').startsWith('/_app/immutable/workers/'))
    response.setHeader('content-security-policy', WORKER_POLICY);
  void handler.then((handle) => handle(request, response));
});

type Handler = (request: unknown, response: unknown) => void;
let ready: (handle: Handler) => void;
const handler = new Promise<Handler>((resolve) => (ready = resolve));

server.listen(port, '127.0.0.1', () => {
  const address = server.address();
  const at = typeof address === 'object' && address ? address.port : port;
  // The application reads its own address when it is loaded.
  process.env.ORIGIN = `http://127.0.0.1:${at}`;
  const built = new URL('./build/handler.js', import.meta.url).href;
  void import(built).then(({ handler: handle }: { handler: Handler }) => {
    ready(handle);
    console.log(JSON.stringify({ listening: at }));
  });
});
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => process.exit(0));
