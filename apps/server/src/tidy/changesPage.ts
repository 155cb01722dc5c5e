import type { ChangedPage } from '@upper-field/contract'
import type { ChangeCode } from '@upper-field/core/tidy'
import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { CURSOR, readCursor } from '../http/cursor'
import { tidiedContacts } from './tidiedContacts'

const PAGE = 60

/** Values one repair has changed, in the order of their rows: derived again from the rows, not kept. */
export async function pageOfChanges(
  db: Db,
  { listId, code, cursor }: { listId: string; code: ChangeCode; cursor: string | undefined },
): Promise<ChangedPage> {
  const [after = 0] = readCursor(cursor, [CURSOR.id]) ?? []
  const found = await tidiedContacts(
    db,
    listId,
    sql`c.changes @> array[${code}]::text[] and c.id > ${after} order by c.id limit ${PAGE}`,
  )
  const values = found.flatMap(({ id, batch, tidied, who }) =>
    tidied.changes
      .filter((one) => one.code === code)
      .map(({ column, was, is }) => ({
        contactId: id,
        batchId: batch.id,
        who,
        country: tidied.values.country,
        column,
        was: was.slice(0, 500),
        is: is.slice(0, 500),
      })),
  )
  return { values, next: found.length === PAGE ? String(found.at(-1)?.id) : null }
}
