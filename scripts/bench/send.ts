import { Writable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { ApiClient } from '@upper-field/contract'
import type { Client } from 'pg'
import { to as copyTo } from 'pg-copy-streams'
import { untilEnded } from '../bringIn'
import { watchMemory, withBenchList } from './benchServer'
import { peopleFile } from './peopleFile'
import { median, seconds } from './timing'

const HOUR = 3600
/** Filters of every kind: facets, texts, dates, amounts, columns of the file, titles, what is missing. */
const FILTERS = [
  '',
  'country:GB',
  'country:GB,DE line:mobile',
  'not country:GB',
  'city=Kelso',
  'company:lodge',
  'missing:email',
  'oldershaw77',
  'level:head function:purchasing',
  'seats>90',
  'added>2020',
  'oldershaw',
  '"guest house"',
  '(country:GB or country:FR) not line:mobile',
] as const

/**
 * A hashed audience file against `COPY … TO STDOUT` of the same columns plain, and filters against a read by primary key:
 * all on one list in one run.
 */
export async function sendBench({ rows }: { rows: number | null }): Promise<void> {
  const people = rows ?? 100_000
  await withBenchList(peopleFile(people), async ({ api, db, listId, pid }) => {
    for (const one of await api.call('readShippedDestinations', {}))
      await api.call('keepDestination', { params: { destinationId: one.id }, body: one })
    await fileBench(api, db, { listId, pid })
    await filterBench(api, db, listId)
  })
}

async function fileBench(api: ApiClient, db: Client, { listId, pid }: { listId: string; pid: number }): Promise<void> {
  const plain = await plainCopy(db, listId)
  const memory = watchMemory(pid)
  const file = await timed(api, listId, () => {
    const body = { destination: 'brassbell', form: 'hashed' as const, filter: '' }
    return api.call('makeEdition', { params: { listId }, body })
  })
  const account = { id: 'none', name: 'No account: nothing is sent' }
  const audience = await api.call('makeAudience', {
    params: { listId },
    body: { name: 'Bench', destination: 'brassbell', account, isWholeList: true },
  })
  const edition = await timed(api, listId, () => api.call('prepareEdition', { params: { audienceId: audience.id } }))
  const peak = memory.end()
  const ratio = (took: number) => `${took.toFixed(1)} s, ratio ${(took / plain).toFixed(1)}`
  console.log(`COPY of the same columns plain: ${plain.toFixed(2)} s`)
  console.log(`hashed file of ${file.people} people: ${ratio(file.took)}`)
  console.log(`first edition of an audience of ${edition.people} people: ${ratio(edition.took)}`)
  console.log(`memory idle ${memory.idle} MB, at most ${peak} MB`)
}

const plainCopy = (db: Client, listId: string): Promise<number> =>
  seconds(async () => {
    const sink = new Writable({ write: (_chunk, _encoding, done) => done() })
    await pipeline(
      db.query(
        copyTo(
          `copy (select email, number, given_name, family_name, postal_code, country from contacts where list_id = '${listId}') to stdout`,
        ),
      ),
      sink,
    )
  })

/** How long a file or an edition takes from being asked for to its end, and of how many people it is. */
async function timed(
  api: ApiClient,
  listId: string,
  begin: () => Promise<{ readonly jobId: string | null }>,
): Promise<{ readonly took: number; readonly people: number }> {
  let people = 0
  const took = await seconds(async () => {
    const { state, result } = await untilEnded(api, listId, (await begin()).jobId ?? '', HOUR)
    if (state !== 'done') throw new Error(`it ended ${state}`)
    people = Number(result.people)
  })
  return { took, people }
}

async function filterBench(api: ApiClient, db: Client, listId: string): Promise<void> {
  const { rows } = await db.query('select id from contacts where list_id = $1 limit 1', [listId])
  const bare = await median(() => db.query('select * from contacts where id = $1', [rows[0].id]))
  console.log(`read by primary key: ${bare.toFixed(1)} ms`)
  for (const filter of FILTERS) {
    const page = await median(() => api.call('readContacts', { params: { listId }, query: { filter } }))
    const counts = await median(() => api.call('readPiles', { params: { listId }, query: { filter, estimate: 'yes' } }))
    console.log(`${filter || 'everybody'}: page ${page.toFixed(0)} ms, counts ${counts.toFixed(0)} ms`)
  }
}
