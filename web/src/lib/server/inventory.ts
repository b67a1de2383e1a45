import type { Kysely } from 'kysely';
import type { BaseBench } from '@kerbe/core/document/bench';
import { BenchSchema } from '@kerbe/core/machines/bench-schema';
import type { BaseTool } from '@kerbe/core/document/tool';
import { ToolSchema } from '@kerbe/core/tools/tool-schema';
import type { Tables } from './tables.ts';

/** The shop's table of bits, in its order. */
export async function bitsOf(db: Kysely<Tables>): Promise<BaseTool[]> {
  const rows = await db.selectFrom('bits').select('document').orderBy('position').execute();
  return rows.map(({ document }) => ToolSchema.parse(document));
}

/** The shop's benches, in their order. */
export async function benchesOf(db: Kysely<Tables>): Promise<BaseBench[]> {
  const rows = await db.selectFrom('benches').select('document').orderBy('position').execute();
  return rows.map(({ document }) => BenchSchema.parse(document));
}

/** Keeps how late the beam of a bench comes, s. @returns the bench; nothing where the shop has none of that name. */
export async function keepLag(db: Kysely<Tables>, id: string, lag: number): Promise<BaseBench | undefined> {
  return db.transaction().execute(async (within) => {
    const row = await within.selectFrom('benches').select('document').where('id', '=', id).forUpdate().executeTakeFirst(); // prettier-ignore
    if (!row) return undefined;
    const bench = { ...BenchSchema.parse(row.document), lag };
    await within
      .updateTable('benches')
      .set({ document: JSON.stringify(bench) })
      .where('id', '=', id)
      .execute();
    return bench;
  });
}

/** Keeps a bit in the shop's table: in the place of the one with its id, or last. */
export async function keepBit(db: Kysely<Tables>, bit: BaseTool): Promise<void> {
  const last = await db
    .selectFrom('bits')
    .select((eb) => eb.fn.max('position').as('last'))
    .executeTakeFirst();
  const document = JSON.stringify(bit);
  await db
    .insertInto('bits')
    .values({ id: bit.id, position: Number(last?.last ?? 0) + 1, document })
    .onConflict((c) => c.column('id').doUpdateSet({ document }))
    .execute();
}
