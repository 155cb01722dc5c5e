import { createHash } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { ApiClient, Batch } from '@upper-field/contract'
import { untilEnded } from '../../../../scripts/bringIn'
import { PIECE } from '../../src/bring/pieces'
import { bringText, cookieOf, newBatch, newList, OWNER, startTestServer, type TestServer } from './harness'
import { longRows } from './longRows'
import { beginToSend } from './slowSending'
import { until } from './until'

let server: TestServer
let api: ApiClient
let listId: string
/** @param idle after how many seconds without a byte a client counts as gone */
async function begin(idle: string): Promise<void> {
  server = await startTestServer({ UPLOAD_IDLE_SECONDS: idle, DATABASE_CONNECTIONS: '4' })
  api = server.api
  listId = await newList(api)
}
beforeAll(() => begin('2'))
afterAll(() => server.stop())

const ROWS = 9000
const file = longRows(ROWS)
const announce = (bytes = file.length) => api.call('makeBatch', { params: { listId }, body: newBatch({ bytes }) })
const batchNow = (id: string) => api.call('readBatch', { params: { batchId: id } })
const send = async (id: string, body: Buffer, offset = 0) => {
  const response = await api.raw('sendContent', { params: { batchId: id }, query: { offset }, body })
  return { status: response.status, json: (await response.json()) as Batch & { code: string; detail: string } }
}

describe('an upload that breaks off', () => {
  it('goes on behind its last whole piece, and the file is what it was', async () => {
    expect(file.length).toBeGreaterThan(2.5 * PIECE)
    const batch = await announce()
    const broken = await send(batch.id, file.subarray(0, Math.floor(1.5 * PIECE)))
    expect(broken).toMatchObject({ status: 408, json: { code: 'upload-broken' } })
    expect(await batchNow(batch.id)).toMatchObject({ state: 'failed', problem: 'upload-broken', received: PIECE })

    expect(await send(batch.id, file.subarray(100), 100)).toMatchObject({ status: 409, json: { code: 'offset-off' } })
    expect((await batchNow(batch.id)).received).toBe(PIECE)

    const { status, json } = await send(batch.id, file.subarray(PIECE), PIECE)
    expect(status).toBe(200)
    expect(json.sha256).toBe(createHash('sha256').update(file).digest('hex'))
    await untilEnded(api, listId, json.jobId ?? '')
    expect(await batchNow(batch.id)).toMatchObject({ state: 'ready', rows: ROWS, held: 0 })
    const [rows] = await server.sql<{ n: string; first: number; last: number }>(
      'select count(distinct row) as n, min(row) as first, max(row) as last from rows where batch_id = $1',
      [batch.id],
    )
    expect(rows).toEqual({ n: String(ROWS), first: 2, last: ROWS + 1 })
  })

  it('can be sent from the start again as well', async () => {
    const batch = await announce()
    await send(batch.id, file.subarray(0, Math.floor(1.2 * PIECE)))
    const { json } = await send(batch.id, file)
    expect(json.sha256).toBe(createHash('sha256').update(file).digest('hex'))
    const [pieces] = await server.sql<{ n: string }>(
      `select sum(length(bytes)) as n from batch_pieces where batch_id = $1 and part = 'file'`,
      [batch.id],
    )
    expect(pieces?.n).toBe(String(file.length))
    await untilEnded(api, listId, json.jobId ?? '')
  })

  it('because nothing comes any more is let go, and somebody else may send it', async () => {
    const batch = await announce()
    const part = file.subarray(0, PIECE + 10)
    const cookie = await cookieOf(server.url, OWNER)
    const socket = beginToSend(server.url, { batchId: batch.id, bytes: file.length, part, cookie })
    await until(async () => (await batchNow(batch.id)).received === PIECE)
    expect(await send(batch.id, file.subarray(PIECE), PIECE)).toMatchObject({ json: { code: 'upload-under-way' } })
    await until(async () => (await batchNow(batch.id)).state === 'failed')
    expect(await batchNow(batch.id)).toMatchObject({ problem: 'upload-broken', received: PIECE })
    expect((await send(batch.id, file.subarray(PIECE), PIECE)).status).toBe(200)
    socket.destroy()
  })

  it('is not kept where the file itself is no list', async () => {
    const batch = await announce()
    const png = Buffer.concat([Buffer.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10]), Buffer.alloc(file.length - 8, 7)])
    expect(await send(batch.id, png)).toMatchObject({ status: 415 })
    expect(await batchNow(batch.id)).toMatchObject({ state: 'failed', received: 0 })
  })

  it('and sends more than was announced is refused', async () => {
    const batch = await announce(1000)
    expect(await send(batch.id, file.subarray(0, 5000))).toMatchObject({
      status: 413,
      json: { code: 'file-too-large' },
    })
  })
})

describe('forty uploads that stand still', () => {
  // However slow the machine is, the first still stands when the last has begun.
  beforeAll(async () => {
    await server.stop()
    await begin('60')
    await bringText(
      api,
      listId,
      'name,phone\na,+447911200001\nb,+447911200002\nc,+447911200003\nd,+447911200004\ne,+447911200005\n',
    )
  })

  it('hold no connection to the database: with four of them everybody is served', async () => {
    const batches = await Promise.all(Array.from({ length: 40 }, () => announce()))
    const sending = { bytes: file.length, part: file.subarray(0, 20_000), cookie: await cookieOf(server.url, OWNER) }
    const sockets = batches.map(({ id }) => beginToSend(server.url, { batchId: id, ...sending }))
    await until(async () => {
      const [held] = await server.sql<{ n: number }>(
        'select count(*)::int as n from batches where upload_lease_until > now()',
      )
      return held?.n === 40
    })
    const started = performance.now()
    const answers = await Promise.all(
      Array.from({ length: 30 }, () => api.call('readContacts', { params: { listId }, query: { limit: 5 } })),
    )
    const took = performance.now() - started
    expect(answers.every(({ contacts }) => contacts.length === 5)).toBe(true)
    console.log(`30 calls beside 40 standing uploads: ${Math.round(took)} ms together`)
    for (const socket of sockets) socket.destroy()
    await until(async () => {
      const [held] = await server.sql<{ n: number }>(
        'select count(*)::int as n from batches where upload_lease is not null',
      )
      return held?.n === 0
    })
    expect((await api.call('readLists')).length).toBe(1)
  })
})
