import { createServer, type Server } from 'node:http'
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import { type StandIns, startStandIns } from '../src/server'
import { createWorld } from '../src/world'

const WORLD = { seed: 'stand-ins', people: 150 }
const world = createWorld(WORLD.seed, WORLD)
const keys = { pellow: 'p', tansy: 't', brindle: 'b' }
let standIns: StandIns
let listener: Server
let callbackUrl = ''
const called: { path: string; body: { candidates: { number: string }[] } }[] = []

beforeAll(async () => {
  standIns = await startStandIns({ port: 0, ...WORLD, keys, speed: 100 })
  listener = createServer((request, response) => {
    let body = ''
    request.on('data', (chunk) => {
      body += chunk
    })
    request.on('end', () => {
      called.push({ path: request.url ?? '', body: JSON.parse(body) })
      response.end('{}')
    })
  }).listen(0, '127.0.0.1')
  await new Promise((resolve) => listener.once('listening', resolve))
  const address = listener.address()
  callbackUrl = `http://127.0.0.1:${typeof address === 'object' ? address?.port : 0}`
})
afterAll(async () => {
  listener.close()
  await standIns.stop()
})

async function ask<T>(
  path: string,
  body: unknown,
  { key, once }: { key: string; once?: string },
): Promise<{ status: number; json: T }> {
  const response = await fetch(standIns.url + path, {
    method: 'POST',
    headers: {
      authorization: `Bearer ${key}`,
      'content-type': 'application/json',
      ...(once ? { 'idempotency-key': once } : {}),
    },
    body: JSON.stringify(body),
  })
  return { status: response.status, json: (await response.json()) as T }
}

const moment = () => new Promise((resolve) => setTimeout(resolve, 10))

async function untilCalled(times: number): Promise<void> {
  while (called.length < times) await moment()
}

/** What the register says of many numbers at once, as soon as it is ready. */
async function readyBulk(id: string): Promise<{ state: string }> {
  for (;;) {
    const response = await fetch(`${standIns.url}/pellow/v1/bulk/${id}`, { headers: { authorization: 'Bearer p' } })
    const bulk = (await response.json()) as { state: string }
    if (bulk.state !== 'working') return bulk
    await moment()
  }
}

const asPerson = (person: (typeof world.people)[number]) => ({
  name: `${person.family} ${person.given}`,
  company: person.company.name,
  domain: person.company.domain,
  profile: person.profile,
})

describe('Pellow, the line register', () => {
  it('tells the truth, or that it does not know, and charges known answers only, once', async () => {
    const numbers = world.people.slice(0, 60).map(({ mobile }) => mobile.e164)
    const before = standIns.charged().pellow.count
    let known = 0
    for (const number of [...numbers, numbers[0] ?? '']) {
      const { json } = await ask<{ lineType: string; status: string }>(
        '/pellow/v1/checks',
        { number },
        { key: 'p', once: number },
      )
      if (json.status === 'unknown') continue
      known++
      expect([number, json.lineType, json.status]).toEqual([number, 'mobile', world.numberOf(number)?.status])
    }
    expect(standIns.charged().pellow.count - before).toBe(known - 1)
    expect(known).toBeGreaterThan(45)
    expect(known).toBeLessThanOrEqual(61)
  })

  it('does not know numbers that are not of this world', async () => {
    expect((await ask('/pellow/v1/checks', { number: '+441234567890' }, { key: 'p' })).json).toMatchObject({
      status: 'unknown',
      lineType: 'unknown',
    })
  })

  it('gives bulk answers when they are ready', async () => {
    const numbers = world.people.slice(0, 5).map(({ desk }) => desk.e164)
    const { json } = await ask<{ id: string; state: string }>(
      '/pellow/v1/bulk',
      { numbers },
      { key: 'p', once: 'bulk-1' },
    )
    expect(json).toMatchObject({ id: 'bulk-1', state: 'working' })
    const ready = await readyBulk('bulk-1')
    expect(ready).toMatchObject({ state: 'ready', answers: numbers.map((number) => ({ number })) })
  })
})

