import type { Mapping } from '@upper-field/core/table'
import { eq, sql } from 'drizzle-orm'
import { type Db, transaction } from '../db/database'
import { isThereAlready } from '../db/errors'
import { readCount } from '../db/readRows'
import { batches } from '../db/schema'
import type { BatchRow } from '../projection/rowCells'
import type { Services } from '../services'
import { addRows } from './addRows'

/** A batch that no file is behind: its rows come from the application itself. */
export interface OwnBatch {
  readonly listId: string
  readonly name: string
  readonly columns: readonly { readonly heading: string; readonly field: Mapping[number] }[]
  readonly sourceKind: string
  /** ISO 8601, a day. */
  readonly gatheredOn: string | null
  readonly lawfulBasis: string
  readonly note: string
}

/** Makes a batch that is shown at once and has no rows yet. */
export async function makeOwnBatch(tx: Db, { columns, ...facts }: OwnBatch): Promise<BatchRow> {
  const [made] = await tx
    .insert(batches)
    .values({
      ...facts,
      fileName: facts.name,
      bytes: 0,
      encoding: 'utf-8',
      delimiter: ',',
      bom: 0,
      headings: columns.map(({ heading }) => heading),
      mapping: columns.map(({ field }) => field),
      state: 'ready',
      isIndexed: true,
    })
    .returning()
  if (!made) throw new Error('insert returned nothing')
  return made
}

/**
 * The batch that was begun before, where it is still shown; else a new one.
 * @param begun its id; null where none was begun
 * @param note writes down in the same transaction which it is
 */
export async function begunOrNew(
  { db, pool }: Pick<Services, 'db' | 'pool'>,
  begun: string | null,
  facts: OwnBatch,
  note: (tx: Db, batchId: string) => Promise<void>,
): Promise<BatchRow> {
  const [found] = begun === null ? [] : await db.select().from(batches).where(eq(batches.id, begun))
  if (found?.state === 'ready') return found
  return transaction(pool, async (tx) => {
    const made = await makeOwnBatch(tx, facts)
    await note(tx, made.id)
    return made
  })
}

/** Rows of one transaction: a list is not held for longer than they take. */
const AT_ONCE = 2000

type AlsoDone = (tx: Db, ids: readonly number[], start: number) => Promise<void>

/**
 * Adds rows at the end of a batch of our own, a part at a time.
 * @param also done in the transaction of each part, with the ids of its contacts and which row it begins with
 * @returns ids of the contacts, in the order of the rows
 */
export async function growBatch(
  services: Services,
  batch: BatchRow,
  cells: readonly (readonly string[])[],
  also: AlsoDone = async () => {},
): Promise<readonly number[]> {
  const all: number[] = []
  for (let start = 0; start < cells.length; start += AT_ONCE)
    all.push(
      ...(await addPart(services, batch, cells.slice(start, start + AT_ONCE), (tx, ids) => also(tx, ids, start))),
    )
  return all
}

/** How often a part is tried again whose place another caller has just taken. */
const TRIES = 8

async function addPart(
  services: Services,
  batch: BatchRow,
  cells: readonly (readonly string[])[],
  also: (tx: Db, ids: readonly number[]) => Promise<void>,
  tries = TRIES,
): Promise<readonly number[]> {
  const last = await readCount(services.db)`select coalesce(max(row), 0) as n from rows where batch_id = ${batch.id}`
  const rows = cells.map((one, i) => ({ row: last + 1 + i, cells: one }))
  try {
    return await addRows(services, batch, rows, { work: 'bring-in' }, async (tx, ids) => {
      await also(tx, ids)
      await tx
        .update(batches)
        .set({ rows: sql`${batches.rows} + ${cells.length}` })
        .where(eq(batches.id, batch.id))
    })
  } catch (error) {
    if (!isThereAlready(error, 'rows') || tries === 0) throw error
    return addPart(services, batch, cells, also, tries - 1)
  }
}
