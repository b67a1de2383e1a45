import { json } from '@sveltejs/kit';
import { ToolSchema } from '@kerbe/core/tools/tool-schema';
import { MOST_BYTES, taken } from '$lib/server/body';
import { answer } from '$lib/server/door';
import { keepBit } from '$lib/server/inventory';
import { shop } from '$lib/server/shop';

/** Keeps a bit in the shop's table, for later jobs. */
export const PUT = ({ params, request }) =>
  answer(async () => {
    const bit = await taken(request, ToolSchema, MOST_BYTES.bit);
    if (bit.id !== params.id) return json({ problem: 'The bit’s name in the address is another.' }, { status: 400 });
    await keepBit(await shop(), bit);
    return json(bit);
  });
