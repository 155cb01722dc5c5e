import { setTimeout } from 'node:timers/promises'
import type { ApiClient } from '@upper-field/contract'
import type { Client } from 'pg'
import { withBenchList } from './benchServer'
import { untilIndexed } from './bringIn'
import { holdEverybody } from './heldAudience'
import { peopleFile } from './peopleFile'
import { median, seconds } from './timing'

const TIMES = 5

/** What a room asks when it is opened, on one list: the first time after the list has changed, and then the median. */
export async function viewsBench({ rows }: { rows: number | null }): Promise<void> {
  await withBenchList(peopleFile(rows ?? 100_000), async ({ api, db, listId }) => {
    await api.call('makeList', { body: { name: 'Another' } })
    for (const one of await api.call('readShippedDestinations', {}))
      await api.call('keepDestination', { params: { destinationId: one.id }, body: one })
    await untilIndexed(api, listId)
    await timeViews(api, db, listId)
  })
}

export async function timeViews(api: ApiClient, db: Client, listId: string): Promise<void> {
  const { rows } = await db.query<{ id: string }>('select id from contacts where list_id = $1 order by id limit 1', [
    listId,
  ])
  const contactId = Number(rows[0]?.id)
  const params = { listId }
  const [destination] = await api.call('readDestinations', {})
  if (!destination) throw new Error('There is no destination.')
  const audienceId = await holdEverybody(api, db, listId, destination.id)
  const views: Readonly<Record<string, () => Promise<unknown>>> = {
    'a row by its primary key': () => db.query('select * from contacts where id = $1', [contactId]),
    Home: () => api.call('readLists', {}),
    list: () => api.call('readList', { params }),
    'first page': () => api.call('readContacts', { params }),
    'deep page': () => api.call('readContacts', { params, query: { cursor: `0/${contactId + 900}` } }),
    'facets and terrace': () => api.call('readPiles', { params, query: { filter: '' } }),
    'a rare word': () => api.call('readContacts', { params, query: { filter: 'oldershaw77' } }),
    'a common word': () => api.call('readContacts', { params, query: { filter: 'oldershaw' } }),
    'two letters': () => api.call('readContacts', { params, query: { filter: 'ow' } }),
    'two letters nobody has': () => api.call('readContacts', { params, query: { filter: 'qx' } }),
    nobody: () => api.call('readContacts', { params, query: { filter: 'verdict:two-readings' } }),
    'a word nobody has': () => api.call('readContacts', { params, query: { filter: 'quxxle' } }),
    story: () => api.call('readStory', { params: { contactId } }),
    'batches and what became of them': () => api.call('readYields', { params }),
    'the routine': () => api.call('readTidy', { params }),
    'cells that need a hand': () => api.call('readHand', { params }),
    'how contacts are paired': () => api.call('readPairing', { params }),
    'shared lines': () => api.call('readSharedLines', { params }),
    'lists beside': () => api.call('readListsBeside', { params }),
    'also in other lists': () => api.call('readAlsoIn', { params, query: { filter: '' } }),
    'what a check of numbers costs': () => api.call('estimateCheck', { params, query: { filter: '' } }),
    'what a check of addresses costs': () =>
      api.call('estimateCheck', { params, query: { filter: '', of: 'addresses' } }),
    'ages of answers': () => api.call('readAnswerAges', { params, query: { filter: '' } }),
    'what a fill costs': () => api.call('estimateFill', { params, query: { filter: '' } }),
    'lane rules': () => api.call('readLaneRules', { params }),
    segments: () => api.call('readSegments', { params }),
    'call sheet': () => api.call('readCallSheet', { params, query: { filter: '' } }),
    preflight: () => api.call('preflight', { params, query: { filter: '', destination: destination.id } }),
    files: () => api.call('readEditions', { params }),
    'audiences, while one of everybody is counted': () => api.call('readAudiences', { params }),
    'until it is counted': () => untilCounted(api, listId),
    'audiences, one of everybody': () => api.call('readAudiences', { params }),
    'that audience': () => api.call('readAudience', { params: { audienceId } }),
    'what wants doing today': () => api.call('readToday', {}),
  }
  for (const [name, view] of Object.entries(views)) {
    const first = (await seconds(view)) * 1000
    console.log(`${name}: first ${first.toFixed(1)} ms, median ${(await median(view, TIMES)).toFixed(1)} ms`)
  }
}

const LOOK_EVERY = 20

async function untilCounted(api: ApiClient, listId: string): Promise<void> {
  while ((await api.call('readAudiences', { params: { listId } })).some(({ isBehind }) => isBehind))
    await setTimeout(LOOK_EVERY)
}
