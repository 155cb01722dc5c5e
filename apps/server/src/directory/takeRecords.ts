import type { AnswerItem } from '@upper-field/core/connect'
import type { Mapping } from '@upper-field/core/table'
import { and, eq, isNull, sql } from 'drizzle-orm'
import { begunOrNew, growBatch } from '../bring/ownBatch'
import { directoryRecords, directorySearches } from '../db/schema'
import type { BatchRow } from '../projection/rowCells'
import type { Services } from '../services'
import type { SearchRow } from './findSearch'
import { textOf } from './judgeRecords'

interface Column {
  readonly heading: string
  readonly field: Mapping[number]
  readonly from: keyof AnswerItem
}

/** The columns of a batch from a directory, and where each stands in what is told. */
const COLUMNS: readonly Column[] = [
  { heading: 'Business', field: 'company', from: 'name' },
  { heading: 'Telephone', field: 'number', from: 'number' },
  { heading: 'E-mail', field: 'email', from: 'email' },
  { heading: 'Site', field: 'web', from: 'site' },
  { heading: 'Street', field: 'street', from: 'address' },
  { heading: 'Postal code', field: 'postal-code', from: 'postalCode' },
  { heading: 'City', field: 'city', from: 'city' },
  { heading: 'Country', field: 'country', from: 'country' },
  { heading: 'Trade', field: 'industry', from: 'trade' },
  { heading: 'Head office', field: null, from: 'headOffice' },
  { heading: 'Record', field: null, from: 'record' },
]

/** Makes rows of the businesses that are taken and have none yet, in the search's own batch. */
export async function takeRecords(services: Services, search: SearchRow): Promise<void> {
  const { db } = services
  const waiting = await db
    .select()
    .from(directoryRecords)
    .where(
      and(
        eq(directoryRecords.searchId, search.id),
        eq(directoryRecords.state, 'taken'),
        isNull(directoryRecords.contactId),
      ),
    )
    .orderBy(directoryRecords.id)
  if (waiting.length === 0) return
  const batch = await batchFor(services, search)
  const cells = waiting.map(({ facts }) => COLUMNS.map(({ from }) => textOf(facts, from)))
  await growBatch(services, batch, cells, async (tx, contactIds, start) => {
    const records = waiting.slice(start, start + contactIds.length).map(({ id }) => id)
    await tx.execute(sql`
      update directory_records r set contact_id = made.contact_id
      from unnest(${sql.param(records)}::bigint[], ${sql.param([...contactIds])}::bigint[]) made (id, contact_id)
      where r.id = made.id`)
  })
}

/** The search's own batch. */
function batchFor(services: Services, search: SearchRow): Promise<BatchRow> {
  const facts = {
    listId: search.listId,
    name: search.name,
    columns: COLUMNS,
    sourceKind: 'bought',
    gatheredOn: new Date(services.now()).toISOString().slice(0, 10),
    lawfulBasis: 'not-stated',
    note: `${search.trade.name}, ${search.place.name}: from the directory "${search.provider}".`,
  }
  return begunOrNew(services, search.batchId, facts, async (tx, batchId) => {
    await tx.update(directorySearches).set({ batchId }).where(eq(directorySearches.id, search.id))
  })
}
