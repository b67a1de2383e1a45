import { json } from '@sveltejs/kit';
import { answer } from '$lib/server/door';
import { shop } from '$lib/server/shop';

/** A program's text, for ever under its hash. */
export const GET = ({ params }) =>
  answer(async () => {
    if (!/^[0-9a-f]{64}$/.test(params.hash))
      return json({ problem: 'This program is not kept here.' }, { status: 404 });
    const db = await shop();
    const row = await db
      .selectFrom('programs')
      .select(['name', 'text'])
      .where('hash', '=', params.hash)
      .executeTakeFirst();
    if (!row) return json({ problem: 'This program is not kept here.' }, { status: 404 });
    return new Response(row.text, {
      headers: {
        'content-type': 'text/plain; charset=utf-8',
        'content-disposition': `attachment; filename="${row.name}"`,
      },
    });
  });
