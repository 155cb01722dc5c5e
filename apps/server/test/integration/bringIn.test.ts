import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { ApiClient, Job, NewBatch } from '@upper-field/contract'
import { untilEnded } from '../../../../scripts/bringIn'
import { bringText, newBatch, newList, startTestServer, type TestServer } from './harness'
import { until } from './until'

let server: TestServer
let api: ApiClient
let listId: string

beforeAll(async () => {
  server = await startTestServer({ MAX_UPLOAD_BYTES: '3000000' })
  api = server.api
  listId = await newList(api)
})
afterAll(() => server.stop())

const announce = (more: Partial<NewBatch>) => api.call('makeBatch', { params: { listId }, body: newBatch(more) })
async function send(batchId: string, body: NonNullable<Parameters<typeof fetch>[1]>['body']) {
  const response = await api.raw('sendContent', { params: { batchId }, body: body ?? null })
  return { status: response.status, problem: (await response.json()) as { code: string; detail: string } }
}
const batchOf = async (id: string) =>
  (await api.call('readBatches', { params: { listId } })).find((batch) => batch.id === id)
const contactsOf = (id: string) =>
  server.sql<{ row: number; number: string | null }>(
    'select row, number from contacts where batch_id = $1 order by row',
    [id],
  )

describe('files that are no table', () => {
  it.each([
    ['empty', new Uint8Array(), 'empty-file'],
    ['binary', Uint8Array.from({ length: 500 }, (_, i) => (i * 31) % 256), 'binary-file'],
    ['a workbook announced as CSV', new Uint8Array([0x50, 0x4b, 3, 4, 9, 9]), 'format-off'],
    ['UTF-16 announced as UTF-8', new Uint8Array([0xff, 0xfe, 0x61, 0, 0x2c, 0]), 'format-off'],
    ['a compressed file', new Uint8Array([0x1f, 0x8b, 8, 0]), 'compressed-file'],
  ])('%s: refused with a sentence, nothing kept', async (_, bytes, code) => {
    const batch = await announce({ bytes: Math.max(1, bytes.length) })
    const { status, problem } = await send(batch.id, bytes)
    expect(status).toBeGreaterThanOrEqual(400)
    expect(problem.code).toBe(code)
    expect(problem.detail).toMatch(/[.]$/)
    expect(await batchOf(batch.id)).toMatchObject({ state: 'failed', problem: code, rows: 0 })
    expect(await server.sql('select 1 from batch_pieces where batch_id = $1', [batch.id])).toEqual([])
  })

  it('a file in which nobody could be reached is refused before it is sent', async () => {
    await expect(announce({ mapping: ['full-name', null] })).rejects.toMatchObject({ code: 'nobody-reachable' })
  })

  it('a mapping that does not fit its headings is refused', async () => {
    await expect(announce({ mapping: ['number'] })).rejects.toMatchObject({ code: 'mapping-off' })
  })
})

describe('files that do not arrive whole', () => {
  it('announced too large: refused at once', async () => {
    await expect(announce({ bytes: 3_000_001 })).rejects.toMatchObject({ status: 413, code: 'file-too-large' })
  })

  it('larger than announced and than the limit: stopped while it comes in', async () => {
    const batch = await announce({ bytes: 1000 })
    const { status } = await send(batch.id, new TextEncoder().encode(`name,phone\n${'a,1\n'.repeat(900_000)}`))
    expect(status).toBe(413)
    expect(await batchOf(batch.id)).toMatchObject({ state: 'failed', problem: 'file-too-large' })
  })

  it('shorter than announced: nothing kept, and it can be sent again', async () => {
    const whole = 'name,phone\nMaren,07911 204481\n'
    const batch = await announce({ bytes: whole.length })
    const { problem } = await send(batch.id, new TextEncoder().encode(whole.slice(0, 12)))
    expect(problem.code).toBe('upload-broken')
    expect(await contactsOf(batch.id)).toEqual([])
    const again = await api.raw('sendContent', { params: { batchId: batch.id }, body: new TextEncoder().encode(whole) })
    const { jobId } = (await again.json()) as { jobId: string }
    await untilEnded(api, listId, jobId)
    expect(await contactsOf(batch.id)).toEqual([{ row: 2, number: '+447911204481' }])
    expect((await send(batch.id, new TextEncoder().encode(whole))).problem.code).toBe('already-received')
  })

  it('cut off in mid-air: whole pieces are kept, nothing is shown, the server goes on', async () => {
    const batch = await announce({ bytes: 2_000_000 })
    const breaker = new AbortController()
    const body = new ReadableStream<Uint8Array>({
      start: (controller) => controller.enqueue(new TextEncoder().encode('name,phone\n'.padEnd(1_200_000, 'x'))),
    })
    const sending = api.raw('sendContent', { params: { batchId: batch.id }, body, signal: breaker.signal })
    const broken = expect(sending).rejects.toThrow()
    await until(async () => (await batchOf(batch.id))?.received === 1 << 20)
    breaker.abort()
    await broken
    await until(async () => (await batchOf(batch.id))?.state === 'failed')
    expect(await batchOf(batch.id)).toMatchObject({ state: 'failed', problem: 'upload-broken' })
    expect(await batchOf(batch.id)).toMatchObject({ received: 1 << 20, rows: 0 })
    const kept = await server.sql('select byte_offset, length(bytes) from batch_pieces where batch_id = $1', [batch.id])
    expect(kept).toEqual([{ byte_offset: '0', length: 1 << 20 }])
    expect(await contactsOf(batch.id)).toEqual([])
  })

  it('sent twice at once: one is taken, the other told so', async () => {
    const whole = 'name,phone\nTwice,07911 204480\n'
    const batch = await announce({ bytes: whole.length })
    const bytes = new TextEncoder().encode(whole)
    const answers = await Promise.all([send(batch.id, bytes), send(batch.id, bytes)])
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409])
    await until(async () => (await batchOf(batch.id))?.state === 'ready')
    expect(await contactsOf(batch.id)).toHaveLength(1)
  })
})

