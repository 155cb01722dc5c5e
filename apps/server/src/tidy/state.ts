import type { TidySample, TidyState } from '@upper-field/contract'
import type { Mapping } from '@upper-field/core/table'
import { cellsOfRow, FIELDS, type Field } from '@upper-field/core/table'
import { ADDED_BY, type ChangeCode, columnNames, fieldOf, proposeRoutine } from '@upper-field/core/tidy'
import { and, desc, eq, isNull, ne } from 'drizzle-orm'
import type { Db } from '../db/database'
import { num, readRows, text } from '../db/readRows'
import { acts, batches, leftOut } from '../db/schema'
import { findList } from '../lists/routes'
import { type BatchRow, layoutOf, settingsOf } from '../projection/rowCells'
import { tidyingOf } from '../projection/tidying'
import { asAct } from './acts'

/** Acts that are told of. */
const LATEST = 100
const SAMPLE = 200

/** Where the tidying of a list stands: its routine, what it does, and what people have changed. */
export async function tidyState(db: Db, listId: string): Promise<TidyState> {
  const list = await findList(db, listId)
  const shown = await shownBatches(db, listId)
  const tidying = await tidyingOf(db, listId)
  const mapped = [...new Set(shown.flatMap(({ mapping }) => mapping))]
  const routine = list.routine ?? proposeRoutine(mapped as Mapping)
  const settings = shown.map((batch) => settingsOf(batch, { ...tidying, routine }))
  const columns = [...new Set(settings.flatMap(({ tidier }) => tidier.columns))]
  const ofList = db.select().from(acts).where(eq(acts.listId, listId))
  const latest = await ofList.orderBy(desc(acts.madeAt)).limit(LATEST + 1)
  return {
    routine,
    name: list.routineName,
    isProposed: list.routine === null,
    columns: columns.map((name) => ({ name, field: fieldOf(name) })),
    contacts: shown.reduce((sum, { rows, held }) => sum + rows - held, 0),
    counts: await countsOf(db, listId),
    problems: goneEverywhere(settings.map(({ tidier }) => tidier.problems)),
    leftOut: await leftOutOf(db, listId, shown),
    acts: latest.slice(0, LATEST).map(asAct),
    hasOlderActs: latest.length > LATEST,
  }
}

/** Batches have columns of their own: a step has lost one only where no batch has it. */
function goneEverywhere(perBatch: readonly (readonly TidyState['problems'][number][])[]): TidyState['problems'] {
  const [first = [], ...others] = perBatch
  const isIn = (problem: TidyState['problems'][number]) => (all: readonly TidyState['problems'][number][]) =>
    all.some(({ step, detail }) => step === problem.step && detail === problem.detail)
  return first.filter((problem) => others.every(isIn(problem)))
}

const shownBatches = (db: Db, listId: string): Promise<BatchRow[]> =>
  db
    .select()
    .from(batches)
    .where(and(eq(batches.listId, listId), eq(batches.state, 'ready')))
    .orderBy(batches.createdAt)

async function countsOf(db: Db, listId: string): Promise<Record<string, number>> {
  const counts = await readRows(db, { code: text, n: num })`
    select code, sum(contacts) as n from tidy_counts where list_id = ${listId} group by code having sum(contacts) > 0`
  return Object.fromEntries(counts.map(({ code, n }) => [code, n]))
}

async function leftOutOf(db: Db, listId: string, shown: readonly BatchRow[]): Promise<TidyState['leftOut']> {
  const found = await db
    .select()
    .from(leftOut)
    .where(and(eq(leftOut.listId, listId), isNull(leftOut.undoneAt), isNull(leftOut.contactId)))
  const names = new Map(shown.map(({ id, name }) => [id, name]))
  return found.map(({ actId, code, batchId }) => ({
    actId,
    code: code as ChangeCode,
    batch: batchId === null ? null : (names.get(batchId) ?? 'a batch that was taken back'),
  }))
}

/** Rows from every batch, the first and some further on, to try a routine on in the browser. */
export async function tidySample(db: Db, listId: string): Promise<TidySample> {
  const shown = await shownBatches(db, listId)
  const each = Math.max(20, Math.floor(SAMPLE / Math.max(1, shown.length)))
  const layouts: TidySample['layouts'] = {}
  const rows: TidySample['rows'] = []
  for (const batch of shown) {
    layouts[batch.id] = {
      mapping: batch.mapping as (Field | null)[],
      headings: batch.headings,
      defaultCountry: batch.defaultCountry,
    }
    const layout = layoutOf(batch)
    // From all over the batch: what is odd in a list seldom stands in its first rows.
    const found = await readRows(db, { id: num, text })`
      with ends as (select min(row) as first, max(row) as last from contacts where batch_id = ${batch.id})
      select c.id, r.text from (
        select distinct near.id, near.row from ends, generate_series(0, ${each - 1}::int) as i
        cross join lateral (
          select id, row from contacts
          where batch_id = ${batch.id} and row >= ends.first + (ends.last - ends.first) * i::bigint / ${each - 1}
          order by row limit 1) near) c
      join rows r on r.batch_id = ${batch.id} and r.row = c.row order by c.row`
    for (const { id, text } of found)
      rows.push({ contactId: id, batchId: batch.id, cells: [...cellsOfRow(text, layout).cells] })
  }
  return { layouts, rows }
}

/** Names of the columns that a value can be given in: every field, those that steps add, and those of the list's batches. */
export async function columnsOf(db: Db, listId: string): Promise<ReadonlySet<string>> {
  const found = await db
    .select()
    .from(batches)
    .where(and(eq(batches.listId, listId), ne(batches.state, 'taken-back')))
  return new Set([
    ...FIELDS,
    ...Object.keys(ADDED_BY),
    ...found.flatMap(({ mapping, headings }) => columnNames({ mapping: mapping as Mapping, headings })),
  ])
}
