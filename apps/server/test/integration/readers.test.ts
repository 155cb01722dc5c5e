import { afterAll, beforeAll, expect, it } from '@jest/globals'
import { eq } from 'drizzle-orm'
import { type PreparedStep, prepareStep } from '../../src/bring/prepareStep'
import { type Readers, startReaders } from '../../src/bring/readers'
import { receiveContent } from '../../src/bring/receiveContent'
import { isLostConnection } from '../../src/db/errors'
import { batches, batchPieces, jobs } from '../../src/db/schema'
import type { BatchRow } from '../../src/projection/rowCells'
import { newBatch, newList, startTestServer, type TestServer } from './harness'

let server: TestServer
let readers: Readers
let batch: BatchRow

/** Longer than a step, with a row that is held, one that is blank, quotes and letters of more bytes than one. */
const file = `name,phone,mail\n${Array.from({ length: 19_000 }, (_, i) =>
  i === 7
    ? 'too,many,cells,for,this,table'
    : i === 9
      ? ',,'
      : `Åsa “${i}” Müller,+4479112${String(i).padStart(5, '0')},p${i}@causeway.example`,
).join('\n')}\n`
const bytes = Buffer.from(file)

beforeAll(async () => {
  server = await startTestServer()
  const started = await startReaders({ ...server.services.config, readingThreads: 1 })
  if (!started) throw new Error('no readers')
  readers = started
  const listId = await newList(server.api)
  const { id } = await server.api.call('makeBatch', {
    params: { listId },
    body: newBatch({
      name: 'big',
      fileName: 'big.csv',
      bytes: bytes.length,
      headings: ['name', 'phone', 'mail'],
      mapping: ['full-name', 'number', 'email'],
      defaultCountry: 'GB',
    }),
  })
  const { db } = server.services
  const [announced] = await db.select().from(batches).where(eq(batches.id, id))
  await receiveContent(server.services, announced as BatchRow, new Blob([bytes]).stream(), { waits: true })
  batch = (await db.select().from(batches).where(eq(batches.id, id)))[0] as BatchRow
})
afterAll(async () => {
  await readers.close()
  await server.stop()
})

const idsFrom = (first: number) => server.sql(`select setval('contact_ids', ${first})`)
const textOf = ({ copies }: PreparedStep) =>
  Object.fromEntries(copies.map(({ table, bytes }) => [table, Buffer.from(bytes).toString()]))

it('make of every step what the storing thread would make of it, and tell its end before', async () => {
  expect(await startReaders({ ...server.services.config, readingThreads: 0 })).toBeNull()
  let at = { offset: 0, row: 1 }
  const steps: PreparedStep[] = []
  while (at.offset < bytes.length) {
    const told: unknown[] = []
    await idsFrom(1000)
    const apart = await readers.prepare(batch, at, (end) => told.push(end))
    await idsFrom(1000)
    const here = await prepareStep(server.services, batch, at, () => {})
    expect({ ...apart, copies: textOf(apart) }).toEqual({ ...here, copies: textOf(here) })
    expect(told).toEqual([here.end])
    steps.push(apart)
    at = here.end
  }
  expect(steps.length).toBeGreaterThan(1)
  // The heading and a blank row are none.
  expect(steps.reduce((sum, { rows }) => sum + rows, 0)).toBe(18_999)
  expect(steps.reduce((sum, { held }) => sum + held, 0)).toBe(1)
})

it('say why there is no step, as the storing thread would', async () => {
  const { db } = server.services
  const at = { offset: 0, row: 1 }
  await db.delete(batchPieces).where(eq(batchPieces.batchId, batch.id))
  await expect(readers.prepare(batch, at, () => {})).rejects.toMatchObject({ code: 'file-incomplete' })
  const odd = { ...batch, id: 'no id at all' }
  await expect(readers.prepare(odd, at, () => {})).rejects.toMatchObject({ code: '22P02' })
  await db.delete(jobs).where(eq(jobs.listId, batch.listId))
})

it('tell a database that is away from a step that fails by itself', async () => {
  await server.sql('alter table batch_pieces rename to pieces_elsewhere')
  const failed = readers.prepare(batch, { offset: 0, row: 1 }, () => {})
  await expect(failed).rejects.toMatchObject({ code: '42P01' })
  expect(isLostConnection(await failed.catch((error: unknown) => error))).toBe(false)
  await server.sql('alter table pieces_elsewhere rename to batch_pieces')
  const ended = expect(readers.prepare(batch, { offset: 0, row: 1 }, () => {})).rejects.toBeDefined()
  await readers.close()
  await ended
})
