import { json } from '@sveltejs/kit';
import { importSvg, LARGEST_DRAWING } from '@kerbe/core/artwork/svg';
import { ArtworkError } from '@kerbe/core/artwork/artwork-error';
import { keepAsset } from '$lib/server/assets';
import { answer } from '$lib/server/door';
import { shop } from '$lib/server/shop';

/** Keeps a drawing, after reading it once to be sure that it is one. */
export const POST = ({ request, url }) =>
  answer(async () => {
    const name = (url.searchParams.get('name') ?? 'drawing.svg').slice(0, 120);
    if (Number(request.headers.get('content-length') ?? 0) > 4 * LARGEST_DRAWING)
      throw new ArtworkError(
        'The drawing is far too large; simplify its paths where it was drawn and import it again.',
      );
    const bytes = new Uint8Array(await request.arrayBuffer());
    const { width, height, shapes, notes } = importSvg(bytes);
    return json({ hash: await keepAsset(await shop(), name, bytes), width, height, shapes: shapes.length, notes });
  });
