import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import { type ApiClient, createClient } from '@upper-field/contract'
import { setupCode } from '../../src/people/setupCode'
import { prepareDatabase } from '../../src/prepareDatabase'
import { startHttp } from '../../src/startHttp'
import {
  bringText,
  configFor,
  freshDatabase,
  newList,
  OWNER,
  SECRET,
  signedIn,
  startTestServer,
  type TestServer,
} from './harness'

let server: TestServer
let api: ApiClient
beforeAll(async () => {
  server = await startTestServer({ READ_ROWS_PER_HOUR: '40', SIGN_INS_PER_MINUTE: '100' })
  api = server.api
})
afterAll(() => server.stop())

let added = 0
async function add(role: 'owner' | 'operator' | 'viewer') {
  added++
  const person = { name: `Person ${added}`, email: `person${added}@upper.example`, password: 'four words of mine' }
  const { id } = await api.call('addPerson', { body: { ...person, role } })
  return { ...person, id, api: await signedIn(server.url, person) }
}

/** The events of a stream until it ends. */
async function listen(client: ApiClient): Promise<{ isOpen: () => boolean; ended: Promise<void> }> {
  const response = await client.raw('watch', {})
  let isOpen = true
  const ended = response.text().then(
    () => {
      isOpen = false
    },
    () => {
      isOpen = false
    },
  )
  return { isOpen: () => isOpen, ended }
}

describe('people', () => {
  it('are listed, given another role, and removed; what they may do follows at once', async () => {
    const person = await add('operator')
    expect(await api.call('readPeople')).toEqual(
      expect.arrayContaining([expect.objectContaining({ email: person.email, role: 'operator', sessions: 1 })]),
    )
    await person.api.call('makeList', { body: { name: 'Theirs' } })
    await api.call('changePerson', { params: { personId: person.id }, body: { role: 'viewer' } })
    await expect(person.api.call('makeList', { body: { name: 'No more' } })).rejects.toMatchObject({ status: 403 })
    const stream = await listen(person.api)
    await api.call('removePerson', { params: { personId: person.id } })
    await stream.ended
    await expect(person.api.call('readLists')).rejects.toMatchObject({ status: 401 })
    await expect(signedIn(server.url, person)).rejects.toThrow(/401/)
    await expect(api.call('removePerson', { params: { personId: person.id } })).rejects.toMatchObject({ status: 404 })
  })

  it('keep an owner: the last one is neither removed nor made less', async () => {
    const me = await api.call('readMe')
    await expect(api.call('removePerson', { params: { personId: me.id } })).rejects.toMatchObject({
      code: 'last-owner',
    })
    await expect(
      api.call('changePerson', { params: { personId: me.id }, body: { role: 'viewer' } }),
    ).rejects.toMatchObject({ code: 'last-owner' })
    const second = await add('owner')
    const both = await Promise.allSettled([
      api.call('changePerson', { params: { personId: second.id }, body: { role: 'operator' } }),
      second.api.call('changePerson', { params: { personId: me.id }, body: { role: 'operator' } }),
    ])
    const owners = (await server.sql<{ n: number }>(`select count(*)::int as n from people where role = 'owner'`))[0]
    expect(owners?.n).toBe(1)
    expect(both.some(({ status }) => status === 'rejected')).toBe(true)
    await server.sql(`update people set role = 'owner' where email = $1`, [OWNER.email])
  })

  it('are changed by owners alone', async () => {
    const operator = await add('operator')
    const params = { personId: operator.id }
    for (const attempt of [
      () => operator.api.call('readPeople'),
      () => operator.api.call('changePerson', { params, body: { role: 'owner' } }),
      () => operator.api.call('removePerson', { params }),
    ])
      await expect(attempt()).rejects.toMatchObject({ status: 403 })
  })
})

