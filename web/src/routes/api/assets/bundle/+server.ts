import { z } from 'zod';
import { loadAssets } from '$lib/server/assets';
import { MOST_BYTES, taken } from '$lib/server/body';
import { answer } from '$lib/server/door';
import { shop } from '$lib/server/shop';

const WantedSchema = z.object({ hashes: z.array(z.string().regex(/^[0-9a-f]{64}$/)).max(500) });

/** A job may have so many; together they are no longer than this, bytes, and what comes after is left out. */
const MOST = 100_000_000;

/** Many drawings in one answer, in the order asked for: of each its length (uint32, little-endian; 0 of one that is not kept here), then its bytes. */
export const POST = ({ request }) =>
  answer(async () => {
    const { hashes } = await taken(request, WantedSchema, MOST_BYTES.text);
    const assets = await loadAssets(await shop(), hashes);
    const parts: Uint8Array[] = [];
    let total = 0;
    for (const hash of hashes) {
      const bytes = assets.get(hash)?.bytes;
      const fits = bytes !== undefined && total + bytes.length <= MOST;
      const length = new Uint8Array(4);
      if (fits) {
        total += bytes.length;
        new DataView(length.buffer).setUint32(0, bytes.length, true);
      }
      parts.push(length);
      if (fits) parts.push(bytes);
    }
    return new Response(Buffer.concat(parts), {
      headers: {
        'content-type': 'application/octet-stream',
        'content-disposition': 'attachment',
        'content-security-policy': "default-src 'none'; sandbox",
      },
    });
  });