describe('held rows that are downloaded', () => {
  it('hold no formula, neither in their cells nor in the headings of the file', async () => {
    const odd = ['=cmd|x', '+1+1', '@sum(a)', '-2']
    const text = `name,phone,${odd.join(',')}\n${odd.join(',')},x,y,z\n`
    const batch = await bringText(api, listId, text, {
      delimiter: ',',
      headings: ['name', 'phone', ...odd],
      headingsRow: 1,
      firstRow: 2,
      mapping: ['full-name', 'number', null, null, null, null],
    })
    expect(batch.held).toBe(1)
    const file = await (await api.raw('downloadHeld', { params: { batchId: batch.id } })).text()
    expect(file).toContain("'=cmd|x")
    for (const cell of file.split(/[,\r\n]+/)) expect(cell).not.toMatch(/^[=+@-]/)
  })
})

describe('damaged rows', () => {
  const text = [
    'name,phone,mail',
    'Maren Oldershaw,07911 204481,maren@causeway.example',
    'too,few',
    'too,many,cells,here',
    '"never closed,07911 204482,x@y.example',
    'Tom Kestle,07911 204483,tom@causeway.example',
    'with a \0 byte,07911 204484,x@y.example',
    `${'x'.repeat(1_000_000)},07911 204485,x@y.example`,
    '',
    'Last Row,07911 204486,last@causeway.example',
  ].join('\r\n')

  it('are held with their number, reason and bytes; the others come in', async () => {
    const batch = await bringText(api, listId, text, { defaultCountry: 'GB' })
    expect(batch).toMatchObject({ state: 'ready', rows: 8, held: 3 })
    // NUL is padding and taken out, a cell of a megabyte is cut: their rows are contacts, and it is told.
    expect((await contactsOf(batch.id)).map(({ row }) => row)).toEqual([2, 6, 7, 8, 10])
    expect(batch.notes.map(({ code }) => code)).toEqual(expect.arrayContaining(['padding', 'cut-cells']))
    const texts = await server.sql<{ row: number; text: string }>(
      'select row, text from rows where batch_id = $1 and row in (7, 8) order by row',
      [batch.id],
    )
    expect(texts[0]?.text).toBe('with a  byte,07911 204484,x@y.example')
    expect(texts[1]?.text).toBe(`${'x'.repeat(65_536)},07911 204485,x@y.example`)
    const held = await api.call('readHeld', { params: { batchId: batch.id } })
    expect(held.map(({ row, reason }) => [row, reason])).toEqual([
      [3, 'too-few-cells'],
      [4, 'too-many-cells'],
      [5, 'open-quote'],
    ])
    const stored = await server.sql<{ bytes: Buffer }>('select bytes from held_rows where batch_id = $1 order by row', [
      batch.id,
    ])
    expect(stored[2]?.bytes.toString()).toBe('"never closed,07911 204482,x@y.example')
    const file = await (await api.raw('downloadHeld', { params: { batchId: batch.id } })).text()
    expect(file.split('\r\n').slice(0, 2)).toEqual(['Held row,Reason,name,phone,mail', '3,too-few-cells,too,few'])
  })

  it('with a cell that is too long to be looked at whole say that it is cut', async () => {
    const long = 'x'.repeat(3000)
    const whole = ['Tom,07911 204491,tom@y.example', 'Eva,07911 204492,eva@y.example']
    const text = [
      'name,phone,mail',
      ...whole,
      `${long},07911 204489,l@y.example,x`,
      'Ann,07911 204490,a@y.example,x',
    ].join('\n')
    const batch = await bringText(api, listId, text, { defaultCountry: 'GB' })
    const held = await api.call('readHeld', { params: { batchId: batch.id } })
    expect(held.map(({ row, cells, isCut }) => [row, cells[0]?.length, isCut])).toEqual([
      [4, 2000, true],
      [5, 3, false],
    ])
  })

  it('of a wrong encoding are held, none is guessed', async () => {
    const bytes = Buffer.concat([
      Buffer.from('name,phone\nMaren,07911 204487\n'),
      Buffer.from('J\xfcrgen,07911 204488\n', 'latin1'),
    ])
    const batch = await announce({ bytes: bytes.length })
    const response = await api.raw('sendContent', { params: { batchId: batch.id }, body: bytes })
    await untilEnded(api, listId, ((await response.json()) as { jobId: string }).jobId)
    expect(await batchOf(batch.id)).toMatchObject({ rows: 2, held: 1 })
  })

  it('count in the terrace, which still adds up', async () => {
    const { terrace } = await api.call('readList', { params: { listId } })
    const held = (await api.call('readBatches', { params: { listId } })).reduce(
      (sum, batch) => sum + (batch.state === 'ready' ? batch.held : 0),
      0,
    )
    expect(terrace[1]?.changes[0]).toEqual({ riser: 'held', by: -held })
    expect(held).toBeGreaterThan(3)
  })
})

