import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import { createClient } from '@upper-field/contract'
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
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.stop())

const trySignIn = (password: string, email = OWNER.email) =>
  fetch(`${server.url}/api/auth/sign-in/email`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: server.url },
    body: JSON.stringify({ email, password }),
  })

it('two who add the same person at the same moment make one account', async () => {
  const body = {
    name: 'Nora Nunn',
    email: 'nora@wrenfold.example',
    password: 'copper lantern field',
    role: 'viewer',
  } as const
  const both = await Promise.allSettled([0, 1].map(() => server.api.call('addPerson', { body })))
  expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
  expect(both.find(({ status }) => status === 'rejected')).toMatchObject({
    reason: { status: 409, code: 'email-taken' },
  })
})

describe('a session', () => {
  it('is a cookie that scripts cannot read and other sites do not send', async () => {
    const response = await trySignIn(OWNER.password)
    const cookie = response.headers.getSetCookie().find((line) => line.includes('session_token')) ?? ''
    expect(cookie).toMatch(/HttpOnly/i)
    expect(cookie).toMatch(/SameSite=Lax/i)
  })

  it('is needed for everything but the door', async () => {
    const stranger = createClient(server.url)
    await expect(stranger.call('readLists')).rejects.toMatchObject({ status: 401, code: 'not-signed-in' })
    expect(await stranger.call('readSetup')).toEqual({ needsOwner: false, demo: null })
  })

  it('ends with the sign-out', async () => {
    const api = await signedIn(server.url, OWNER)
    expect(await api.call('readMe')).toMatchObject({ email: OWNER.email, role: 'owner' })
    const cookie = (await trySignIn(OWNER.password)).headers
      .getSetCookie()
      .map((line) => line.split(';')[0])
      .join('; ')
    await fetch(`${server.url}/api/auth/sign-out`, {
      method: 'POST',
      headers: { cookie, origin: server.url, 'content-type': 'application/json' },
      body: '{}',
    })
    await expect(createClient(server.url, cookie).call('readMe')).rejects.toMatchObject({ status: 401 })
  })

  it('cannot be used from another site', async () => {
    const cookie = (await trySignIn(OWNER.password)).headers
      .getSetCookie()
      .map((line) => line.split(';')[0])
      .join('; ')
    const response = await fetch(`${server.url}/api/v1/lists`, {
      method: 'POST',
      headers: { cookie, origin: 'https://elsewhere.example', 'content-type': 'text/plain' },
      body: '{"name":"x"}',
    })
    expect(response.status).toBe(403)
  })

  it('is not given to strangers: there is no demo door and no sign-up', async () => {
    await expect(createClient(server.url).call('enterDemo')).rejects.toMatchObject({ status: 404 })
    const response = await fetch(`${server.url}/api/auth/sign-up/email`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', origin: server.url },
      body: JSON.stringify({ name: 'x', email: 'x@y.example', password: 'a long password' }),
    })
    expect(response.ok).toBe(false)
    expect(await createClient(server.url).call('readSetup')).toMatchObject({ needsOwner: false })
  })
})

describe('roles', () => {
  it('let a viewer look, change nothing, and download no contact data', async () => {
    const listId = await newList(server.api)
    const batch = await bringText(server.api, listId, 'name,phone\nMaren,07911 204481\nx\n', { defaultCountry: 'GB' })
    const edition = await server.api.call('makeEdition', {
      params: { listId },
      body: { destination: 'people', form: 'people', filter: '' },
    })
    await server.api.call('addPerson', {
      body: { name: 'Vera', email: 'vera@upper.example', password: 'a long password', role: 'viewer' },
    })
    const vera = await signedIn(server.url, { email: 'vera@upper.example', password: 'a long password' })
    expect((await vera.call('readList', { params: { listId } })).contacts).toBe(1)
    for (const attempt of [
      () => vera.call('makeList', { body: { name: 'x' } }),
      () => vera.call('changeList', { params: { listId }, body: { archived: true } }),
      () => vera.call('startCheck', { params: { listId }, body: { filter: '', agreed: 1_000_000 } }),
      () => vera.call('readHeld', { params: { batchId: batch.id } }),
      () =>
        vera.call('makeEdition', { params: { listId }, body: { destination: 'people', form: 'people', filter: '' } }),
    ]) {
      await expect(attempt()).rejects.toMatchObject({ status: 403, code: 'not-allowed' })
    }
    expect((await vera.raw('downloadEdition', { params: { editionId: edition.id } })).status).toBe(403)
    expect((await vera.raw('downloadHeld', { params: { batchId: batch.id } })).status).toBe(403)
  })

  it('let an operator work, but not set keys or add accounts', async () => {
    await server.api.call('addPerson', {
      body: { name: 'Otto', email: 'otto@upper.example', password: 'a long password', role: 'operator' },
    })
    const otto = await signedIn(server.url, { email: 'otto@upper.example', password: 'a long password' })
    expect((await otto.call('makeList', { body: { name: 'Otto’s' } })).name).toBe('Otto’s')
    await expect(
      otto.call('changeConnection', { params: { provider: 'tansy' }, body: { baseUrl: 'http://127.0.0.1:1' } }),
    ).rejects.toMatchObject({ status: 403 })
    await expect(
      otto.call('addPerson', { body: { name: 'x', email: 'x@y.example', password: 'a long password', role: 'owner' } }),
    ).rejects.toMatchObject({ status: 403 })
  })

  it('never show a provider’s key', async () => {
    await server.api.call('changeConnection', {
      params: { provider: 'tansy' },
      body: { baseUrl: 'http://127.0.0.1:1', key: 'very-secret-key' },
    })
    expect(JSON.stringify(await server.api.call('readConnections'))).not.toContain('very-secret-key')
    expect(JSON.stringify(await server.sql('select * from connections'))).not.toContain('very-secret-key')
  })
})

