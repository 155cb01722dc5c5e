import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { Todo } from '@upper-field/contract'
import type { StandIns } from '@upper-field/standins'
import { createWorld } from '@upper-field/standins/world'
import { untilEnded } from '../../../../scripts/bringIn'
import { bringText, connectNetworks, newList, signedIn, startTestServer, type TestServer } from './harness'
import { untilIs } from './until'

const WORLD = { seed: 'today', people: 10, consumers: 60 }
const world = createWorld(WORLD.seed, WORLD)
const ACCOUNT = { id: '70-221', name: 'Wrenfold UK' }
let server: TestServer
let standIns: StandIns
let listId = ''
let audienceId = ''
let secondBatch = ''

const csv = (from: number, to: number): string =>
  [
    'first name,last name,phone,mail,country',
    ...world.consumers
      .slice(from, to)
      .map(({ given, family, mobile, personalEmail, place }) =>
        [given, family, mobile.e164, personalEmail, place.country].join(','),
      ),
  ].join('\n')

beforeAll(async () => {
  server = await startTestServer()
  standIns = await connectNetworks(server, WORLD)
  listId = await newList(server.api, 'Home owners')
  await bringText(server.api, listId, csv(0, 40))
  secondBatch = (await bringText(server.api, listId, csv(40, 50), { name: 'more' })).id
  const body = { name: 'Owners {year}', destination: 'northpin', account: ACCOUNT, isWholeList: true, keepsDays: 2 }
  audienceId = (await server.api.call('makeAudience', { params: { listId }, body })).id
  const edition = await server.api.call('prepareEdition', { params: { audienceId } })
  await untilEnded(server.api, listId, edition.jobId)
  const sent = await server.api.call('deliverEdition', {
    params: { audienceId },
    body: { editionId: edition.id, account: ACCOUNT.id },
  })
  await untilEnded(server.api, listId, sent.jobId ?? '')
  await server.api.call('lookAtAudience', { params: { audienceId } })
})
afterAll(async () => {
  await standIns.stop()
  await server.stop()
})

const today = () => server.api.call('readToday', {})
const kinds = (todos: readonly Todo[]) => todos.map(({ kind }) => kind)
const owed = async () => (await server.api.call('readAudience', { params: { audienceId } })).owedRemovals

describe('today', () => {
  it('tells of an audience before its membership lapses, with the name dated by its edition', async () => {
    const [first] = await today()
    const year = new Date().getUTCFullYear()
    expect(first).toMatchObject({
      kind: 'lapses',
      pressure: 'now',
      name: `Owners ${year}`,
      destination: 'Northpin',
      n: 50,
    })
    expect(standIns.network('northpin').books()[0]?.name).toBe(`Owners ${year}`)
  })

  it('tells of what is ready and not sent, until it is', async () => {
    const another = await newList(server.api, 'Not sent')
    await bringText(server.api, another, csv(50, 55))
    expect((await today()).find(({ listName }) => listName === 'Not sent')).toMatchObject({ kind: 'not-sent', n: 5 })
    const body = { destination: 'people', form: 'people' as const, filter: '' }
    const made = await server.api.call('makeEdition', { params: { listId: another }, body })
    await untilEnded(server.api, another, made.jobId)
    expect((await today()).filter(({ listName }) => listName === 'Not sent')).toEqual([])
  })

  it('is quiet about archived lists', async () => {
    const old = await newList(server.api, 'Old')
    await bringText(server.api, old, csv(55, 60))
    await server.api.call('changeList', { params: { listId: old }, body: { archived: true } })
    expect((await today()).some(({ listName }) => listName === 'Old')).toBe(false)
  })
})

