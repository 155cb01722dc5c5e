import type { Batch, SameFile } from '@upper-field/contract'
import type { Db } from '../db/database'
import { readRows, text, when } from '../db/readRows'

/** Batches brought in from a file whose first megabyte and size are these. */
export async function filesLike(db: Db, fingerprint: string): Promise<SameFile[]> {
  const found = await readRows(db, { batchId: text, name: text, listId: text, listName: text, createdAt: when })`
    select b.id as batch_id, b.name, b.list_id, l.name as list_name, b.created_at from batches b join lists l on l.id = b.list_id
    where b.fingerprint = ${fingerprint} and b.state in ('queued', 'reading', 'ready') order by b.created_at limit 10`
  return found.map((one) => ({ ...one, createdAt: one.createdAt.toISOString() }))
}

/** For each batch of a list: the others that hold the same bytes, whatever list they are in. */
export async function sameFilesOf(db: Db, listId: string): Promise<Map<string, Batch['sameFile']>> {
  const rows = await readRows(db, { of: text, batchId: text, name: text, listName: text })`
    select b.id as of, o.id as batch_id, o.name, l.name as list_name from batches b
    join batches o on o.sha256 = b.sha256 and o.id <> b.id and o.state in ('queued', 'reading', 'ready')
    join lists l on l.id = o.list_id
    where b.list_id = ${listId} order by o.created_at`
  const found = new Map<string, Batch['sameFile']>()
  for (const { of, ...same } of rows) found.set(of, [...(found.get(of) ?? []), same])
  return found
}
