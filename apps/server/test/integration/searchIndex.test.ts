import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { ApiClient } from '@upper-field/contract'
import { untilEnded } from '../../../../scripts/bringIn'
import { makeOwnBatch } from '../../src/bring/ownBatch'
import { startIndexing } from '../../src/contacts/indexJob'
import { tellWords } from '../../src/contacts/wordsAhead'
import { bringText, newList, startTestServer, type TestServer } from './harness'
import { holdList } from './holdList'
import { until } from './until'
import { wrongWords } from './wrongWords'

let server: TestServer
let api: ApiClient
beforeAll(async () => {
  server = await startTestServer()
  api = server.api
})
const holds: (() => Promise<void>)[] = []
afterAll(async () => {
  for (const letGo of [...holds]) await letGo()
  await server.stop()
})

const OWN_BATCH = {
  name: 'By hand',
  columns: [{ heading: 'company', field: 'company' as const }],
  sourceKind: 'other',
  gatheredOn: null,
  lawfulBasis: 'not-stated',
  note: '',
}

/** From so many on the index of a list is built whole. */
const MANY = 5200

const rowsOf = (count: number, company: string): string =>
  `name,company,mail\n${Array.from({ length: count }, (_, i) => `Person ${i},${company} ${i},p${i}@${company.toLowerCase()}.example`).join('\n')}\n`

async function listWith(...batches: readonly string[]): Promise<string> {
  const listId = await newList(api)
  for (const text of batches) await bringText(api, listId, text)
  await untilIndexed(listId)
  return listId
}

async function untilIndexed(listId: string): Promise<void> {
  for (const job of await api.call('readJobs', { params: { listId } })) await untilEnded(api, listId, job.id)
}

const found = async (listId: string, words: string): Promise<number> =>
  (await api.call('readContacts', { params: { listId }, query: { filter: words } })).total

/** How many contacts of a list stand in its index with other words than their own, or not at all. */
const wrongIn = async (listId: string): Promise<number> => (await wrongWords(server, listId)).length

/** Lets the index of a list be built anew, for a batch of it or as it is, up to where it waits for the list, which is held. */
async function buildUpToHolding(listId: string, batchId?: string, meanwhile = () => {}) {
  const end = await holdList(server, listId)
  const letGo = async () => {
    if (holds.includes(letGo)) await end()
    holds.splice(0)
  }
  holds.push(letGo)
  const { id: jobId } = await startIndexing(server.services.db, listId, MANY, batchId)
  await until(async () => {
    meanwhile()
    const waiting = await server.sql(
      `select 1 from pg_stat_activity where application_name = $1 and wait_event_type = 'Lock'`,
      [`upper-field index ${jobId}`],
    )
    return waiting.length > 0
  })
  return { letGo, jobId }
}

