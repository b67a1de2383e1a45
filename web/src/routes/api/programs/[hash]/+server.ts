import { createReadStream } from 'node:fs';
import { access } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { json } from '@sveltejs/kit';
import { config } from '$lib/server/config';
import { answer } from '$lib/server/door';
import { programName, programText } from '$lib/server/program-text';
import { shop } from '$lib/server/shop';

/** A program's text, for ever under its hash: from its file, which may be long, or else as the database keeps it. */
export const GET = ({ params: { hash } }) =>
  answer(async () => {
    const none = () => json({ problem: 'This program is not kept here.' }, { status: 404 });
    if (!/^[0-9a-f]{64}$/.test(hash)) return none();
    const db = await shop();
    const name = await programName(db, hash);
    if (name === undefined) return none();
    const headers = {
      'content-type': 'text/plain; charset=utf-8',
      'content-disposition': `attachment; filename="${name}"`,
    };
    const file = join(config().KERBE_PROGRAMS, `${hash}.nc`);
    const isThere = await access(file).then(
      () => true,
      () => false,
    );
    if (isThere) return new Response(Readable.toWeb(createReadStream(file)) as ReadableStream, { headers });
    return new Response(await programText(db, hash), { headers });
  });
