import { connect, type Socket } from 'node:net'
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { ApiClient } from '@upper-field/contract'
import { bringText, newList, signedIn, startTestServer, type TestServer } from './harness'

let server: TestServer
let api: ApiClient
let listId: string
beforeAll(async () => {
  server = await startTestServer({ MAX_BODY_BYTES: '20000', MAX_ROWS_BODY_BYTES: '60000', BODY_SECONDS: '1' })
  api = server.api
  listId = await newList(api)
  await bringText(api, listId, 'name,phone\nMaren,07911 204481\n', { defaultCountry: 'GB' })
})
afterAll(() => server.stop())

const post = (path: string, body: string, headers: Record<string, string> = {}) =>
  fetch(server.url + path, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: server.url, ...headers },
    body,
  })

/** What the server says to bytes that are sent as they are, and whether it closes the connection then. */
async function raw(lines: readonly string[], goOn: (socket: Socket) => void = () => {}): Promise<string> {
  const socket = connect(Number(new URL(server.url).port), '127.0.0.1')
  let told = ''
  socket.on('data', (chunk) => {
    told += chunk
  })
  socket.on('error', () => {})
  socket.write(`${lines.join('\r\n')}\r\n\r\n`)
  goOn(socket)
  await new Promise((resolve) => socket.once('close', resolve))
  return told
}

describe('the body of a call', () => {
  const large = JSON.stringify({ name: 'x'.repeat(30_000), email: 'a@b.example', password: 'p', code: 'c' })

  it.each(['/api/v1/setup', '/api/auth/sign-in/email', '/api/v1/lists'])(
    'of 400 MB is refused by its size alone, before a byte of it is read: %s',
    async (path) => {
      const cookie = path.endsWith('lists') ? await cookieOf(server) : ''
      const told = await raw([
        `POST ${path} HTTP/1.1`,
        `Host: ${new URL(server.url).host}`,
        `Origin: ${server.url}`,
        'Content-Type: application/json',
        'Content-Length: 400000000',
        ...(cookie ? [`Cookie: ${cookie}`] : []),
      ])
      expect(told).toMatch(/^HTTP\/1\.1 413 /)
      expect(told).toContain('body-too-large')
    },
  )

  it('that does not say its size is refused as soon as it is too large', async () => {
    const before = process.memoryUsage().rss
    const told = await raw(
      [
        'POST /api/v1/setup HTTP/1.1',
        `Host: ${new URL(server.url).host}`,
        `Origin: ${server.url}`,
        'Content-Type: application/json',
        'Transfer-Encoding: chunked',
      ],
      (socket) => {
        const chunk = 'x'.repeat(60_000)
        for (let i = 0; i < 200; i++) socket.write(`${chunk.length.toString(16)}\r\n${chunk}\r\n`)
      },
    )
    expect(told).toMatch(/^HTTP\/1\.1 413 /)
    expect(process.memoryUsage().rss - before).toBeLessThan(100 << 20)
  })

  it('that comes a byte now and then is not waited for without end', async () => {
    const told = await raw([
      'POST /api/v1/setup HTTP/1.1',
      `Host: ${new URL(server.url).host}`,
      `Origin: ${server.url}`,
      'Content-Type: application/json',
      'Content-Length: 500',
      '',
      '{"name":',
    ])
    expect(told).toMatch(/^HTTP\/1\.1 408 /)
    expect(told).toContain('too-slow')
  })

  it('may be larger where rows are sent', async () => {
    const made = await api.call('makeSuppressionList', { body: { name: 'Large', kind: 'opt-outs' } })
    const text = Array.from({ length: 1500 }, (_, i) => `person${i}@some.example`).join('\n')
    expect(text.length).toBeGreaterThan(20_000)
    const added = await api.call('addSuppressionEntries', {
      params: { suppressionListId: made.id },
      body: { text },
    })
    expect(added.added).toBe(1500)
    await expect(
      api.call('addSuppressionEntries', { params: { suppressionListId: made.id }, body: { text: text.repeat(3) } }),
    ).rejects.toMatchObject({ status: 413, code: 'body-too-large' })
  })

  it('is refused where the call needs no session, and everybody else is served meanwhile', async () => {
    const answers = await Promise.all([
      ...Array.from({ length: 20 }, () => post('/api/v1/setup', large).catch(() => null)),
      api.call('readLists'),
    ])
    expect(answers.at(-1)).toMatchObject([{ id: listId }])
    for (const answer of answers.slice(0, -1)) if (answer) expect((answer as Response).status).toBe(413)
  })

  it('holds no NUL but where it is padding of a cell', async () => {
    await expect(api.call('makeList', { body: { name: 'a\0b' } })).rejects.toMatchObject({ status: 422 })
    expect((await api.call('makeList', { body: { name: 'a\\u0000b' } })).name).toBe('a\\u0000b')
  })
})