describe('lists', () => {
  it('are renamed, archived and brought back; an archived one is not worked on', async () => {
    const listId = await newList(server.api, 'Spring')
    const change = (body: { name?: string; archived?: boolean }) =>
      server.api.call('changeList', { params: { listId }, body })
    expect((await change({ name: 'Summer' })).name).toBe('Summer')
    await change({ archived: true })
    expect((await server.api.call('readLists')).map(({ id }) => id)).not.toContain(listId)
    expect((await server.api.call('readLists', { query: { archived: 'yes' } })).map(({ id }) => id)).toContain(listId)
    await expect(bringText(server.api, listId, 'name,phone\nx,1\n')).rejects.toMatchObject({ code: 'list-archived' })
    await change({ archived: false })
    await bringText(server.api, listId, 'name,phone\nAnn,07911 204481\nAnn,07911 204481\n', { defaultCountry: 'GB' })
    const [ann] = (await server.api.call('readContacts', { params: { listId } })).contacts
    const contactId = ann?.id ?? 0
    const body = { contactId, e164: '+447911204481', outcome: 'no-answer' as const }
    const { id: callId } = await server.api.call('noteCall', { params: { listId }, body })
    const [join] = await server.sql<{ id: string }>('select id from joins where list_id = $1', [listId])
    await change({ archived: true })
    for (const attempt of [
      () => server.api.call('placeByHand', { params: { contactId }, body: { lane: 'parked' } }),
      () => server.api.call('undoCall', { params: { callId } }),
      () => server.api.call('takeApart', { params: { joinId: Number(join?.id) } }),
    ])
      await expect(attempt()).rejects.toMatchObject({ code: 'list-archived' })
    await change({ archived: false })
    expect((await server.api.call('readLists')).map(({ id }) => id)).toContain(listId)
    await expect(change({ name: '  ' })).rejects.toMatchObject({ status: 422 })
  })

  it('that do not exist are said not to', async () => {
    await expect(server.api.call('readList', { params: { listId: crypto.randomUUID() } })).rejects.toMatchObject({
      status: 404,
    })
    await expect(server.api.call('readList', { params: { listId: 'x' } })).rejects.toMatchObject({ status: 422 })
  })
})

describe('the first start', () => {
  it('makes the owner with the printed code, once', async () => {
    const config = await configFor(await freshDatabase())
    await prepareDatabase(config)
    const http = await startHttp(config)
    const url = `http://127.0.0.1:${http.port}`
    const api = createClient(url)
    const owner = { name: 'First', email: 'first@upper.example', password: 'a long password' }
    expect(await api.call('readSetup')).toEqual({ needsOwner: true, demo: null })
    await expect(api.call('makeOwner', { body: { ...owner, code: 'guess' } })).rejects.toMatchObject({
      code: 'wrong-code',
    })
    expect(await api.call('makeOwner', { body: { ...owner, code: setupCode(SECRET) } })).toMatchObject({
      role: 'owner',
    })
    await expect(api.call('makeOwner', { body: { ...owner, code: setupCode(SECRET) } })).rejects.toMatchObject({
      code: 'owner-exists',
    })
    expect(await (await signedIn(url, owner)).call('readMe')).toMatchObject({ role: 'owner' })
    await http.stop()
  })
})

describe('guessing passwords', () => {
  it('is slowed down', async () => {
    const answers: number[] = []
    for (let i = 0; i < 12; i++) answers.push((await trySignIn('wrong password')).status)
    expect(answers[0]).toBe(401)
    expect(answers.at(-1)).toBe(429)
  })
})