describe('passwords', () => {
  it.each(['password123', 'Password1!', 'qwertyuiop', 'aaaaaaaaaaaa', 'iloveyou2', '12345678910', 'Vera Vale 1984'])(
    'that are guessed first are not taken: %s',
    async (password) => {
      await expect(
        api.call('addPerson', { body: { name: 'Vera Vale', email: 'vera@upper.example', password, role: 'viewer' } }),
      ).rejects.toMatchObject({ status: 422 })
    },
  )

  it('are changed by whoever knows the old one; other sessions end', async () => {
    const person = await add('operator')
    const elsewhere = await signedIn(server.url, person)
    const change = (old: string, next: string) => person.api.call('changePassword', { body: { old, new: next } })
    await expect(change('not the old one', 'another of my own')).rejects.toMatchObject({ code: 'wrong-password' })
    await expect(change(person.password, 'password123')).rejects.toMatchObject({ code: 'common-password' })
    await change(person.password, 'another of my own')
    expect(await person.api.call('readMe')).toMatchObject({ email: person.email })
    await expect(elsewhere.call('readMe')).rejects.toMatchObject({ status: 401 })
    await expect(signedIn(server.url, person)).rejects.toThrow(/401/)
    await signedIn(server.url, { ...person, password: 'another of my own' })
  })
})

describe('sessions', () => {
  it('are listed with where they are from, and ended one by one with their event streams', async () => {
    const person = await add('operator')
    const second = await signedIn(server.url, person)
    const mine = await person.api.call('readSessions')
    expect(mine).toHaveLength(2)
    expect(mine.filter(({ isThis }) => isThis)).toHaveLength(1)
    expect(mine.every(({ person: who }) => who === person.name)).toBe(true)
    expect((await api.call('readSessions')).length).toBeGreaterThan(2)

    const [stream, other] = [await listen(second), await listen(person.api)]
    const theirs = mine.find(({ isThis }) => !isThis)
    await person.api.call('endSession', { params: { sessionId: theirs?.id ?? '' } })
    await stream.ended
    expect(other.isOpen()).toBe(true)
    await expect(second.call('readMe')).rejects.toMatchObject({ status: 401 })
    const stranger = await add('operator')
    const [kept] = await person.api.call('readSessions')
    await expect(stranger.api.call('endSession', { params: { sessionId: kept?.id ?? '' } })).rejects.toMatchObject({
      status: 404,
    })
    await api.call('endSession', { params: { sessionId: kept?.id ?? '' } })
    await other.ended
  })

  it('end their event stream with the sign-out', async () => {
    const person = await add('viewer')
    const stream = await listen(person.api)
    const cookie = await cookieOf(person)
    const own = createClient(server.url, cookie)
    const mine = await listen(own)
    await fetch(`${server.url}/api/auth/sign-out`, {
      method: 'POST',
      headers: { cookie, origin: server.url, 'content-type': 'application/json' },
      body: '{}',
    })
    await mine.ended
    expect(stream.isOpen()).toBe(true)
    await api.call('removePerson', { params: { personId: person.id } })
    await stream.ended
  })

  it('let nobody call what the sign-in library can do besides', async () => {
    const cookie = await cookieOf(OWNER)
    for (const path of [
      'update-user',
      'change-email',
      'delete-user',
      'list-sessions',
      'revoke-sessions',
      'sign-up/email',
    ])
      expect(
        (
          await fetch(`${server.url}/api/auth/${path}`, {
            method: 'POST',
            headers: { cookie, origin: server.url, 'content-type': 'application/json' },
            body: '{}',
          })
        ).status,
      ).toBe(404)
  })
})

async function cookieOf({ email, password }: { email: string; password: string }): Promise<string> {
  const response = await fetch(`${server.url}/api/auth/sign-in/email`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: server.url },
    body: JSON.stringify({ email, password }),
  })
  return response.headers
    .getSetCookie()
    .map((line) => line.split(';')[0])
    .join('; ')
}

