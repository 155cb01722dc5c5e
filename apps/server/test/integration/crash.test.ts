import { join } from 'node:path'
import { utils, write } from '@e965/xlsx'
import { afterAll, describe, expect, it } from '@jest/globals'
import type { ApiClient } from '@upper-field/contract'
import { sourceOfBytes } from '@upper-field/files'
import { Client } from 'pg'
import { announce } from '../../../../scripts/bringIn'
import { dropDatabase, ensureDatabase, freePort, startCluster } from '../../../../scripts/postgres.mjs'
import { cookieOf, freshDatabase, newBatch, newList, OWNER, signedIn } from './harness'
import { longRows } from './longRows'
import { ended, killAll, makeOwner, startProcess } from './processes'
import { beginToSend } from './slowSending'
import { until } from './until'

const ROWS = 18_000
/** A list that is tidied in several pages. */
const TIDIED = 7000
afterAll(killAll)

const line = (i: number) =>
  `Person ${i},+4479112${String(i).padStart(5, '0')},0431 ${5_500_000 + i},p${i}@causeway.example,"a note, ${i}"`
const fileOf = (rows: number): string =>
  `name,phone,office,mail,note\n${Array.from({ length: rows }, (_, i) => line(i)).join('\n')}\n`

async function bringInFile(api: ApiClient, listId: string, rows: number): Promise<string> {
  const bytes = new TextEncoder().encode(fileOf(rows))
  const batch = await api.call('makeBatch', {
    params: { listId },
    body: newBatch({
      name: 'big',
      fileName: 'big.csv',
      bytes: bytes.length,
      headings: ['name', 'phone', 'office', 'mail', 'note'],
      mapping: ['full-name', 'number', 'number', 'email', null],
      defaultCountry: 'DE',
    }),
  })
  const response = await api.raw('sendContent', { params: { batchId: batch.id }, body: bytes })
  return ((await response.json()) as { jobId: string }).jobId
}

/** A server of its own with an owner and a list, and a look into its database that stays when it is killed. */
async function begin() {
  const databaseUrl = await freshDatabase()
  const db = new Client({ connectionString: databaseUrl })
  await db.connect()
  const port = await freePort()
  const first = await startProcess(databaseUrl, port)
  const url = `http://127.0.0.1:${port}`
  const api = await makeOwner(url)
  return { databaseUrl, db, port, first, url, api, listId: await newList(api) }
}

describe('a workbook whose reading is cut off twice', () => {
  it('goes on after PostgreSQL and the server are killed, with no row twice and none missing', async () => {
    const bytes = workbookOf(ROWS)
    const folder = join(process.cwd(), '.local/test/killed')
    const cluster = await startCluster(folder)
    dropDatabase(cluster, 'killed')
    ensureDatabase(cluster, 'killed')
    const databaseUrl = cluster.url('killed')
    const port = await freePort()
    const first = await startProcess(databaseUrl, port)
    const url = `http://127.0.0.1:${port}`
    const api = await makeOwner(url)
    const listId = await newList(api)
    const batch = await announce(
      api,
      listId,
      { name: 'big.xlsx', source: sourceOfBytes(bytes) },
      { defaultCountry: 'DE' },
    )
    const body = bytes as Uint8Array<ArrayBuffer>
    const response = await api.raw('sendContent', { params: { batchId: batch.id }, body })
    const { jobId } = (await response.json()) as { jobId: string }
    const sql = async (text: string) => {
      const db = new Client({ connectionString: databaseUrl })
      db.on('error', () => {})
      await db.connect()
      const { rows } = await db.query(text)
      await db.end()
      return rows
    }
    const count = async (what: string): Promise<number> => Number((await sql(`select count(*) as n from ${what}`))[0].n)
    await sql(HOLDS_LAST_ROW)

    // PostgreSQL goes while the workbook is being unpacked, and comes back where it was.
    await until(async () => (await count("batch_pieces where part = 'table'")) > 0)
    expect(await count('rows')).toBe(0)
    cluster.kill()
    await until(() =>
      api.call('readLists').then(
        () => false,
        () => true,
      ),
    )
    const back = await startCluster(folder, { port: cluster.port })

    // The server goes while rows are being stored.
    await until(async () => (await count('rows')) > 0)
    first.kill('SIGKILL')
    const before = await count('rows')
    expect(before).toBeGreaterThan(0)
    expect(before).toBeLessThan(ROWS)
    await sql('insert into let_go values (true)')
    const second = await startProcess(databaseUrl, port)
    const again = await signedIn(url, OWNER)
    expect(await ended(again, listId, jobId)).toMatchObject({ state: 'done', result: { rows: ROWS, held: 0 } })
    expect(await count('rows')).toBe(ROWS)
    expect(await count('(select distinct row from rows) each')).toBe(ROWS)
    expect((await again.call('readList', { params: { listId } })).contacts).toBe(ROWS)
    second.kill('SIGTERM')
    await new Promise((resolve) => second.once('exit', resolve))
    back.stop()
  })
})

/** The last row is stored once it is let go, which whoever dies on the way does not forget: until then not all are there. */
const HOLDS_LAST_ROW = `
  create table let_go (is_now boolean);
  create function hold_row() returns trigger language plpgsql as $$ begin
    while not exists (select 1 from let_go) loop perform pg_sleep(0.02); end loop; return new; end $$;
  create trigger held_row before insert on rows for each row when (new.row = ${ROWS + 1}) execute function hold_row()`

