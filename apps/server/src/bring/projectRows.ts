import { AS_THEY_COME, suppressibleKeysOf } from '@upper-field/core/pair'
import { sql } from 'drizzle-orm'
import type { Pool } from 'pg'
import { BREATH, breathe } from '../breathe'
import { type CopyBytes, copyBytesOf } from '../db/copy'
import { type Db, transaction } from '../db/database'
import { readCount } from '../db/readRows'
import { type ContactLines, linesOf } from '../projection/columns'
import { contactCopy, reachCopies } from '../projection/copyLines'
import { factsOfAddresses, factsOfNumbers } from '../projection/facts'
import type { BatchRow } from '../projection/rowCells'
import { viewOf } from '../projection/viewOf'
import { suppressionScopes } from '../suppression/matches'
import type { ReadRow } from './readPiece'

/** Rows with the contacts they become, written out to be stored. */
export interface ProjectedRows {
  readonly copies: readonly CopyBytes[]
  /** How many of them have a mobile. */
  readonly withMobile: number
}

/**
 * Makes contacts of rows that have just been read; what the register knows of their numbers counts at once.
 * @param firstId the id of the first; the others follow in the order of the rows
 */
export async function projectRows(
  db: Db,
  batch: BatchRow,
  rows: readonly ReadRow[],
  firstId: number,
): Promise<ProjectedRows> {
  const e164s = [...new Set(rows.flatMap(({ own }) => own.numbers.map(({ e164 }) => e164)))]
  const facts = await factsOfNumbers(db, e164s)
  const verified = await factsOfAddresses(db, [
    ...new Set(rows.flatMap(({ own }) => own.emails.map(({ address }) => address))),
  ])
  const scopesOf = await suppressionScopes(db, () => rows.flatMap(({ own }) => suppressibleKeysOf(own)))
  const lines: ContactLines[] = []
  const factsOf = (e164: string) => facts.get(e164)
  const verifiedAs = (address: string) => verified.get(address)?.deliverability
  for (const [i, { row, own }] of rows.entries()) {
    const key = { id: firstId + i, listId: batch.listId, batchId: batch.id, row }
    const alone = { own: { id: key.id, projected: own }, members: [], fills: [], how: AS_THEY_COME }
    lines.push(linesOf(key, viewOf({ ...alone, factsOf, verifiedAs, isShared: () => false, scopesOf }), 0))
    if (i % BREATH === 0) await breathe()
  }
  const withMobile = rows.filter(({ own }) =>
    own.numbers.some(({ valid, lineType }) => valid && lineType === 'mobile'),
  ).length
  const own = copyBytesOf(
    'rows',
    ['batch_id', 'row', 'text'],
    rows.map(({ row, text }) => [batch.id, row, text]),
  )
  return { copies: [own, contactCopy('contacts', lines), ...reachCopies(lines)], withMobile }
}

/** Reserves a run of ids, so that contacts stand in the order of their rows. @returns the first */
export async function takeContactIds(pool: Pool, count: number): Promise<number> {
  if (count === 0) return 0
  return transaction(pool, async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(7415)`)
    const last = await readCount(tx)`select setval('contact_ids', nextval('contact_ids') + ${count - 1}) as n`
    return last - count + 1
  })
}
