import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import { type ApiClient, type BodyOf, CallFailed, createClient } from '@upper-field/contract'
import { createWorld } from '@upper-field/standins/world'
import { untilEnded } from '../../../../scripts/bringIn'
import { bringText, connectStandIns, newList, startTestServer, type TestServer } from './harness'
import { holdList } from './holdList'
import { until } from './until'

let server: TestServer
let listId = ''
beforeAll(async () => {
  server = await startTestServer()
  listId = await newList(server.api, 'Terraces')
  await bringText(server.api, listId, 'name,phone,mail\nMaren Oldershaw,+44 7911 204481,maren@causeway.example')
})
afterAll(() => server.stop())

const makeKey = (more: Partial<BodyOf<'makeMachineKey'>> = {}) =>
  server.api.call('makeMachineKey', { body: { name: 'The form', scopes: ['check', 'add', 'read'], ...more } })

/** The API as another program calls it. */
const asProgram = (secret: string): ApiClient => createClient(server.url, '', { authorization: `Bearer ${secret}` })

const codeOf = async (call: Promise<unknown>): Promise<string> => {
  try {
    await call
    return 'done'
  } catch (error) {
    return error instanceof CallFailed ? error.code : 'odd'
  }
}

describe('a key for a program', () => {
  it('is shown once, kept as a hash, and does what its scopes allow', async () => {
    const { key, secret } = await makeKey({ scopes: ['read'] })
    expect(secret).toMatch(/^ufk_[\w-]{43}$/)
    const stored = await server.sql<{ all: string }>('select row_to_json(k)::text as all from machine_keys k')
    expect(stored.map(({ all }) => all).join()).not.toContain(secret.slice(12))
    const program = asProgram(secret)
    expect((await program.call('readLists')).map(({ name }) => name)).toContain('Terraces')
    expect(await codeOf(program.call('judge', { body: { value: 'x' } }))).toBe('scope-missing')
    expect(await codeOf(program.call('makeList', { body: { name: 'x' } }))).toBe('people-only')
    expect(await codeOf(program.call('readMachineKeys'))).toBe('people-only')
    expect(key).toMatchObject({ scopes: ['read'], start: secret.slice(0, 10), lastUsedAt: null })
  })

  it('ends at once where it is rotated or withdrawn, and on its day', async () => {
    const { key, secret } = await makeKey()
    const rotated = await server.api.call('rotateMachineKey', { params: { keyId: key.id } })
    expect(await codeOf(asProgram(secret).call('readLists'))).toBe('no-such-key')
    const program = asProgram(rotated.secret)
    expect(await codeOf(program.call('readLists'))).toBe('done')
    await server.api.call('withdrawMachineKey', { params: { keyId: key.id } })
    expect(await codeOf(program.call('readLists'))).toBe('no-such-key')
    expect(await codeOf(server.api.call('rotateMachineKey', { params: { keyId: key.id } }))).toBe('key-withdrawn')
    expect(await codeOf(makeKey({ expiresOn: '2020-01-01' }))).toBe('ended-already')
    const ending = await makeKey({ expiresOn: '2099-01-01' })
    await server.sql("update machine_keys set expires_at = '2021-01-01' where id = $1", [ending.key.id])
    expect(await codeOf(asProgram(ending.secret).call('readLists'))).toBe('key-expired')
    expect(await codeOf(asProgram('ufk_nothing').call('readLists'))).toBe('no-such-key')
  })

  it('calls no more often than it may, and each call is noted without a word of whom it was about', async () => {
    const { key, secret } = await makeKey({ perMinute: 3 })
    const program = asProgram(secret)
    const codes: string[] = []
    for (let i = 0; i < 4; i++) codes.push(await codeOf(program.call('judge', { body: { value: '+447911204481' } })))
    expect(codes).toEqual(['done', 'done', 'done', 'too-many'])
    expect(await codeOf(program.call('readMachineKeys'))).toBe('people-only')
    const calls = () => server.api.call('readMachineCalls', { params: { keyId: key.id } })
    await until(async () => (await calls()).length === 5)
    expect((await calls()).map(({ call, status }) => `${call} ${status}`)).toEqual([
      'readMachineKeys 403',
      'judge 429',
      ...Array(3).fill('judge 200'),
    ])
    const noted = await server.sql<{ all: string }>('select row_to_json(c)::text as all from machine_calls c')
    expect(noted.map(({ all }) => all).join()).not.toContain('7911')
    expect((await server.api.call('readMachineKeys')).find(({ id }) => id === key.id)).toMatchObject({ callsToday: 5 })
  })

  it('is made by owners alone', async () => {
    expect(await codeOf(createClient(server.url).call('readMachineKeys'))).toBe('not-signed-in')
  })
})