describe('the index of the search of a list', () => {
  it('holds its batches, however large, and nothing of another list', async () => {
    const first = await listWith(rowsOf(MANY, 'Garden'), rowsOf(30, 'Orchard'))
    const second = await listWith(rowsOf(20, 'Orchard'), rowsOf(MANY, 'Meadow'))
    expect([await wrongIn(first), await wrongIn(second)]).toEqual([0, 0])
    expect([await found(first, 'garden 5111'), await found(first, 'orchard'), await found(first, 'meadow')]).toEqual([
      1, 30, 0,
    ])
    expect([await found(second, 'garden'), await found(second, 'orchard'), await found(second, 'dow 4711')]).toEqual([
      0, 20, 1,
    ])
    expect(
      await server.sql('select distinct is_indexed from batches where list_id = any($1)', [[first, second]]),
    ).toEqual([{ is_indexed: true }])
  })

  it('takes in what was changed and added while it was built', async () => {
    const listId = await listWith(rowsOf(MANY, 'Garden'))
    const { contacts } = await api.call('readContacts', { params: { listId }, query: { filter: 'garden 4000' } })
    const { letGo, jobId } = await buildUpToHolding(listId)
    // Whoever works on the list meanwhile writes the words of its contacts into the present index.
    const changed = contacts[0]?.id
    await server.sql(`update contacts set search = 'quince hedge' where id = $1`, [changed])
    await server.sql(`update words."${listId}" set words = 'quince hedge' where contact_id = $1`, [changed])
    const { id: batchId } = await makeOwnBatch(server.services.db, { ...OWN_BATCH, listId })
    const added = JSON.stringify({ id: 900_000_001, batch_id: batchId, row: 1, search: 'quince tree' })
    await server.sql('insert into contacts select (jsonb_populate_record(c, $2)).* from contacts c where id = $1', [
      changed,
      added,
    ])
    await server.sql(`insert into words."${listId}" values (900000001, 'quince tree')`)
    await letGo()
    expect(await untilEnded(api, listId, jobId)).toMatchObject({ state: 'done', done: MANY + 1, total: MANY + 1 })
    expect([await wrongIn(listId), await found(listId, 'quince'), await found(listId, 'garden 4000')]).toEqual([
      0, 2, 0,
    ])
  })

  it('takes in what is told of contacts before it is stored, and nothing that never was', async () => {
    const listId = await listWith(rowsOf(MANY, 'Garden'))
    const idOf = async (words: string) => {
      const { contacts } = await api.call('readContacts', { params: { listId }, query: { filter: words } })
      return contacts[0]?.id ?? 0
    }
    const [kept, givenUp] = [await idOf('garden 4000'), await idOf('garden 4001')]
    let told = 0
    const { letGo, jobId } = await buildUpToHolding(listId, undefined, () => {
      if (told++ > 10) return
      tellWords(listId, kept, 'quince hedge')
      tellWords(listId, givenUp, 'quince tree')
    })
    await server.sql(`update contacts set search = 'quince hedge' where id = $1`, [kept])
    await letGo()
    expect(await untilEnded(api, listId, jobId)).toMatchObject({ state: 'done', done: MANY })
    expect([await wrongIn(listId), await found(listId, 'quince'), await found(listId, 'quince tree')]).toEqual([
      0, 1, 0,
    ])
  })

  it('is built again where most of the list became another meanwhile', async () => {
    const listId = await listWith(rowsOf(MANY, 'Garden'))
    const { letGo, jobId } = await buildUpToHolding(listId)
    await server.sql(`update contacts set search = search || ' quince' where list_id = $1`, [listId])
    await letGo()
    expect(await untilEnded(api, listId, jobId)).toMatchObject({ state: 'done', done: MANY })
    expect([await wrongIn(listId), await found(listId, '4001 quince')]).toEqual([0, 1])
    const left = await server.sql(`select 1 from pg_tables where schemaname = 'words' and tablename like '% new'`)
    expect(left).toEqual([])
  })

  it('stays as it was where its building is stopped', async () => {
    const listId = await listWith(rowsOf(MANY, 'Garden'))
    const { letGo, jobId } = await buildUpToHolding(listId)
    await api.call('stopJob', { params: { jobId } })
    // The list is held all the time: what waits for it is given up.
    expect(await untilEnded(api, listId, jobId)).toMatchObject({ state: 'stopped' })
    await letGo()
    expect([await wrongIn(listId), await found(listId, 'garden 4000')]).toEqual([0, 1])
  })

  it('is built once where several jobs want it at the same time', async () => {
    const listId = await listWith(rowsOf(MANY, 'Garden'))
    const { letGo, jobId } = await buildUpToHolding(listId)
    const other = await startIndexing(server.services.db, listId, MANY)
    await until(async () => {
      const [job] = await server.sql<{ state: string }>('select state from jobs where id = $1', [other.id])
      return job?.state === 'waiting'
    })
    await letGo()
    for (const id of [jobId, other.id]) expect(await untilEnded(api, listId, id)).toMatchObject({ state: 'done' })
    expect(await wrongIn(listId)).toBe(0)
  })

  it('is built while the duplicates of a large batch are joined, and holds what becomes of them', async () => {
    const listId = await newList(api)
    const stalls = (count: number, side: string) =>
      Array.from({ length: count }, (_, i) => `Person ${i},p${i}@garden.example,${side} ${i}\n`).join('')
    await bringText(api, listId, `name,mail,stall\n${stalls(MANY, 'left')}${stalls(200, 'right')}`)
    await untilIndexed(listId)
    expect(
      await server.sql(
        `select count(*)::int as jobs, bool_and(i.created_at < b.finished_at) as is_begun_before
         from jobs i join jobs b using (list_id) where list_id = $1 and i.kind = 'index' and b.kind = 'bring-in'`,
        [listId],
      ),
    ).toEqual([{ jobs: 1, is_begun_before: true }])
    // Who stood on both sides is one contact that is found by both.
    expect([await wrongIn(listId), await found(listId, 'left right')]).toEqual([0, 200])
  })

  /** A list whose batch is read, but not shown yet. */
  async function withComingBatch(rows: number): Promise<{ readonly listId: string; readonly batchId: string }> {
    const listId = await listWith(rowsOf(rows, 'Garden'))
    const [batch] = await server.sql<{ id: string }>(
      `update batches set state = 'reading', is_indexed = false where list_id = $1 returning id`,
      [listId],
    )
    await server.sql(`truncate words."${listId}"`)
    return { listId, batchId: batch?.id ?? '' }
  }

  it('takes in what thousands became who were joined while it was built', async () => {
    // More change than may be put there while the list is held, and fewer than makes building it again quicker.
    const { listId, batchId } = await withComingBatch(2 * MANY)
    const { letGo, jobId } = await buildUpToHolding(listId, batchId)
    await server.sql(`update contacts set search = search || ' quince' where list_id = $1 and row <= $2`, [
      listId,
      MANY - 100,
    ])
    await server.sql(`update batches set state = 'ready' where id = $1`, [batchId])
    await letGo()
    expect(await untilEnded(api, listId, jobId)).toMatchObject({ state: 'done', done: 2 * MANY })
    expect([await wrongIn(listId), await found(listId, '4001 quince'), await found(listId, '6001 quince')]).toEqual([
      0, 1, 0,
    ])
  })

  it('is left to whoever brings a batch in where nobody is at work on that batch', async () => {
    const { listId, batchId } = await withComingBatch(MANY)
    const { letGo, jobId } = await buildUpToHolding(listId, batchId)
    await letGo()
    expect(await untilEnded(api, listId, jobId)).toMatchObject({ state: 'done', done: 0 })
    const left = await server.sql(`select 1 from pg_tables where schemaname = 'words' and tablename like '% new'`)
    const batch = await server.sql('select is_indexed from batches where id = $1', [batchId])
    expect([left, batch]).toEqual([[], [{ is_indexed: false }]])
  })
})
