import { createHmac } from 'node:crypto'
import { createServer } from 'node:http'
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import { isUnderWay } from '@upper-field/contract'
import type { StandIns } from '@upper-field/standins'
import { signed } from '@upper-field/standins/signed'
import { createWorld } from '@upper-field/standins/world'
import { untilEnded } from '../../../../scripts/bringIn'
import { bringText, connectStandIns, KEYS, newList, SECRET, startTestServer, type TestServer } from './harness'

const WORLD = { seed: 'fill', people: 80 }
const world = createWorld(WORLD.seed, WORLD)
let server: TestServer
let standIns: StandIns

beforeAll(async () => {
  server = await startTestServer()
  standIns = await connectStandIns(server, WORLD)
})
afterAll(async () => {
  await server.stop()
  await standIns.stop()
})

/** A list of people of the world who have told us no number. */
async function listOf(people: typeof world.people): Promise<string> {
  const listId = await newList(server.api)
  const rows = people.map(
    ({ given, family, company, workEmail, profile }) =>
      `${given} ${family},${company.name},${workEmail},${company.place.country},https://${profile}`,
  )
  await bringText(server.api, listId, `name,company,mail,country,profile\n${rows.join('\n')}\n`)
  return listId
}
const fill = (listId: string, order: string[], budget: number) =>
  server.api.call('startFill', { params: { listId }, body: { order, checksLines: true, budget } })
const signatureOf = (attemptId: string) =>
  createHmac('sha256', SECRET).update(`callback ${attemptId}`).digest('hex').slice(0, 32)