describe('a judgement', () => {
  const judge = (body: BodyOf<'judge'>) => server.api.call('judge', { body })

  it('tells what a value is, who holds it, and what may be done with it', async () => {
    const { judgements, cost } = await judge({
      values: ['07911 204481', 'MAREN@causeway.example', 'nothing'],
      country: 'GB',
    })
    expect(cost).toBe(0)
    expect(judgements).toMatchObject([
      {
        kind: 'number',
        normal: '+447911204481',
        country: 'GB',
        lineType: 'mobile',
        knownFrom: 'plan',
        mayBeTexted: true,
        inLists: [{ listId }],
        suppressedFor: [],
      },
      { kind: 'email', normal: 'maren@causeway.example', addressState: 'not-checked', inLists: [{ listId }] },
      { kind: 'unreadable', normal: null, mayBeTexted: false, call: null },
    ])
  })

  it('tells what suppression lists forbid', async () => {
    const { id } = await server.api.call('makeSuppressionList', {
      body: { name: 'No calls', kind: 'opt-outs', scope: 'calls' },
    })
    await server.api.call('addSuppressionEntries', {
      params: { suppressionListId: id },
      body: { text: '+447911204499\nbanned.example', reason: 'asked' },
    })
    const { judgements } = await judge({ values: ['+447911204499', 'x@banned.example'] })
    expect(judgements).toMatchObject([
      { suppressedFor: ['calls'], mayBeTexted: true, call: 'suppressed' },
      { suppressedFor: ['calls'] },
    ])
  })

  it.each<[string, BodyOf<'judge'>]>([
    ['nothing', {}],
    ['one and several', { value: 'a', values: ['b'] }],
    ['more than a hundred', { values: Array.from({ length: 101 }, (_, i) => `${i}`) }],
  ])('of %s is refused', async (_, body) => {
    expect(await codeOf(judge(body))).toBe('not-valid')
  })
})

describe('a judgement that may cost money', () => {
  it('asks the register within the budget of its key, each number once', async () => {
    const standIns = await connectStandIns(server)
    const { key, secret } = await makeKey({ budget: 0 })
    const program = asProgram(secret)
    const asked = { value: '+447911200033', ask: true }
    const first = await program.call('judge', { body: asked })
    expect(first).toMatchObject({ cost: 0, judgements: [{ notAsked: 'no-budget', knownFrom: 'plan' }] })
    await server.sql('update machine_keys set budget = 5000000 where id = $1', [key.id])
    const charged = () => standIns.charged().pellow.count
    const before = charged()
    const both = await Promise.all([program.call('judge', { body: asked }), program.call('judge', { body: asked })])
    const costs = both.map(({ cost }) => cost)
    expect(charged() - before).toBeLessThanOrEqual(1)
    const booked = await server.sql<{ n: number }>(
      "select count(*)::int as n from charges where question like 'judge:%'",
    )
    expect(booked[0]?.n).toBe(charged() - before)
    expect(Math.max(...costs)).toBe(
      Number((await server.api.call('readMachineKeys')).find(({ id }) => id === key.id)?.spent),
    )
    expect(await program.call('judge', { body: { value: '12', ask: true } })).toMatchObject({ cost: 0 })
    await standIns.stop()
  })

  it('lets every list know what was told of a number, one that is being worked on once it is free', async () => {
    const standIns = await connectStandIns(server)
    const { secret } = await makeKey({ budget: 5_000_000 })
    const e164 = createWorld('tests', { people: 200 }).people[3]?.mobile.e164 ?? ''
    const lists = [await newList(server.api, 'Free'), await newList(server.api, 'Worked on')]
    for (const listId of lists) await bringText(server.api, listId, `name,phone\nMaren,${e164}\n`)
    const knownFrom = async () =>
      Promise.all(lists.map(async (listId) => (await contactsOf(listId)).map((contact) => contact.knownFrom)))
    expect(await knownFrom()).toEqual([['plan'], ['plan']])
    const letGo = await holdList(server, lists[1] ?? '')
    await asProgram(secret).call('judge', { body: { value: e164, ask: true } })
    expect(await knownFrom()).toEqual([['register'], ['plan']])
    await letGo()
    for (const { id } of await server.api.call('readJobs', { params: { listId: lists[1] ?? '' } }))
      await untilEnded(server.api, lists[1] ?? '', id)
    expect(await knownFrom()).toEqual([['register'], ['register']])
    await standIns.stop()
  })
})

const contactsOf = async (listId: string) =>
  (await server.api.call('readContacts', { params: { listId }, query: {} })).contacts

const person = (id: string, more: Record<string, string | string[]> = {}) => ({
  id,
  fields: {
    'full-name': `Person ${id}`,
    number: `+4479112${id.padStart(5, '0')}`,
    email: `p${id}@postbox.example`,
    ...more,
  },
})

