import { AS_THEY_COME, type HowToSurvive } from '@upper-field/core/pair'
import type { ProjectedContact, Settled } from '@upper-field/core/tidy'
import { inArray, sql } from 'drizzle-orm'
import { BREATH, breathe } from '../breathe'
import type { Db } from '../db/database'
import { inPages } from '../db/inPages'
import { num, orNull, type RowOf, readRows, text } from '../db/readRows'
import { batches } from '../db/schema'
import type { Turn } from '../db/takingTurns'
import { ROWS_HELD, standingFor } from '../pair/standsFor'
import type { ContactKey } from './columns'
import { allMembers, type Members, NO_MEMBERS, tellingMembers } from './members'
import { type BatchSettings, projectStored, settingsOf } from './rowCells'
import { survivorshipOf } from './survivorship'
import { settledOf, type Tidying, tidyingOf } from './tidying'
import type { SourceRow } from './viewOf'

const STORED = { id: num, listId: text, batchId: text, row: num, text, joinedInto: orNull(num) }
type StoredContact = RowOf<typeof STORED>
type StoredKey = Omit<StoredContact, 'text'>

/** How the rows of each batch become contacts. */
export type KnownBatches = Map<string, BatchSettings>

/** A contact with the rows it is made of, tidied, and how they become one. */
export interface MadeOfRows {
  readonly key: ContactKey
  readonly own: SourceRow
  readonly members: Members
  readonly how: HowToSurvive
}

/** A contact that stands for its own row alone, which is tidied already. */
export const madeOfOne = (key: ContactKey, projected: ProjectedContact): MadeOfRows => ({
  key,
  own: { id: key.id, projected },
  members: NO_MEMBERS,
  how: AS_THEY_COME,
})

/**
 * Reads the rows that contacts are made of, and tidies them.
 * @param turn taken for what is asked of the database: the rows are tidied while others have it
 * @param known learnt of batches so far, and kept up here
 */
export async function tidiedRows(
  tx: Db,
  turn: Turn,
  ids: readonly number[],
  known: KnownBatches,
): Promise<readonly MadeOfRows[]> {
  const { all, survivors } = await turn(() => standingFor(tx, ids))
  const survivorship = await turn(() => survivorshipOf(tx, survivors))
  const members = all.length > ROWS_HELD ? tellingMembers(survivorship.isChosen) : allMembers()
  const wanted = new Set(ids)
  const own = new Map<number, { readonly key: ContactKey; readonly own: SourceRow }>()
  for (const page of inPages(all, ROWS_HELD)) {
    const part = await turn(() => readPart(tx, page, known))
    for (const [key, row] of await tidyPart(part, known)) {
      if (wanted.has(key.id)) own.set(key.id, { key, own: row })
      if (key.joinedInto !== null) members.add(key.joinedInto, row)
    }
  }
  return [...own.values()].map((one) => {
    const mine = members.of(one.key.id)
    const how = survivorship.of(
      one.key.listId,
      [one.own, ...mine.rows].map(({ id }) => id),
    )
    return { ...one, members: mine, how }
  })
}

/** What is stored of some rows, and what people have settled for them. */
interface ReadPart {
  readonly stored: readonly StoredContact[]
  readonly settled: ReadonlyMap<number, Settled>
}

async function readPart(tx: Db, ids: readonly number[], known: KnownBatches): Promise<ReadPart> {
  const stored = await readStored(tx, ids)
  await learnBatches(tx, [...new Set(stored.map(({ batchId }) => batchId))], known)
  const settled = await settledOf(
    tx,
    stored.map(({ id }) => id),
  )
  return { stored, settled }
}

/** The rows tidied, each with whose it is. */
async function tidyPart(
  { stored, settled }: ReadPart,
  known: KnownBatches,
): Promise<readonly (readonly [StoredKey, SourceRow])[]> {
  const tidied: (readonly [StoredKey, SourceRow])[] = []
  // Thousands of rows of one person are often one row, written again and again.
  const same = new Map<string, ProjectedContact>()
  for (const [i, { text, ...key }] of stored.entries()) {
    if (i % BREATH === 0) await breathe()
    const how = known.get(key.batchId)
    if (!how) continue
    const own = settled.get(key.id)
    const line = `${key.batchId}\n${text}`
    const row = (own ? null : same.get(line)) ?? projectStored(text, how, own)
    if (!own) same.set(line, row)
    tidied.push([key, { id: key.id, projected: row }])
  }
  return tidied
}

/** Contacts with the row each stands for, in order. */
async function readStored(tx: Db, ids: readonly number[]): Promise<readonly StoredContact[]> {
  return readRows(tx, STORED)`
    select c.id, c.list_id, c.batch_id, c.row, r.text, c.joined_into
    from contacts c join rows r on r.batch_id = c.batch_id and r.row = c.row
    where c.id = any(${sql.param(ids)}::bigint[]) order by c.id`
}

/** Reads what is not known of these batches yet: nothing of it changes while contacts are projected. */
async function learnBatches(tx: Db, batchIds: readonly string[], known: KnownBatches): Promise<void> {
  const unknown = batchIds.filter((id) => !known.has(id))
  if (unknown.length === 0) return
  const found = await tx.select().from(batches).where(inArray(batches.id, unknown))
  // What is learnt of a number touches every list that holds it, and each has a routine of its own.
  const tidyings = new Map<string, Tidying>()
  for (const { listId } of found) if (!tidyings.has(listId)) tidyings.set(listId, await tidyingOf(tx, listId))
  for (const batch of found) {
    const tidying = tidyings.get(batch.listId)
    if (tidying) known.set(batch.id, settingsOf(batch, tidying))
  }
}
