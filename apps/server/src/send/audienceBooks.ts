import { eq, sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { audiences } from '../db/schema'
import type { LineOut } from './difference'

/** Our books of what a network holds: lines that it took with a delivery. */
export async function holdMembers(
  tx: Db,
  delivery: { readonly id: string },
  audienceId: string,
  lines: readonly LineOut[],
): Promise<void> {
  await tx.execute(sql`
    insert into audience_members (audience_id, key, contact_id, cells, delivery_id)
    select ${audienceId}, decode(l.key, 'hex'), l.contact, l.cells, ${delivery.id}
    from jsonb_to_recordset(${JSON.stringify(
      lines.map(({ key, contactId, cells }) => ({ key, contact: contactId, cells })),
    )}::jsonb) as l (key text, contact bigint, cells text[])
    on conflict (audience_id, key) do update set since = now(), contact_id = excluded.contact_id, delivery_id = excluded.delivery_id`)
}

/** Lines that it took out. */
export async function dropMembers(tx: Db, audienceId: string, lines: readonly LineOut[]): Promise<void> {
  await tx.execute(sql`
    delete from audience_members where audience_id = ${audienceId}
      and key in (select decode(k, 'hex') from unnest(${sql.param(lines.map(({ key }) => key))}::text[]) as k)`)
}

/** A network no longer knows an audience: by our books nobody is in it, so that the next delivery sends everybody. */
export async function emptyBooks(tx: Db, audienceId: string, code: string): Promise<void> {
  await tx.execute(sql`delete from audience_members where audience_id = ${audienceId}`)
  await tx
    .update(audiences)
    .set({ remoteId: null, state: 'refused', reason: code, matched: null, lapsesAt: null, lookAt: null })
    .where(eq(audiences.id, audienceId))
}
