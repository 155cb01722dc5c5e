import { AS_THEY_COME, suppressibleKeysOf } from '@upper-field/core/pair'
import { sql } from 'drizzle-orm'
import type { PoolClient } from 'pg'
import { copyInto } from '../db/copy'
import { transaction } from '../db/database'
import { type ContactLines, linesOf } from '../projection/columns'
import { copyContacts, copyNumbersAndEmails } from '../projection/copyLines'
import { factsOfAddresses, factsOfNumbers } from '../projection/facts'
import type { BatchRow } from '../projection/rowCells'
import { viewOf } from '../projection/viewOf'
import type { Services } from '../services'
import { suppressionScopes } from '../suppression/matches'
import { BREATH, breathe, type ReadRow } from './readPiece'

/** Rows with the contacts they become, not stored yet. */
export interface ProjectedRows {
  readonly rows: readonly ReadRow[]
  readonly lines: readonly ContactLines[]
  /** Ids of the contacts, in the order of the rows. */
  readonly firstId: number
  readonly withMobile: number
}

/** Makes contacts of rows that have just been read; what the register knows of their numbers counts at once. */
export async function projectRows(
  services: Services,
  batch: BatchRow,
  rows: readonly ReadRow[],
): Promise<ProjectedRows> {
  const firstId = await takeContactIds(services, rows.length)
  const e164s = [...new Set(rows.flatMap(({ own }) => own.numbers.map(({ e164 }) => e164)))]
  const facts = await factsOfNumbers(services.db, e164s)
  const verified = await factsOfAddresses(services.db, [
    ...new Set(rows.flatMap(({ own }) => own.emails.map(({ address }) => address))),
  ])
  const scopesOf = await suppressionScopes(services.db, () => rows.flatMap(({ own }) => suppressibleKeysOf(own)))
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
  return { rows, lines, firstId, withMobile }
}

/** Stores rows and their contacts. */
export async function storeProjected(
  client: PoolClient,
  batch: BatchRow,
  { rows, lines }: ProjectedRows,
): Promise<void> {
  await copyInto(
    client,
    'rows',
    ['batch_id', 'row', 'text'],
    rows.map(({ row, text }) => [batch.id, row, text]),
  )
  await copyContacts(client, 'contacts', lines)
  await copyNumbersAndEmails(client, lines)
}

/** Reserves a run of ids, so that contacts stand in the order of their rows. */
async function takeContactIds({ pool }: Services, count: number): Promise<number> {
  if (count === 0) return 0
  return transaction(pool, async (tx) => {
    await tx.execute(sql`select pg_advisory_xact_lock(7415)`)
    const { rows: taken } = await tx.execute<{ last: string }>(
      sql`select setval('contact_ids', nextval('contact_ids') + ${count - 1}) as last`,
    )
    return Number(taken[0]?.last) - count + 1
  })
}
