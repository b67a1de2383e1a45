import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { loadAssets } from '$lib/server/assets';
import { answer } from '$lib/server/door';
import { shop } from '$lib/server/shop';

/** A drawing's bytes, as a download only: a browser must never show an uploaded file as a page. */
export const GET = ({ params }) =>
  answer(async () => {
    const hash = z
      .string()
      .regex(/^[0-9a-f]{64}$/)
      .parse(params.hash);
    const asset = (await loadAssets(await shop(), [hash])).get(hash);
    if (!asset) return json({ problem: 'This drawing is not kept here.' }, { status: 404 });
    return new Response(new Uint8Array(asset.bytes), {
      headers: {
        'content-type': 'application/octet-stream',
        'content-disposition': 'attachment',
        'content-security-policy': "default-src 'none'; sandbox",
        'cache-control': 'private, max-age=31536000, immutable',
      },
    });
  });
