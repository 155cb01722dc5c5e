import type { HandItem, HandPage } from '@upper-field/contract'
import { fieldOf, slipKey } from '@upper-field/core/tidy'
import { type SQL, sql } from 'drizzle-orm'
import { isShown } from '../contacts/shown'
import type { Db } from '../db/database'
import { readCount } from '../db/readRows'
import { CURSOR, readCursor } from '../http/cursor'
import { type TidiedContact, tidiedContacts } from './tidiedContacts'

const PAGE = 40
/** Contacts that are tidied again at a time. */
const TIDIED_AT_ONCE = 1000

/** Cells that need a person, the most promising first. */
export async function pageOfHand(db: Db, listId: string, cursor: string | undefined): Promise<HandPage> {
  const [rank = 9, after = 0] = readCursor(cursor, [CURSOR.id, CURSOR.id]) ?? []
  const found = await tidiedContacts(
    db,
    listId,
    sql`c.hand > 0 and (c.hand < ${rank} or (c.hand = ${rank} and c.id > ${after})) order by c.hand desc nulls last, c.id limit ${PAGE}`,
  )
  const last = found.at(-1)
  return {
    items: found.flatMap(itemsOf),
    next: found.length === PAGE && last ? `${last.tidied.hand[0]?.rank ?? 1}/${last.id}` : null,
    total: await totalOf(db, listId),
  }
}

async function totalOf(db: Db, listId: string): Promise<number> {
  return readCount(db)`
    select coalesce(sum(contacts), 0) as n from tidy_counts where list_id = ${listId} and code = 'hand'`
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

/** A slip that many cells may hold: what is wrong, and how it is mended. */
export interface Slip {
  readonly kind: string
  readonly problem: string
}

const withSlip = (listId: string, { kind, problem }: Slip): SQL =>
  sql`c.list_id = ${listId} and c.hand_slip = ${slipKey(problem, kind)}`

/** How many contacts need the same hand for the same slip: told when they were projected, not by tidying them again. */
export async function countAlike(db: Db, listId: string, slip: Slip): Promise<number> {
  return readCount(db)`
    select count(*) as n from contacts c where ${withSlip(listId, slip)} and ${isShown('c')}`
}

/** The likeliest mending of every cell with the same slip, page by page, until there are no more. */
export async function* alikeFixes(
  db: Db,
  listId: string,
  slip: Slip,
): AsyncGenerator<readonly { readonly contactId: number; readonly column: string; readonly value: string }[]> {
  for (let after = 0; ; ) {
    const found = await tidiedContacts(
      db,
      listId,
      sql`${withSlip(listId, slip)} and c.id > ${after} order by c.id limit ${TIDIED_AT_ONCE}`,
    )
    if (found.length === 0) return
    yield found
      .flatMap(itemsOf)
      .filter((item) => item.problem === slip.problem && item.fixes[0]?.kind === slip.kind)
      .map(({ contactId, column, fixes }) => ({ contactId, column, value: fixes[0]?.text ?? '' }))
    after = found.at(-1)?.id ?? after
  }
}