/** Brings an answer as the service would: signed with its key, now, unless a test says otherwise. */
const callBack = (
  attemptId: string,
  signature: string,
  candidates: unknown,
  headersOf = (body: string): Record<string, string> => signed(KEYS.brindle, body),
) => {
  const body = JSON.stringify({ candidates })
  return fetch(`${server.url}/api/v1/callbacks/${attemptId}/${signature}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', ...headersOf(body) },
    body,
  })
}

describe('a fill', () => {
  it('never passes even a budget that is smaller than one asking', async () => {
    const listId = await listOf(world.people.slice(0, 10))
    const job = await fill(listId, ['brindle', 'tansy'], 10_000)
    expect(await untilEnded(server.api, listId, job.id)).toMatchObject({
      state: 'done',
      problem: 'budget-reached',
      result: { spent: 0, found: 0, leftByBudget: 10 },
    })
    expect(await server.sql('select 1 from attempts where list_id = $1', [listId])).toEqual([])
  })

  it('goes on with the next provider where one does not answer in time', async () => {
    // A service that takes every request and never calls back.
    const silent = createServer((_, response) => {
      response.setHeader('content-type', 'application/json')
      response.end('{"request":"taken"}')
    }).listen(0, '127.0.0.1')
    await new Promise((resolve) => silent.once('listening', resolve))
    const address = silent.address()
    const silentUrl = `http://127.0.0.1:${typeof address === 'object' ? address?.port : 0}`
    await server.api.call('changeConnection', {
      params: { provider: 'brindle' },
      body: { baseUrl: silentUrl, key: 'any key' },
    })
    const listId = await listOf(world.people.slice(10, 20))
    const job = await fill(listId, ['brindle', 'tansy'], 20_000_000)
    const ended = await untilEnded(server.api, listId, job.id)
    await server.api.call('changeConnection', {
      params: { provider: 'brindle' },
      body: { baseUrl: standIns.url, key: KEYS.brindle },
    })
    silent.closeAllConnections()
    silent.close()
    expect(ended.state).toBe('done')
    const attempts = await server.sql<{ provider: string; state: string }>(
      'select provider, state from attempts where list_id = $1',
      [listId],
    )
    expect(new Set(attempts.filter(({ provider }) => provider === 'brindle').map(({ state }) => state))).toEqual(
      new Set(['late']),
    )
    expect(attempts.filter(({ provider }) => provider === 'tansy').length).toBeGreaterThan(0)
  })

  it('takes no answer that is not signed with the key, or too long ago', async () => {
    const [person] = world.people.slice(30)
    const listId = await listOf(person ? [person] : [])
    const silent = createServer((_, response) => response.end('{}')).listen(0, '127.0.0.1')
    await new Promise((resolve) => silent.once('listening', resolve))
    const address = silent.address()
    const port = typeof address === 'object' ? address?.port : 0
    const connect = (baseUrl: string) =>
      server.api.call('changeConnection', { params: { provider: 'brindle' }, body: { baseUrl, key: KEYS.brindle } })
    await connect(`http://127.0.0.1:${port}`)
    const job = await fill(listId, ['brindle'], 5_000_000)
    const waiting = () =>
      server.sql<{ id: string }>(`select id from attempts where list_id = $1 and deadline is not null`, [listId])
    while ((await waiting()).length === 0) await new Promise((resolve) => setImmediate(resolve))
    const id = (await waiting())[0]?.id ?? ''
    const answer = [{ number: '+447911299998', score: 99 }]
    const hourAgo = new Date(Date.now() - 3_600_000)
    for (const headersOf of [
      () => ({}),
      (body: string) => signed('another key', body),
      (body: string) => signed(KEYS.brindle, body, hourAgo),
      () => signed(KEYS.brindle, '{"candidates":[]}'),
    ])
      expect((await callBack(id, signatureOf(id), answer, headersOf)).status).toBe(401)
    expect(await server.sql('select answer from attempts where id = $1', [id])).toEqual([{ answer: null }])
    expect((await callBack(id, signatureOf(id), answer)).status).toBe(200)
    expect(await untilEnded(server.api, listId, job.id)).toMatchObject({ state: 'done' })
    silent.closeAllConnections()
    silent.close()
    await connect(standIns.url)
  })

  it('takes a late answer once, and only from whom it told the address', async () => {
    const [person] = world.people.slice(20)
    const listId = await listOf(person ? [person] : [])
    const job = await fill(listId, ['brindle'], 5_000_000)
    await untilEnded(server.api, listId, job.id)
    const [attempt] = await server.sql<{ id: string; state: string }>(
      'select id, state from attempts where list_id = $1',
      [listId],
    )
    const id = attempt?.id ?? ''
    expect((await callBack(id, 'f'.repeat(32), [])).status).toBe(404)
    expect((await callBack(crypto.randomUUID(), signatureOf(id), [])).status).toBe(404)
    const before = await server.sql('select * from attempts where list_id = $1', [listId])
    expect((await callBack(id, signatureOf(id), [{ number: '+447911299999', score: 99 }])).status).toBe(200)
    expect(await server.sql('select * from attempts where list_id = $1', [listId])).toEqual(before)
    expect((await server.api.call('readJobs', { params: { listId } })).some(isUnderWay)).toBe(false)
  })

  it('says which key is missing or refused, and asks no further', async () => {
    await server.api.call('changeConnection', {
      params: { provider: 'tansy' },
      body: { baseUrl: standIns.url, key: 'wrong key' },
    })
    const listId = await listOf(world.people.slice(30, 40))
    const job = await fill(listId, ['tansy'], 5_000_000)
    expect(await untilEnded(server.api, listId, job.id)).toMatchObject({ state: 'failed', problem: 'key-refused' })
    await server.api.call('changeConnection', {
      params: { provider: 'tansy' },
      body: { baseUrl: standIns.url, key: 'key-tansy' },
    })
    await server.api.call('resumeJob', { params: { jobId: job.id } })
    expect(await untilEnded(server.api, listId, job.id)).toMatchObject({ state: 'done', problem: null })
    const [kept] = await server.sql<{ reserved: string }>('select reserved from fill_runs where job_id = $1', [job.id])
    expect(kept?.reserved).toBe('0')
  })

  it('refuses an unknown provider and a list in which nobody wants a mobile', async () => {
    const listId = await newList(server.api)
    await bringText(server.api, listId, 'name,phone\nMaren Oldershaw,07911 204481\n', { defaultCountry: 'GB' })
    await expect(fill(listId, ['nobody'], 1_000_000)).rejects.toMatchObject({ code: 'unknown-provider' })
    await expect(fill(listId, ['tansy'], 1_000_000)).rejects.toMatchObject({ code: 'nobody-wanting' })
  })
})

