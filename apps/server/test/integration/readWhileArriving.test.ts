import type { Socket } from 'node:net'
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { ApiClient, Batch } from '@upper-field/contract'
import { untilEnded } from '../../../../scripts/bringIn'
import { PIECE } from '../../src/bring/pieces'
import { cookieOf, newBatch, newList, OWNER, startTestServer, type TestServer } from './harness'
import { longRows } from './longRows'
import { beginToSend } from './slowSending'
import { until } from './until'

let server: TestServer
let api: ApiClient
let cookie: string
beforeAll(async () => {
  server = await startTestServer({ UPLOAD_IDLE_SECONDS: '60' })
  api = server.api
  cookie = await cookieOf(server.url, OWNER)
})
const sockets: Socket[] = []
afterAll(async () => {
  for (const socket of sockets) socket.destroy()
  await server.stop()
})

const ROWS = 16_000
const file = longRows(ROWS)
const ARRIVED = 3 * PIECE + 10

/** What came into the tables of a batch, whether it is shown or not. */
async function storedOf(batchId: string) {
  const [found] = await server.sql<Record<string, number>>(
    `select (select count(*)::int from rows where batch_id = $1) as rows,
      (select count(distinct row)::int from rows where batch_id = $1) as distinct_rows,
      (select count(*)::int from contacts where batch_id = $1) as contacts,
      (select count(*)::int from contact_numbers where contact_id in (select id from contacts where batch_id = $1)) as numbers`,
    [batchId],
  )
  return found
}
const WHOLE = { rows: ROWS, distinct_rows: ROWS, contacts: ROWS, numbers: ROWS }
const NOTHING = { rows: 0, distinct_rows: 0, contacts: 0, numbers: 0 }

/** Begins to send a file, and says no more once some rows of it have been read. */
async function readInPart(bytes = file.length, sent = bytes) {
  const listId = await newList(api)
  const batch = await api.call('makeBatch', { params: { listId }, body: newBatch({ bytes }) })
  const part = file.subarray(0, ARRIVED)
  const socket = beginToSend(server.url, { batchId: batch.id, bytes: sent, part, cookie })
  sockets.push(socket)
  await until(async () => ((await storedOf(batch.id))?.contacts ?? 0) > 0)
  return { listId, batch, socket }
}

const batchNow = (id: string) => api.call('readBatch', { params: { batchId: id } })
const send = async (id: string, body: Buffer, offset = 0) =>
  (await (
    await api.raw('sendContent', { params: { batchId: id }, query: { offset }, body: new Uint8Array(body) })
  ).json()) as Batch

async function breakOff(batchId: string, socket: Socket): Promise<void> {
  socket.destroy()
  await until(async () => (await batchNow(batchId)).state === 'failed')
}

/** Sends what is left of a file, and waits until it is brought in. @returns its job */
async function sendRest(listId: string, batchId: string, socket: Socket) {
  socket.write(file.subarray(ARRIVED))
  await until(async () => (await batchNow(batchId)).jobId !== null)
  return untilEnded(api, listId, (await batchNow(batchId)).jobId ?? '')
}

describe('a large file', () => {
  it('is read while it arrives, and every row is there once', async () => {
    const { listId, batch, socket } = await readInPart()
    // Nothing of it is told before it has arrived, and nobody sees a job.
    expect(await batchNow(batch.id)).toMatchObject({ state: 'uploading', rows: 0, withMobile: 0, jobId: null })
    expect(await api.call('readJobs', { params: { listId } })).toEqual([])
    const job = await sendRest(listId, batch.id, socket)
    expect(job).toMatchObject({ state: 'done', result: { rows: ROWS } })
    expect(job.before).toBeGreaterThan(PIECE / 2)
    expect(await batchNow(batch.id)).toMatchObject({ state: 'ready', rows: ROWS, held: 0, withMobile: ROWS })
    expect(await storedOf(batch.id)).toEqual(WHOLE)
  })

  it('is read as what is learnt of its numbers meanwhile has it, though nobody tells it', async () => {
    const { listId, batch, socket } = await readInPart()
    const e164 = '+447911200003'
    const lineOf = () =>
      server.sql('select line_status, known_from from contacts where batch_id = $1 and number = $2', [batch.id, e164])
    expect(await lineOf()).toEqual([{ line_status: 'unknown', known_from: 'plan' }])
    await server.sql(
      `insert into numbers (e164, line_type, status, checked_at, ages_as) values ($1, 'mobile', 'out-of-service', now(), 'mobile')`,
      [e164],
    )
    await sendRest(listId, batch.id, socket)
    expect(await lineOf()).toEqual([{ line_status: 'out-of-service', known_from: 'register' }])
  })

  it('goes on to be read where it broke off', async () => {
    const { listId, batch, socket } = await readInPart()
    await breakOff(batch.id, socket)
    const { received } = await batchNow(batch.id)
    const { jobId } = await send(batch.id, file.subarray(received), received)
    await untilEnded(api, listId, jobId ?? '')
    expect(await batchNow(batch.id)).toMatchObject({ state: 'ready', rows: ROWS, withMobile: ROWS })
    expect(await storedOf(batch.id)).toEqual(WHOLE)
  })

  it('that is sent anew from its start leaves nothing behind of what was read', async () => {
    const { listId, batch, socket } = await readInPart()
    await breakOff(batch.id, socket)
    const { jobId } = await send(batch.id, longRows(ROWS, 'Friend'))
    await untilEnded(api, listId, jobId ?? '')
    expect(await storedOf(batch.id)).toEqual(WHOLE)
    const others = await server.sql(`select 1 from rows where batch_id = $1 and text not like 'Friend%'`, [batch.id])
    expect(others).toEqual([])
  })

  it('that turns out longer than was announced leaves nothing behind', async () => {
    const { batch, socket } = await readInPart(4 * PIECE, file.length)
    socket.write(file.subarray(ARRIVED))
    await until(async () => (await batchNow(batch.id)).state === 'failed')
    expect(await batchNow(batch.id)).toMatchObject({ problem: 'file-too-large', received: 0 })
    expect(await storedOf(batch.id)).toEqual(NOTHING)
  })

  it('can be thrown away half-read', async () => {
    const { batch, socket } = await readInPart()
    await breakOff(batch.id, socket)
    await api.call('throwAway', { params: { batchId: batch.id } })
    expect(await storedOf(batch.id)).toEqual(NOTHING)
  })
})