describe('work on a batch', () => {
  const many = `name,phone,mail\n${Array.from({ length: 55_000 }, (_, i) => `Person ${i},+4479112${String(i).padStart(5, '0')},p${i}@causeway.example`).join('\n')}\n`

  it('can be stopped, shows nothing of half a batch, and goes on to the end', async () => {
    const other = await newList(api, 'Stopped')
    const bytes = new TextEncoder().encode(many)
    const batch = await api.call('makeBatch', {
      params: { listId: other },
      body: newBatch({
        bytes: bytes.length,
        headings: ['name', 'phone', 'mail'],
        mapping: ['full-name', 'number', 'email'],
      }),
    })
    const { jobId } = (await (await api.raw('sendContent', { params: { batchId: batch.id }, body: bytes })).json()) as {
      jobId: string
    }
    await api.call('stopJob', { params: { jobId } })
    const stopped = await untilEnded(api, other, jobId)
    const list = await api.call('readList', { params: { listId: other } })
    const page = await api.call('readContacts', { params: { listId: other } })
    expect([stopped.state, list.contacts, page.contacts.length]).toEqual(['stopped', 0, 0])
    await api.call('resumeJob', { params: { jobId } })
    expect(await untilEnded(api, other, jobId)).toMatchObject({
      state: 'done',
      result: { rows: 55_000, held: 0, joined: 0 },
    })
    expect((await api.call('readList', { params: { listId: other } })).contacts).toBe(55_000)
    expect(await server.sql('select 1 from batch_pieces where batch_id = $1', [batch.id])).toEqual([])
  })

  it('goes on beside another batch of the same list without mixing them', async () => {
    const other = await newList(api, 'Two at once')
    const line = (name: string, i: number) =>
      `${name} ${i},+4479112${String(i).padStart(5, '0')},${name}${i}@causeway.example`
    const file = (name: string) =>
      `name,phone,mail\n${Array.from({ length: 3000 }, (_, i) => line(name, i)).join('\n')}\n`
    const [a, b] = await Promise.all([bringText(api, other, file('Anna')), bringText(api, other, file('Berta'))])
    expect([a.rows, b.rows]).toEqual([3000, 3000])
    const [ids] = await server.sql<{ n: string; d: string }>(
      'select count(*) as n, count(distinct id) as d from contacts where list_id = $1',
      [other],
    )
    expect([ids?.n, ids?.d]).toEqual(['6000', '6000'])
    const piles = await api.call('readPiles', { params: { listId: other } })
    expect(piles.is.shared).toBe(6000)
  })

  it('is told as it goes, by server-sent events', async () => {
    const other = await newList(api, 'Told')
    const seen: Job[] = []
    const breaker = new AbortController()
    const stream = await api.raw('watch', { signal: breaker.signal })
    const isDone = (job: Job) => job.listId === other && job.kind === 'bring-in' && job.state === 'done'
    const reading = (async () => {
      for await (const event of eventsOf(stream.body as unknown as AsyncIterable<Uint8Array>)) {
        if (event.name === 'job') seen.push(JSON.parse(event.data) as Job)
        if (seen.some(isDone)) return
      }
    })()
    await bringText(api, other, 'name,phone\nSeen,07911 255555\n', { defaultCountry: 'GB' })
    await reading
    breaker.abort()
    expect(seen.find(isDone)).toMatchObject({ result: { rows: 1 } })
  })
})

/** Server-sent events, one by one, however the bytes come. */
async function* eventsOf(body: AsyncIterable<Uint8Array>): AsyncGenerator<{ name: string; data: string }> {
  const decoder = new TextDecoder()
  let text = ''
  for await (const chunk of body) {
    text += decoder.decode(chunk, { stream: true })
    const blocks = text.split('\n\n')
    text = blocks.pop() ?? ''
    for (const block of blocks)
      yield { name: /^event: (.*)$/m.exec(block)?.[1] ?? '', data: /^data: (.*)$/m.exec(block)?.[1] ?? '' }
  }
}
