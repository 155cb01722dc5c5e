import { utils, write } from '@e965/xlsx'
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import { sourceOfBytes } from '@upper-field/files'
import { announce, untilEnded } from '../../../../scripts/bringIn'
import { bringText, newList, startTestServer, type TestServer } from './harness'

/** Made before anything waits for it: to write a workbook keeps this process busy for seconds. */
const LARGE = { xls: workbook(14_000, 'xls'), ods: workbook(14_000, 'ods') }

let server: TestServer
beforeAll(async () => {
  server = await startTestServer({ UNPACK_MEMORY_MB: '30' })
})
afterAll(() => server.stop())

function workbook(rows: number, bookType: 'xls' | 'ods'): Uint8Array<ArrayBuffer> {
  const cells = Array.from({ length: rows }, (_, i) => [
    `Person ${i}`,
    `+4479112${String(i).padStart(5, '0')}`,
    ...Array.from({ length: 8 }, (_, k) => `cell ${i} ${k}`),
  ])
  const book = utils.book_new()
  const headings = ['name', 'phone', ...Array.from({ length: 8 }, (_, k) => `more ${k}`)]
  utils.book_append_sheet(book, utils.aoa_to_sheet([headings, ...cells]), 'People')
  return new Uint8Array(write(book, { type: 'array', bookType, compression: true }) as ArrayBuffer)
}

async function send(bytes: Uint8Array<ArrayBuffer>, name: string) {
  const listId = await newList(server.api)
  const batch = await announce(server.api, listId, { name, source: sourceOfBytes(bytes) })
  const response = await server.api.raw('sendContent', { params: { batchId: batch.id }, body: bytes })
  const { jobId } = (await response.json()) as { jobId: string }
  return { listId, batchId: batch.id, jobId }
}

describe('a workbook that can only be read whole', () => {
  it.each(['xls', 'ods'] as const)('comes in from a process of its own: .%s', async (bookType) => {
    const sent = await send(workbook(300, bookType), `people.${bookType}`)
    expect(await untilEnded(server.api, sent.listId, sent.jobId)).toMatchObject({
      state: 'done',
      result: { rows: 300, held: 0 },
    })
  })

  it.each(['xls', 'ods'] as const)(
    'fails its own job with a sentence where memory does not reach, and no other: .%s',
    async (bookType) => {
      const sent = await send(LARGE[bookType], `people.${bookType}`)
      const other = await newList(server.api)
      const beside = await bringText(server.api, other, 'name,phone\nMaren,+447911204481\n')
      expect(await untilEnded(server.api, sent.listId, sent.jobId)).toMatchObject({
        state: 'failed',
        problem: 'too-large-for-format',
      })
      expect(await server.api.call('readBatch', { params: { batchId: sent.batchId } })).toMatchObject({
        state: 'failed',
        problem: 'too-large-for-format',
        rows: 0,
      })
      expect(beside).toMatchObject({ state: 'ready', rows: 1 })
      const [job] = await server.sql<{ cut_offs: number }>('select cut_offs from jobs where id = $1', [sent.jobId])
      expect(job?.cut_offs).toBe(0)
    },
    60_000,
  )
})
