import { execFileSync } from 'node:child_process'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { ApiClient } from '@upper-field/contract'
import { proposeRoutine, type Routine } from '@upper-field/core/tidy'
import { sourceOfBytes } from '@upper-field/files'
import { Pool } from 'pg'
import { announce, untilEnded } from '../../../../scripts/bringIn'
import { dropDatabase, ensureDatabase, freePort, startCluster } from '../../../../scripts/postgres.mjs'
import { newList } from './harness'
import { killAll, makeOwner, startProcess } from './processes'
import { until } from './until'

/** No file of the database may grow beyond this, in bytes, as if its disk were full then. Its log needs 16 MB. */
const ROOM = 16 * 1024 * 1024 + 3000
const FEW = 600
const MANY = 2500

const FOLDER = join(process.cwd(), '.local/test/trouble')

let api: ApiClient
let pool: Pool
let cluster: Awaited<ReturnType<typeof startCluster>>
let listId: string

const fileOf = (first: number, count: number): Uint8Array<ArrayBuffer> =>
  new TextEncoder().encode(
    `name,phone,mail\n${Array.from(
      { length: count },
      (_, i) => `person ${first + i},07911 2${String(first + i).padStart(5, '0')},P${first + i}@causeway.example`,
    ).join('\n')}\n`,
  )

/** Sends a file. @returns its batch, and the job that reads it once that has ended */
async function bring(bytes: Uint8Array<ArrayBuffer>) {
  const { id } = await announce(api, listId, { name: 'x.csv', source: sourceOfBytes(bytes) }, { defaultCountry: 'GB' })
  const sent = await api.raw('sendContent', { params: { batchId: id }, body: bytes })
  const { jobId } = (await sent.json()) as { jobId: string }
  return { batchId: id, job: await untilEnded(api, listId, jobId) }
}

const sql = async <T>(text: string, values?: unknown[]): Promise<T[]> => (await pool.query(text, values)).rows

beforeAll(async () => {
  cluster = await startCluster(FOLDER)
  dropDatabase(cluster, 'full')
  ensureDatabase(cluster, 'full')
  const port = await freePort()
  // A process of its own: what is left undone as its database goes ends a process, or does not, as outside tests.
  await startProcess(cluster.url('full'), port, { COUNT_SECONDS: '20' })
  api = await makeOwner(`http://127.0.0.1:${port}`)
  pool = new Pool({ connectionString: cluster.url('full'), max: 1 }).on('error', () => {})
  listId = await newList(api)
  await bring(fileOf(0, FEW))
  await sql('create sequence filling start 100000000')
  await sql('alter table contacts alter column company set storage plain')
})
afterAll(async () => {
  killAll()
  await pool.end()
  cluster.stop()
})

/** Lets no file of the database grow further, or all again: for those who are connected and for whoever comes. */
async function limit(bytes: number | 'unlimited'): Promise<void> {
  const here = await sql<{ pid: number }>('select pid from pg_stat_activity')
  const parentOf = (pid: number) => execFileSync('ps', ['-o', 'ppid=', '-p', String(pid)], { encoding: 'utf8' }).trim()
  const pids = here.map(({ pid }) => String(pid))
  // Whoever owns a process may limit it; root started the database under another account.
  const owner = process.getuid?.() === 0 ? ['runuser', '-u', 'postgres', '--'] : []
  for (const pid of [parentOf(here[0]?.pid ?? 0), ...pids]) {
    const [program = '', ...args] = [...owner, 'prlimit', '--pid', pid, `--fsize=${bytes}:`]
    execFileSync(program, args)
  }
}

/** So many MD5 sums leave no room for another contact in a page of 8 kB. */
const PAGE_OF_SUMS = 232

/** Makes a table nearly as long as a file may be, with lines of nobody. */
const fillUp = (table: 'rows' | 'contacts'): Promise<unknown> =>
  sql(`do $$ begin
    while pg_relation_size('${table}') < ${ROOM - 200_000} loop
      insert into ${table} select (jsonb_populate_record(one, case '${table}'
        when 'rows' then jsonb_build_object('batch_id', gen_random_uuid())
        else jsonb_build_object('id', nextval('filling'), 'list_id', gen_random_uuid(), 'batch_id', gen_random_uuid(),
          'company', (select string_agg(md5(random()::text), '') from generate_series(1, ${PAGE_OF_SUMS}))) end)).*
      from ${table} one limit ${table === 'rows' ? 500 : 20};
    end loop;
  end $$`)

/** All that is stored of the list's contacts, and what is told of them. */
const picture = async (): Promise<unknown> => [
  await sql("select md5(string_agg(c::text, '|' order by id)) from contacts c where list_id = $1", [listId]),
  await api.call('readPiles', { params: { listId }, query: { filter: '' } }),
]

const apply = (routine: Routine) => api.call('applyRoutine', { params: { listId }, body: { routine, name: null } })

/** Has a job that failed go on. */
async function goOn(jobId: string) {
  await api.call('resumeJob', { params: { jobId } })
  return untilEnded(api, listId, jobId)
}

describe('a disk that is full', () => {
  it('stops a file with a sentence: nothing of it is shown, and it goes on once there is room', async () => {
    await fillUp('rows')
    const before = await picture()
    await limit(ROOM)
    const { batchId, job } = await bring(fileOf(FEW, MANY))
    expect(job).toMatchObject({ state: 'failed', problem: 'disk-full' })
    const batches = await api.call('readBatches', { params: { listId } })
    expect(batches.find(({ id }) => id === batchId)).toMatchObject({ state: 'failed', problem: 'disk-full' })
    expect(await picture()).toEqual(before)
    await limit('unlimited')
    expect(await goOn(job.id)).toMatchObject({ state: 'done', result: { rows: MANY, held: 0 } })
    const { country } = await api.call('readPiles', { params: { listId }, query: { filter: '' } })
    expect(country).toEqual({ GB: FEW + MANY })
  })

  it('stops a routine on its way through a list: the list is what it was, and becomes what it is to be later', async () => {
    await fillUp('contacts')
    const before = await picture()
    await limit(ROOM)
    const { routine } = await api.call('readTidy', { params: { listId } })
    const { id } = await apply({ ...routine, steps: [] })
    expect(await untilEnded(api, listId, id)).toMatchObject({ state: 'failed', problem: 'disk-full' })
    expect(await picture()).toEqual(before)
    await limit('unlimited')
    expect(await goOn(id)).toMatchObject({ state: 'done' })
    const untidied = await sql("select count(*)::int as n from contacts where list_id = $1 and changes = '{}'", [
      listId,
    ])
    expect(untidied).toEqual([{ n: FEW + MANY }])
  })
})

describe('a database that is killed', () => {
  it('while a routine is on its way leaves the list as it was, and the routine is begun anew', async () => {
    const before = await picture()
    const { id } = await apply(proposeRoutine())
    const job = () => sql<{ state: string; done: number }>('select state, done from jobs where id = $1', [id])
    await until(async () => ((await job())[0]?.done ?? 0) > 0)
    expect((await job())[0]?.state).toBe('running')
    cluster.kill()
    cluster = await startCluster(FOLDER, { port: cluster.port })
    let found: unknown
    await until(async () => {
      found = await picture()
      return true
    })
    expect(found).toEqual(before)
    expect(await untilEnded(api, listId, id)).toMatchObject({ state: 'done' })
    const tidied = await sql("select count(*)::int as n from contacts where list_id = $1 and changes <> '{}'", [listId])
    expect(tidied).toEqual([{ n: FEW + MANY }])
  })
})