describe('whoever only looks', () => {
  it('sees no suppression key whole', async () => {
    const { id } = await api.call('makeSuppressionList', { body: { name: 'Opt-outs', kind: 'opt-outs' } })
    const params = { suppressionListId: id }
    await api.call('addSuppressionEntries', {
      params,
      body: { text: '+447911204481\nmaren@causeway.example\nrival.example' },
    })
    const viewer = await add('viewer')
    const seen = (await viewer.api.call('readSuppressionEntries', { params })).entries
    expect(seen.every(({ isMasked }) => isMasked)).toBe(true)
    expect(JSON.stringify(seen)).not.toMatch(/7911204481|maren@causeway|rival\.example/)
    expect(seen.map(({ key }) => key).sort()).toEqual(['+44…81', 'm…@c…', 'riv…le'])
    const operator = await add('operator')
    const known = (await operator.api.call('readSuppressionEntries', { params })).entries
    expect(known.map(({ key }) => key).sort()).toEqual(['+447911204481', 'maren@causeway.example', 'rival.example'])
  })

  it('or reads: nobody reads without end', async () => {
    const listId = await newList(api)
    const rows = Array.from({ length: 30 }, (_, i) => `P ${i},+4479112044${String(i).padStart(2, '0')}`)
    await bringText(api, listId, `name,phone\n${rows.join('\n')}\n`)
    const viewer = await add('viewer')
    const read = () => viewer.api.call('readContacts', { params: { listId } })
    expect((await read()).contacts).toHaveLength(30)
    await expect(read()).rejects.toMatchObject({ status: 429, code: 'too-many' })
    const operator = await add('operator')
    expect((await operator.api.call('readContacts', { params: { listId } })).contacts).toHaveLength(30)
  })
})

describe('the first owner', () => {
  const owner = { name: 'First', email: 'first@upper.example', password: 'four words of mine' }

  it('is one, also where four are made at once', async () => {
    const config = await configFor(await freshDatabase())
    await prepareDatabase(config)
    const http = await startHttp(config)
    const url = `http://127.0.0.1:${http.port}`
    const made = await Promise.allSettled(
      [1, 2, 3, 4].map((i) =>
        createClient(url).call('makeOwner', {
          body: { ...owner, email: `first${i}@upper.example`, code: setupCode(SECRET) },
        }),
      ),
    )
    expect(made.filter(({ status }) => status === 'fulfilled')).toHaveLength(1)
    expect((await http.services.pool.query('select 1 from people')).rows).toHaveLength(1)
    await http.stop()
  })

  it('is not found by guessing: attempts are counted for each address, behind a proxy too', async () => {
    const config = await configFor(await freshDatabase(), { TRUSTED_PROXY_HEADER: 'x-forwarded-for' })
    await prepareDatabase(config)
    const http = await startHttp(config)
    const url = `http://127.0.0.1:${http.port}`
    const guess = async (from: string, code = 'guess') =>
      (
        await fetch(`${url}/api/v1/setup`, {
          method: 'POST',
          headers: { 'content-type': 'application/json', origin: url, 'x-forwarded-for': from },
          body: JSON.stringify({ ...owner, code }),
        })
      ).status
    const answers: number[] = []
    for (let i = 0; i < 7; i++) answers.push(await guess(`10.9.9.${i}, 203.0.113.7`))
    expect(answers).toEqual([403, 403, 403, 403, 403, 429, 429])
    expect(await guess('203.0.113.7', setupCode(SECRET))).toBe(429)
    expect(await guess('203.0.113.8', setupCode(SECRET))).toBe(200)
    await http.stop()
  })

  it('without a proxy in the settings no header is believed', async () => {
    const config = await configFor(await freshDatabase())
    await prepareDatabase(config)
    const http = await startHttp(config)
    const url = `http://127.0.0.1:${http.port}`
    const answers: number[] = []
    for (let i = 0; i < 6; i++) {
      const response = await fetch(`${url}/api/v1/setup`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', origin: url, 'x-forwarded-for': `203.0.113.${i}` },
        body: JSON.stringify({ ...owner, code: 'guess' }),
      })
      answers.push(response.status)
    }
    expect(answers.at(-1)).toBe(429)
    await http.stop()
  })
})