describe('whoever has to leave an audience', () => {
  it('is told: suppressed, forgotten, or their rows put back', async () => {
    const list = await server.api.call('makeSuppressionList', { body: { name: 'No', kind: 'opt-outs' } })
    await server.api.call('addSuppressionEntries', {
      params: { suppressionListId: list.id },
      body: { text: world.consumers[0]?.mobile.e164 ?? '', reason: 'said so' },
    })
    await today()
    expect(await owed()).toBe(1)
    const { contacts } = await server.api.call('readContacts', { params: { listId }, query: { filter: '' } })
    const forgotten = contacts.find((one) => one.email === world.consumers[1]?.personalEmail)
    await server.api.call('forgetPerson', { params: { contactId: forgotten?.id ?? 0 } })
    await today()
    expect(await owed()).toBe(2)
    await server.api.call('takeBatchBack', { params: { batchId: secondBatch } })
    await untilIs(
      () => server.api.call('readBatches', { params: { listId } }),
      (all) => all.find(({ id }) => id === secondBatch)?.state === 'taken-back',
    )
    expect(kinds(await today())).toContain('removals')
    expect(await owed()).toBe(12)
    expect(await server.sql('select 1 from audience_members where contact_id is null')).toHaveLength(1)
  })

  it('that is on their way out by a delivery of removals is gone at the network, the nameless line too', async () => {
    const removal = await server.api.call('deliverRemovals', { params: { audienceId } })
    await untilEnded(server.api, listId, removal.jobId ?? '')
    expect(await owed()).toBe(0)
    expect(standIns.network('northpin').books()[0]).toMatchObject({ lines: 38 })
    expect(await server.sql('select 1 from audience_members where contact_id is null')).toEqual([])
    expect(kinds(await today())).not.toContain('removals')
  })

  it('is overdue after a day, and taken out by itself where the audience is kept so', async () => {
    const [list] = await server.api.call('readSuppressionLists', {})
    await server.api.call('addSuppressionEntries', {
      params: { suppressionListId: list?.id ?? '' },
      body: { text: world.consumers[2]?.mobile.e164 ?? '', reason: 'said so' },
    })
    await server.api.call('changeAudience', { params: { audienceId }, body: { removesByItself: false } })
    await today()
    await server.sql("update audience_members set owed_since = now() - interval '2 days' where owed_since is not null")
    expect((await today())[0]).toMatchObject({ kind: 'removals-overdue', pressure: 'now', n: 1 })
    const { removeOverdue } = await import('../../src/send/owedRemovals')
    await server.sql("update deliveries set started_at = started_at - interval '3 hours'")
    expect(await removeOverdue(server.services)).toBe(0)
    await server.api.call('changeAudience', { params: { audienceId }, body: { removesByItself: true } })
    expect(await removeOverdue(server.services)).toBe(1)
    const detail = await server.api.call('readAudience', { params: { audienceId } })
    await untilEnded(server.api, listId, detail.latest?.jobId ?? '')
    expect(await owed()).toBe(0)
    expect((await server.api.call('readAudience', { params: { audienceId } })).latest).toMatchObject({
      way: 'removals',
      startedBy: null,
      removed: 1,
    })
  })
})

describe('the calendar', () => {
  const read = (address: string) => fetch(address.replace(/^https?:\/\/[^/]+/, server.url))

  it('holds the dates of audiences, and nobody who is in them', async () => {
    const { address } = await server.api.call('makeCalendar', {})
    const answer = await read(address)
    expect(answer.headers.get('content-type')).toContain('text/calendar')
    const text = await answer.text()
    expect(text).toMatch(/^BEGIN:VCALENDAR\r\n/)
    expect(text).toMatch(/SUMMARY:“Owners \d{4}” at Northpin lapses/)
    expect(text).toMatch(/DTSTART;VALUE=DATE:\d{8}/)
    for (const { personalEmail, family } of world.consumers.slice(0, 40))
      expect([text.includes(personalEmail), text.includes(family)]).toEqual([false, false])
  })

  it('ends when another address is made, when it is ended, and with its owner', async () => {
    const { address: first } = await server.api.call('makeCalendar', {})
    const { address: second } = await server.api.call('makeCalendar', {})
    expect([(await read(first)).status, (await read(second)).status]).toEqual([404, 200])
    await server.api.call('removeCalendar', {})
    expect((await read(second)).status).toBe(404)
    const other = {
      name: 'Vera',
      email: 'vera@upper.example',
      password: 'another long password',
      role: 'viewer' as const,
    }
    await server.services.people.add(other)
    const vera = await signedIn(server.url, other)
    const { address } = await vera.call('makeCalendar', {})
    expect((await read(address)).status).toBe(200)
    const me = await vera.call('readMe', {})
    await server.api.call('removePerson', { params: { personId: me.id } })
    expect((await read(address)).status).toBe(404)
    expect((await read(address.replace(/[^/]+$/, 'x'.repeat(32)))).status).toBe(404)
  })
})

it('the address of a calendar is that under which the application is reached, whoever asks for it', async () => {
  const behind = await startTestServer({ PUBLIC_URL: 'https://lists.oldershaw.example/' })
  try {
    const { address } = await behind.api.call('makeCalendar', {})
    expect(address).toMatch(/^https:\/\/lists\.oldershaw\.example\/api\/v1\/calendar\/[\w-]{20,80}$/)
    const text = await (await fetch(address.replace(/^https:\/\/[^/]+/, behind.url))).text()
    expect(text).toMatch(/^BEGIN:VCALENDAR/)
    expect(text).not.toContain('127.0.0.1')
  } finally {
    await behind.stop()
  }
})

describe('a search over all lists', () => {
  it('finds a person in each list that has them', async () => {
    const somebody = world.consumers[5]
    const found = await server.api.call('searchLists', { query: { filter: somebody?.personalEmail ?? '' } })
    expect(found.map(({ listName, total }) => [listName, total])).toEqual([['Home owners', 1]])
    expect(await server.api.call('searchLists', { query: { filter: 'nobody-is-called-so' } })).toEqual([])
  })
})