describe('Tansy', () => {
  it('answers at once, the same every time, in its country’s way of writing', async () => {
    const answers = await Promise.all(
      world.people.map((person) =>
        ask<{ candidates: { number: string }[] }>('/tansy/v1/find', { person: asPerson(person) }, { key: 't' }),
      ),
    )
    const found = answers.filter(({ json }) => json.candidates.length > 0)
    expect(found.length).toBeGreaterThan(world.people.length * 0.25)
    expect(found.length).toBeLessThan(world.people.length * 0.75)
    expect(found.every(({ json }) => !json.candidates[0]?.number.startsWith('+'))).toBe(true)
    const again = await ask('/tansy/v1/find', { person: asPerson(world.people[3] as never) }, { key: 't' })
    expect(again.json).toEqual(answers[3]?.json)
  })

  it('takes about a third of its mobiles from desks', async () => {
    const answers = await Promise.all(
      world.people.map(async (person) => ({
        person,
        json: (
          await ask<{ candidates: { number: string }[] }>('/tansy/v1/find', { person: asPerson(person) }, { key: 't' })
        ).json,
      })),
    )
    const found = answers.flatMap(({ person, json }) =>
      json.candidates.map(({ number }) => person.desk.e164.endsWith(number.replace(/^0/, ''))),
    )
    const desks = found.filter(Boolean).length / found.length
    expect(desks).toBeGreaterThan(0.15)
    expect(desks).toBeLessThan(0.5)
  })
})

describe('Brindle', () => {
  it('takes the request, answers later by calling back, and charges for what was accepted, once', async () => {
    const person = world.people.find(({ company }) => company.place.country === 'DE')
    const request = { person: person && asPerson(person), callback: `${callbackUrl}/answers/1` }
    expect((await ask('/brindle/v1/requests', request, { key: 'b', once: 'r1' })).status).toBe(202)
    await ask('/brindle/v1/requests', request, { key: 'b', once: 'r1' })
    await untilCalled(1)
    // Were the first called back about twice, it would be before one that is asked after it.
    const other = { ...request, callback: `${callbackUrl}/answers/2` }
    await ask('/brindle/v1/requests', other, { key: 'b', once: 'r2' })
    await untilCalled(2)
    expect(called.map(({ path }) => path)).toEqual(['/answers/1', '/answers/2'])
    expect(standIns.charged().brindle.count).toBe(0)
    await ask('/brindle/v1/accepted', { reference: 'r1' }, { key: 'b' })
    await ask('/brindle/v1/accepted', { reference: 'r1' }, { key: 'b' })
    expect(standIns.charged().brindle).toEqual({ count: 1, total: 350_000 })
  })
})

describe('every service', () => {
  it.each(['/pellow/v1/checks', '/tansy/v1/find', '/brindle/v1/requests'])('%s wants its key', async (path) => {
    expect((await ask(path, {}, { key: 'wrong' })).status).toBe(401)
  })
  it('says so when it does not understand', async () => {
    expect((await ask('/pellow/v1/checks', { nonsense: true }, { key: 'p' })).status).toBe(400)
  })
})

describe('the page of the outside world', () => {
  const page = async (path = '/world') => (await fetch(standIns.url + path)).text()
  const press = (service: string, fault: string) =>
    fetch(`${standIns.url}/world/${service}/${fault}`, { method: 'POST', redirect: 'manual' })

  it('shows what was asked and answered, and its books, as plain text', async () => {
    await ask('/pellow/v1/checks', { number: '<b>+44</b>' }, { key: 'p', once: 'shown' })
    const shown = await page()
    expect(shown).toContain('POST /pellow/v1/checks')
    expect(shown).toContain('&lt;b&gt;+44&lt;/b&gt;')
    expect(shown).toMatch(/Asked \d+ times · charged \d+ times, €/)
  })

  it('switches a fault on and off', async () => {
    expect((await press('tansy', 'down')).status).toBe(303)
    const [person] = world.people
    const question = { person: person && asPerson(person) }
    expect((await ask('/tansy/v1/find', question, { key: 't' })).status).toBe(503)
    await press('tansy', 'down')
    expect((await ask('/tansy/v1/find', question, { key: 't' })).status).toBe(200)
    expect((await press('tansy', 'sleepy')).status).toBe(404)
  })

  it('asks half as much again with another price, for questions that are new', async () => {
    const person = world.people.find(({ mobile }) => mobile.status === 'in-service')
    const priceOf = async (once: string) => {
      const before = standIns.charged().pellow.total
      await ask('/pellow/v1/checks', { number: person?.desk.e164 }, { key: 'p', once })
      return standIns.charged().pellow.total - before
    }
    expect(await priceOf('at the usual price')).toBe(5000)
    standIns.toggle('pellow', 'another-price')
    expect(await priceOf('at another price')).toBe(7500)
    expect(await priceOf('at the usual price')).toBe(0)
    standIns.toggle('pellow', 'another-price')
  })
})