function workbookOf(rows: number): Uint8Array {
  const cells = Array.from({ length: rows }, (_, i) => [
    `Person ${i}`,
    `+4479112${String(i).padStart(5, '0')}`,
    `p${i}@causeway.example`,
    `a note, ${i}`,
  ])
  const book = utils.book_new()
  utils.book_append_sheet(book, utils.aoa_to_sheet([['name', 'phone', 'mail', 'note'], ...cells]), 'People')
  return new Uint8Array(
    write(book, { type: 'array', bookType: 'xlsx', bookSST: true, compression: true }) as ArrayBuffer,
  )
}

describe('a server that is killed in mid-job', () => {
  it('goes on when it is started again, with no row twice and none missing', async () => {
    const { databaseUrl, db, port, first, url, api, listId } = await begin()
    const jobId = await bringInFile(api, listId, ROWS)
    const rowsStored = async () => Number((await db.query('select count(*) as n from rows')).rows[0].n)
    await until(async () => (await rowsStored()) > 0)
    first.kill('SIGKILL')
    const before = await rowsStored()
    expect(before).toBeGreaterThan(0)
    expect(before).toBeLessThan(ROWS)

    const second = await startProcess(databaseUrl, port)
    const again = await signedIn(url, OWNER)
    expect(await ended(again, listId, jobId)).toMatchObject({ state: 'done', result: { rows: ROWS, held: 0 } })
    const { rows } = await db.query(
      'select count(*) as n, count(distinct row) as rows, min(row) as first, max(row) as last from rows',
    )
    expect(rows[0]).toEqual({ n: String(ROWS), rows: String(ROWS), first: 2, last: ROWS + 1 })
    const [last] = (await db.query('select text from rows where row = $1', [ROWS + 1])).rows
    expect(last.text).toBe(line(ROWS - 1))
    expect((await again.call('readList', { params: { listId } })).contacts).toBe(ROWS)
    await db.end()
    second.kill('SIGTERM')
  })
})

describe('a server that is killed while a file arrives and is read', () => {
  it('goes on where both were when the rest is sent to the next one', async () => {
    const file = longRows(ROWS)
    const { databaseUrl, db, port, first, url, api, listId } = await begin()
    const { id: batchId } = await api.call('makeBatch', { params: { listId }, body: newBatch({ bytes: file.length }) })
    const part = file.subarray(0, Math.floor(0.7 * file.length))
    const socket = beginToSend(url, { batchId, bytes: file.length, part, cookie: await cookieOf(url, OWNER) })
    await until(async () => Number((await db.query('select count(*) as n from rows')).rows[0].n) > 0)
    first.kill('SIGKILL')
    socket.destroy()

    const second = await startProcess(databaseUrl, port)
    const again = await signedIn(url, OWNER)
    // Whoever vanished loses the file by itself, after a while.
    await db.query('update batches set upload_lease_until = now()')
    const { received } = await again.call('readBatch', { params: { batchId } })
    expect(received).toBeGreaterThan(0)
    const body = new Uint8Array(file.subarray(received))
    const sent = await again.raw('sendContent', { params: { batchId }, query: { offset: received }, body })
    const { jobId } = (await sent.json()) as { jobId: string }
    expect(await ended(again, listId, jobId)).toMatchObject({ state: 'done', result: { rows: ROWS, held: 0 } })
    const { rows } = await db.query('select count(*)::int as n, count(distinct row)::int as rows from rows')
    expect(rows[0]).toEqual({ n: ROWS, rows: ROWS })
    expect((await again.call('readList', { params: { listId } })).contacts).toBe(ROWS)
    await db.end()
    second.kill('SIGTERM')
  })
})

describe('a server that is killed while a list is tidied', () => {
  it('shows the list as it was, and as it becomes once the server is back', async () => {
    const { databaseUrl, db, port, first, url, api, listId } = await begin()
    await ended(api, listId, await bringInFile(api, listId, TIDIED))
    const asked = async (what: string) => (await db.query(`select ${what} as found from contacts`)).rows[0].found
    const picture = () => asked("md5(string_agg(contacts::text, '|' order by id))")
    const untidied = () => asked("count(*) filter (where changes = '{}')::int")
    const before = await picture()
    expect(await untidied()).toBe(0)

    const { routine } = await api.call('readTidy', { params: { listId } })
    const body = {
      routine: { ...routine, steps: routine.steps.map((step) => ({ ...step, isOn: false })) },
      name: null,
    }
    const job = await api.call('applyRoutine', { params: { listId }, body })
    const done = async () => (await db.query('select done from jobs where id = $1', [job.id])).rows[0].done
    await until(async () => (await done()) > 0)
    first.kill('SIGKILL')
    expect(await picture()).toBe(before)

    const second = await startProcess(databaseUrl, port)
    const again = await signedIn(url, OWNER)
    expect(await ended(again, listId, job.id)).toMatchObject({ state: 'done', result: { contacts: TIDIED } })
    expect(await untidied()).toBe(TIDIED)
    await db.end()
    second.kill('SIGTERM')
  })
})
