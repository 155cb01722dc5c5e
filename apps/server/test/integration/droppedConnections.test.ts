import { afterAll, describe, expect, it } from '@jest/globals'
import type { ApiClient } from '@upper-field/contract'
import { sourceOfBytes } from '@upper-field/files'
import { Client } from 'pg'
import { announce } from '../../../../scripts/bringIn'
import { freePort } from '../../../../scripts/postgres.mjs'
import { indexLeftOut } from '../../src/contacts/indexLeftOut'
import { bringText, freshDatabase, newList, startTestServer } from './harness'
import { ended, killAll, makeOwner, startProcess } from './processes'
import { until } from './until'

afterAll(killAll)

const ROWS = 12_000
const file = (seed: number) =>
  new TextEncoder().encode(
    `name,phone,note\n${Array.from({ length: ROWS }, (_, i) => `Person ${i},+4479${seed}1${String(i).padStart(5, '0')},a note of some length that fills the file`).join('\n')}\n`,
  )

async function begin(api: ApiClient, listId: string, seed: number): Promise<string> {
  const bytes = file(seed)
  const batch = await announce(api, listId, { name: 'people.csv', source: sourceOfBytes(bytes) })
  const response = await api.raw('sendContent', { params: { batchId: batch.id }, body: bytes })
  return ((await response.json()) as { jobId: string }).jobId
}

/** Ends every connection to the database but the asking one, as a database does that is started again. */
const DROP_ALL = `select pg_terminate_backend(pid) from pg_stat_activity
  where datname = current_database() and pid <> pg_backend_pid()`

describe('connections to the database that are dropped and back at once', () => {
  it('end no job: each is tried again, whatever it was doing', async () => {
    const databaseUrl = await freshDatabase()
    const port = await freePort()
    await startProcess(databaseUrl, port)
    const api = await makeOwner(`http://127.0.0.1:${port}`)
    const db = new Client({ connectionString: databaseUrl })
    await db.connect()
    const asked = async (text: string) => (await db.query(text)).rows
    const lists = [await newList(api, 'One'), await newList(api, 'Two')]
    const jobs = [await begin(api, lists[0] ?? '', 11), await begin(api, lists[1] ?? '', 22)]
    const isOver = async () =>
      (await asked(`select 1 from jobs where state not in ('done', 'failed', 'stopped')`)).length === 0
    let drops = 0
    for (; drops < 25 && !(await isOver()); drops++) {
      await asked(DROP_ALL)
      await new Promise((resolve) => setTimeout(resolve, 60 + 17 * (drops % 7)))
    }
    expect(drops).toBeGreaterThan(3)
    for (const [i, jobId] of jobs.entries())
      expect(await ended(api, lists[i] ?? '', jobId)).toMatchObject({ state: 'done', result: { rows: ROWS, held: 0 } })
    for (const listId of lists)
      for (const job of await api.call('readJobs', { params: { listId } })) await ended(api, listId, job.id)
    const all = await asked('select kind, state, problem from jobs')
    expect(all.filter(({ state }) => state !== 'done')).toEqual([])
    expect(all.map(({ kind }) => kind).sort()).toEqual(['bring-in', 'bring-in', 'index', 'index'])
    expect(await asked('select distinct is_indexed, state, rows from batches')).toEqual([
      { is_indexed: true, state: 'ready', rows: ROWS },
    ])
    expect(await asked('select count(*)::int as n, count(distinct (batch_id, row))::int as each from rows')).toEqual([
      { n: 2 * ROWS, each: 2 * ROWS },
    ])
  })
})

describe('a connection that is dropped as a job is handed back', () => {
  it('ends neither the process nor the queue', async () => {
    const databaseUrl = await freshDatabase()
    const port = await freePort()
    const server = await startProcess(databaseUrl, port)
    const api = await makeOwner(`http://127.0.0.1:${port}`)
    const db = new Client({ connectionString: databaseUrl })
    await db.connect()
    await db.query(`create sequence handed_back;
      create function drop_some() returns trigger language plpgsql as $$ begin
        if nextval('handed_back') in (1, 3) then perform pg_terminate_backend(pg_backend_pid()); perform pg_sleep(1); end if;
        return old;
      end $$;
      create trigger drop_some before delete on graphile_worker._private_jobs for each row execute function drop_some()`)
    const listId = await newList(api)
    for (const name of ['Maren', 'Tom', 'Ida']) await bringText(api, listId, `name,phone\n${name},+447911204481\n`)
    for (const job of await api.call('readJobs', { params: { listId } }))
      expect(await ended(api, listId, job.id)).toMatchObject({ state: 'done' })
    const handedBack = async () => (await db.query('select last_value::int as n from handed_back')).rows[0]?.n
    await until(async () => (await handedBack()) > 3)
    expect(server.exitCode).toBeNull()
    await db.end()
  })
})

describe('a job that waits', () => {
  it('is woken where its wake-up went with the runner that took it, and not before its time where it has one', async () => {
    const server = await startTestServer()
    const waiting = async (wakeUp: (jobId: string) => string) => {
      const listId = await newList(server.api)
      await bringText(server.api, listId, 'name,phone\nMaren,+447911204481\n')
      for (const job of await server.api.call('readJobs', { params: { listId } }))
        await ended(server.api, listId, job.id)
      const [index] = await server.sql<{ id: string }>(`select id from jobs where list_id = $1 and kind = 'index'`, [
        listId,
      ])
      const jobId = index?.id ?? ''
      // In one statement, so that nobody takes a wake-up before it is as it should be.
      await server.sql(`begin; update jobs set state = 'waiting' where id = '${jobId}'; ${wakeUp(jobId)}; commit`)
      return { listId, jobId }
    }
    const addWakeUp = (jobId: string, at: string) =>
      `select graphile_worker.add_job('work', json_build_object('jobId', '${jobId}'), job_key => '${jobId}', run_at => ${at})`
    const resting = await waiting((jobId) => addWakeUp(jobId, `now() + interval '1 hour'`))
    const taken = await waiting(
      (jobId) =>
        `${addWakeUp(jobId, 'now()')}; update graphile_worker._private_jobs set locked_at = now(), locked_by = 'gone' where key = '${jobId}'`,
    )
    const gone = await waiting(() => 'select 1')
    for (const { listId, jobId } of [taken, gone])
      expect(await ended(server.api, listId, jobId)).toMatchObject({ state: 'done' })
    const [still] = await server.sql<{ state: string }>('select state from jobs where id = $1', [resting.jobId])
    expect(still?.state).toBe('waiting')
    await server.stop()
  })
})

describe('a batch that was left out of the index of the search', () => {
  it('is put there by itself, and once', async () => {
    const server = await startTestServer()
    const listId = await newList(server.api)
    for (const name of ['Maren', 'Tom']) await bringText(server.api, listId, `name,phone\n${name},+447911204481\n`)
    const settle = async () => {
      for (const job of await server.api.call('readJobs', { params: { listId } }))
        await ended(server.api, listId, job.id)
    }
    await settle()
    await server.sql(`update jobs set state = 'failed' where kind = 'index'`)
    await server.sql('update batches set is_indexed = false')
    await server.sql(`delete from words."${listId}"`)
    expect(await indexLeftOut(server.services)).toBe(2)
    expect(await indexLeftOut(server.services)).toBe(0)
    await settle()
    expect(await server.sql('select distinct is_indexed from batches')).toEqual([{ is_indexed: true }])
    expect(await server.sql(`select count(*)::int as n from words."${listId}"`)).toEqual([{ n: 2 }])
    await server.stop()
  })
})