describe('a service that becomes dearer in mid-run', () => {
  const ofRun = async (listId: string) => (await server.api.call('readFills', { params: { listId } }))[0]
  const booked = async (listId: string, provider: string) => {
    const rows = await server.sql<{ n: string }>(
      'select coalesce(sum(amount), 0) as n from charges where list_id = $1 and provider = $2',
      [listId, provider],
    )
    return Number(rows[0]?.n)
  }

  it('is asked no more until somebody agrees, and what it charged meanwhile is booked as it told', async () => {
    const before = standIns.charged().tansy.total
    standIns.toggle('tansy', 'another-price')
    const listId = await listOf(world.people.slice(0, 60))
    const job = await fill(listId, ['tansy'], 40_000_000)
    const asking = await untilEnded(server.api, listId, job.id)
    expect(asking).toMatchObject({ state: 'paused', problem: 'price-changed' })
    const asked = standIns.charged().tansy
    expect((await ofRun(listId))?.newPrices).toEqual([{ provider: 'tansy', agreed: 80_000, now: 120_000 }])
    expect(await booked(listId, 'tansy')).toBe(asked.total - before)
    await server.api.call('resumeJob', { params: { jobId: job.id } })
    expect(await untilEnded(server.api, listId, job.id)).toMatchObject({ state: 'done', problem: null })
    standIns.toggle('tansy', 'another-price')
    expect(await booked(listId, 'tansy')).toBe(standIns.charged().tansy.total - before)
    expect(standIns.charged().tansy.count).toBeGreaterThan(asked.count)
    expect((await ofRun(listId))?.newPrices).toEqual([])
  })

  it('by its own connector is asked about as well, before it is asked', async () => {
    const listId = await listOf(world.people.slice(0, 60))
    // So slow that it is still at its first questions when it is told to rest.
    standIns.toggle('tansy', 'slow')
    const job = await fill(listId, ['tansy'], 40_000_000)
    await server.api.call('pauseJob', { params: { jobId: job.id } })
    await untilEnded(server.api, listId, job.id)
    const connector = await server.api.call('readConnector', { params: { provider: 'tansy' } })
    const dearer = { ...connector, charge: { ...connector.charge, euros: 0.2 } }
    await server.api.call('keepConnector', { params: { provider: 'tansy' }, body: dearer })
    standIns.toggle('tansy', 'slow')
    const { count } = standIns.charged().tansy
    await server.api.call('resumeJob', { params: { jobId: job.id } })
    const asking = await untilEnded(server.api, listId, job.id)
    expect(asking).toMatchObject({ state: 'paused', problem: 'price-changed' })
    expect(standIns.charged().tansy.count).toBe(count)
    expect((await ofRun(listId))?.newPrices).toEqual([{ provider: 'tansy', agreed: 80_000, now: 200_000 }])
    await server.api.call('keepConnector', { params: { provider: 'tansy' }, body: connector })
    await server.api.call('stopJob', { params: { jobId: job.id } })
  })
})

describe('odd text', () => {
  it('comes back from the database as it went in', async () => {
    const listId = await newList(server.api)
    const odd = [
      'Tab\there',
      'back\\slash \\N \\.',
      'Quote " and \' and {brace},comma',
      'Line\nbreak',
      '\u202eRight to left',
      '🌿 Leaf',
      '  Spaced  ',
    ]
    const rows = odd.map((text, i) => `"${text.replaceAll('"', '""')}",p${i}@causeway.example`)
    await bringText(server.api, listId, `company,mail\n${rows.join('\n')}\n`)
    const stored = await server.sql<{ text: string; company: string }>(
      'select r.text, c.company from rows r join contacts c on c.batch_id = r.batch_id and c.row = r.row where c.list_id = $1 order by r.row',
      [listId],
    )
    expect(stored.map(({ text }) => text)).toEqual(rows)
    expect(stored.map(({ company }) => company)).toEqual(odd.map((text) => text.trim().replace(/\s+/g, ' ')))
  })
})