async function cookieOf({ url }: TestServer): Promise<string> {
  let cookie = ''
  const original = globalThis.fetch
  globalThis.fetch = async (...args) => {
    const response = await original(...args)
    cookie ||= response.headers
      .getSetCookie()
      .map((line) => line.split(';')[0])
      .join('; ')
    return response
  }
  await signedIn(url, { email: 'olive@upper.example', password: 'a long password' })
  globalThis.fetch = original
  return cookie
}

describe('filters and cursors that make no sense', () => {
  const contacts = (query: Record<string, string>) => api.call('readContacts', { params: { listId }, query })
  it.each(['fell:constructor', 'fell:__proto__', 'is:toString', 'is:nonsense', 'fell:joined,valueOf'])(
    'are refused with what there is: %s',
    async (filter) => {
      await expect(contacts({ filter })).rejects.toMatchObject({ status: 422, code: 'unknown-value' })
      await expect(api.call('readPiles', { params: { listId }, query: { filter } })).rejects.toMatchObject({
        status: 422,
      })
    },
  )

  it('hold NUL, or more words than anybody types: refused', async () => {
    await expect(contacts({ filter: 'a\0b' })).rejects.toMatchObject({ status: 422, code: 'not-valid' })
    const many = Array.from({ length: 999 }, (_, i) => String.fromCharCode(97 + (i % 26))).join(' ')
    await expect(contacts({ filter: many.slice(0, 1990) })).rejects.toMatchObject({
      status: 422,
      code: 'too-many-words',
    })
    await expect(contacts({ filter: 'maren old er sh aw' })).resolves.toMatchObject({ total: 0 })
  })

  it.each(['x', '-1', '1e400', '99999999999999999999', "1'", '1/2', 'null', '%00'])(
    'a cursor that no page gave out: %s',
    async (cursor) => {
      const refused = { status: 422 }
      // Some pages go on behind two numbers, some behind one.
      const other = cursor === '1/2' ? '1/2/3' : cursor
      await expect(contacts({ cursor: other })).rejects.toMatchObject(refused)
      await expect(api.call('readPairs', { params: { listId }, query: { cursor: other } })).rejects.toMatchObject(
        refused,
      )
      await expect(api.call('readSharedLines', { params: { listId }, query: { cursor } })).rejects.toMatchObject(
        refused,
      )
      await expect(api.call('readHand', { params: { listId }, query: { cursor: other } })).rejects.toMatchObject(
        refused,
      )
      const [list] = await api.call('readSuppressionLists')
      await expect(
        api.call('readSuppressionEntries', { params: { suppressionListId: list?.id ?? '' }, query: { cursor } }),
      ).rejects.toMatchObject(refused)
    },
  )

  it('an id beyond what the database can count', async () => {
    for (const contactId of [-1, 1e30, 2 ** 63])
      await expect(api.call('readStory', { params: { contactId } })).rejects.toMatchObject({ status: 422 })
  })
})

describe('what is answered', () => {
  it('lies in no cache, and its page runs nothing of others', async () => {
    const page = await fetch(`${server.url}/api/v1/setup`)
    expect(page.headers.get('cache-control')).toBe('no-store')
    const policy = page.headers.get('content-security-policy') ?? ''
    expect(policy).toContain("base-uri 'none'")
    expect(policy).toContain("form-action 'self'")
    expect(policy).toContain("object-src 'none'")
    expect((await fetch(`${server.url}/api/v1/lists`)).headers.get('cache-control')).toBe('no-store')
  })

  it.each(['evil.example', 'evil.example:4600', '127.0.0.1.evil.example', ''])(
    'is only told under our own name, not under “%s”',
    async (host) => {
      const told = await raw(['GET /api/v1/setup HTTP/1.1', `Host: ${host}`, 'Connection: close'])
      expect(told).toMatch(/^HTTP\/1\.1 421 /)
    },
  )

  it('is told under the names of this machine', async () => {
    const { port } = new URL(server.url)
    for (const name of ['localhost', '127.0.0.1']) {
      const told = await raw(['GET /api/v1/setup HTTP/1.1', `Host: ${name}:${port}`, 'Connection: close'])
      expect(told).toMatch(/^HTTP\/1\.1 200 /)
    }
  })
})
