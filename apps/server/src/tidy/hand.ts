import type { HandItem, HandPage } from '@upper-field/contract'
import { fieldOf } from '@upper-field/core/tidy'
import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { CURSOR, readCursor } from '../http/cursor'
import { type TidiedContact, tidiedContacts } from './tidiedContacts'

const PAGE = 40
/** So many contacts are looked through for the same slip. */
const MOST_ALIKE = 5000

/** Cells that need a person, the most promising first. */
export async function pageOfHand(db: Db, listId: string, cursor: string | undefined): Promise<HandPage> {
  const [rank = 9, after = 0] = readCursor(cursor, [CURSOR.id, CURSOR.id]) ?? []
  const found = await tidiedContacts(
    db,
    listId,
    sql`c.hand > 0 and (c.hand < ${rank} or (c.hand = ${rank} and c.id > ${after})) order by c.hand desc, c.id limit ${PAGE}`,
  )
  const last = found.at(-1)
  return {
    items: found.flatMap(itemsOf),
    next: found.length === PAGE && last ? `${last.tidied.hand[0]?.rank ?? 1}/${last.id}` : null,
    total: await totalOf(db, listId),
  }
}

async function totalOf(db: Db, listId: string): Promise<number> {
  const { rows } = await db.execute<{ n: string }>(
    sql`select coalesce(sum(contacts), 0) as n from tidy_counts where list_id = ${listId} and code = 'hand'`,
  )
  return Number(rows[0]?.n ?? 0)
}

/** A contact's first cell that needs a person; its others come when this one is settled. */
function itemsOf({ id, row, batch, settings, tidied, who }: TidiedContact): HandItem[] {
  const [cell] = tidied.hand
  if (!cell) return []
  const column = settings.tidier.columns[cell.column] ?? ''
  return [
    {
      contactId: id,
      batch: batch.name,
      row,
      who,
      country: tidied.values.country,
      column,
      isNumber: fieldOf(column) === 'number',
      raw: cell.raw.slice(0, 500),
      problem: cell.problem,
      fixes: cell.fixes.map(({ kind, text }) => ({ kind, text })),
    },
  ]
}

/** The likeliest mending of every cell with the same slip. */
export async function alikeFixes(
  db: Db,
  listId: string,
  { kind, problem }: { kind: string; problem: string },
): Promise<{ contactId: number; column: string; value: string }[]> {
  const found = await tidiedContacts(db, listId, sql`c.hand >= 2 order by c.hand desc, c.id limit ${MOST_ALIKE}`)
  return found
    .flatMap(itemsOf)
    .filter((item) => item.problem === problem && item.fixes[0]?.kind === kind)
    .map(({ contactId, column, fixes }) => ({ contactId, column, value: fixes[0]?.text ?? '' }))
}