describe('contacts that a program adds', () => {
  it('stand in a batch of the day, by its own ids, judged as any other', async () => {
    const mine = await newList(server.api, 'Added')
    const program = asProgram((await makeKey({ name: 'Quotation form' })).secret)
    const add = (contacts: BodyOf<'addContacts'>['contacts']) =>
      program.call('addContacts', { params: { listId: mine }, body: { contacts } })
    const first = await add([
      { ...person('1'), extra: { Terrace: 'south' } },
      person('2', { number: ['+447911200002', '+441665555002'] }),
    ])
    expect(first.contacts).toMatchObject([
      { id: '1', became: 'contact', number: '+447911200001', isKnown: false },
      { id: '2', became: 'contact' },
    ])
    const second = await add([person('3'), { id: '4', fields: { 'full-name': 'Nobody' } }, { ...person('1'), id: '5' }])
    expect(second.batchId).toBe(first.batchId)
    expect(second.contacts).toMatchObject([
      { id: '3', became: 'contact' },
      { id: '4', became: 'nothing-readable' },
      { id: '5', became: 'joined', standsAs: first.contacts[0]?.contactId },
    ])
    const [batch] = await server.api.call('readBatches', { params: { listId: mine } })
    expect(batch).toMatchObject({ rows: 5, state: 'ready' })
    expect(await program.call('readAdded', { params: { listId: mine, theirId: '3' } })).toMatchObject({ id: '3' })
    const { contacts } = await server.api.call('readContacts', { params: { listId: mine }, query: { filter: 'south' } })
    expect(contacts).toHaveLength(1)
  })

  it('are there once, however often and by how many callers they are sent', async () => {
    const mine = await newList(server.api, 'Once')
    const program = asProgram((await makeKey()).secret)
    const contacts = Array.from({ length: 30 }, (_, i) => person(`${100 + i}`))
    const add = (some: BodyOf<'addContacts'>['contacts']) =>
      program.call('addContacts', { params: { listId: mine }, body: { contacts: some } })
    const all = await Promise.all([add(contacts), add(contacts), add(contacts.slice(10)), add(contacts.slice(0, 20))])
    const ids = new Set(all.flatMap((answer) => answer.contacts.map(({ contactId }) => contactId)))
    expect(ids.size).toBe(30)
    const { contacts: standing, total } = await server.api.call('readContacts', { params: { listId: mine } })
    expect([standing.length, total]).toEqual([30, 30])
    const [batch] = await server.api.call('readBatches', { params: { listId: mine } })
    expect(batch?.rows).toBe(30)
    expect(await codeOf(add([{ ...person('100'), fields: { email: 'other@postbox.example' } }]))).toBe('id-taken')
    expect(await codeOf(add([person('900'), person('900')]))).toBe('id-twice')
    expect((await program.call('readList', { params: { listId: mine } })).contacts).toBe(30)
  })

  it('of calls that overlap are all added, and each is told of once', async () => {
    const mine = await newList(server.api, 'Overlapping')
    const program = asProgram((await makeKey()).secret)
    await server.api.call('makeWebhook', {
      body: { url: 'http://127.0.0.1:9/told', events: ['contact.placed'], listId: mine },
    })
    const add = async (from: number, to: number) => {
      const contacts = Array.from({ length: to - from }, (_, i) => person(`${from + i}`))
      return (await program.call('addContacts', { params: { listId: mine }, body: { contacts } })).contacts
    }
    const fresh: string[] = []
    for (let from = 200; from < 260; from += 12) {
      const told = await Promise.all([add(from, from + 8), add(from + 4, from + 12), add(from + 2, from + 10)])
      expect(told.map((one) => one.length)).toEqual([8, 8, 8])
      fresh.push(...told.flat().flatMap(({ id, isKnown }) => (isKnown ? [] : [id])))
    }
    expect(fresh.toSorted()).toEqual(Array.from({ length: 60 }, (_, i) => `${200 + i}`))
    expect((await server.api.call('readContacts', { params: { listId: mine } })).total).toBe(60)
    const messages = await server.sql<{ id: string }>(
      "select payload->>'id' as id from webhook_messages where event = 'contact.placed' and payload->>'listId' = $1 order by 1",
      [mine],
    )
    expect(messages.map(({ id }) => id)).toEqual(fresh.toSorted())
  })

  it('that come after the batch of the day was taken back are in another, and are shown', async () => {
    const mine = await newList(server.api, 'Taken back')
    const program = asProgram((await makeKey()).secret)
    const add = (id: string) =>
      program.call('addContacts', { params: { listId: mine }, body: { contacts: [person(id)] } })
    const first = await add('700')
    await server.api.call('takeBatchBack', { params: { batchId: first.batchId } })
    const stateOf = async () => (await server.api.call('readBatches', { params: { listId: mine } }))[0]?.state
    await until(async () => (await stateOf()) === 'taken-back')
    const second = await add('701')
    expect(second.batchId).not.toBe(first.batchId)
    expect((await add('702')).batchId).toBe(second.batchId)
    expect((await server.api.call('readContacts', { params: { listId: mine } })).total).toBe(2)
  })

  it('of a body that is too large, or of no field, are refused', async () => {
    const program = asProgram((await makeKey()).secret)
    const add = (contacts: unknown) =>
      program.call('addContacts', { params: { listId }, body: { contacts } as BodyOf<'addContacts'> })
    expect(await codeOf(add([{ id: 'x', fields: {} }]))).toBe('not-valid')
    expect(await codeOf(add(Array.from({ length: 501 }, (_, i) => person(`${i}`))))).toBe('not-valid')
    const huge = { id: 'x', fields: { company: 'x'.repeat(17_000_000) } }
    expect(await codeOf(add([huge]))).toBe('body-too-large')
  })
})
