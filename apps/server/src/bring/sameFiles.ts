import type { Batch, SameFile } from '@upper-field/contract'
import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'

/** Batches brought in from a file whose first megabyte and size are these. */
export async function filesLike(db: Db, fingerprint: string): Promise<SameFile[]> {
  const { rows } = await db.execute<{
    id: string
    name: string
    list_id: string
    list_name: string
    created_at: string
  }>(sql`
    select b.id, b.name, b.list_id, l.name as list_name, b.created_at from batches b join lists l on l.id = b.list_id
    where b.fingerprint = ${fingerprint} and b.state in ('queued', 'reading', 'ready') order by b.created_at limit 10`)
  return rows.map((row) => ({
    batchId: row.id,
    name: row.name,
    listId: row.list_id,
    listName: row.list_name,
    createdAt: new Date(row.created_at).toISOString(),
  }))
}

/** For each batch of a list: the others that hold the same bytes, whatever list they are in. */
export async function sameFilesOf(db: Db, listId: string): Promise<Map<string, Batch['sameFile']>> {
  const { rows } = await db.execute<{ id: string; other: string; name: string; list_name: string }>(sql`
    select b.id, o.id as other, o.name, l.name as list_name from batches b
    join batches o on o.sha256 = b.sha256 and o.id <> b.id and o.state in ('queued', 'reading', 'ready')
    join lists l on l.id = o.list_id
    where b.list_id = ${listId} order by o.created_at`)
  const found = new Map<string, Batch['sameFile']>()
  for (const row of rows) {
    const same = { batchId: row.other, name: row.name, listName: row.list_name }
    found.set(row.id, [...(found.get(row.id) ?? []), same])
  }
  return found
}
