import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { Outcome } from '@upper-field/core/split'
import { bringText, newList, startTestServer, type TestServer } from './harness'

let server: TestServer
let listId = ''
let other = ''
const ROWS = [
  'name,company,phone,country',
  'Maren Oldershaw,Causeway,01665 555018,GB',
  'Jonah Carnridge,Tidewater,01665 555019,GB',
  'Ilse Krug,Heron,030 55577012,DE',
  'Abe Langlow,Millrace,212 555 2671,US',
  'Tom Kestle,House of Guests,07911 204482,GB',
]

beforeAll(async () => {
  server = await startTestServer()
  listId = await newList(server.api, 'Terraces')
  other = await newList(server.api, 'Another')
  for (const list of [listId, other]) await bringText(server.api, list, ROWS.join('\n'))
})
afterAll(() => server.stop())

const sheet = () => server.api.call('readCallSheet', { params: { listId } })
const names = async () => (await sheet()).next.map(({ fullName }) => fullName.split(' ')[0]).join(' ')
/** Does something as if it were another time. */
async function at<T>(iso: string, work: () => Promise<T>): Promise<T> {
  const { services } = server
  const { now } = services
  Object.assign(services, { now: () => new Date(iso).getTime() })
  try {
    return await work()
  } finally {
    Object.assign(services, { now })
  }
}
async function note(name: string, outcome: Outcome, againAt: string | null = null) {
  const item = (await sheet()).next.find(({ fullName }) => fullName.startsWith(name))
  if (!item) throw new Error(`${name} is not on the sheet`)
  const { contactId, e164 } = item
  return server.api.call('noteCall', { params: { listId }, body: { contactId, e164, outcome, againAt } })
}
const laneOf = async (name: string, list = listId) =>
  (await server.api.call('readContacts', { params: { listId: list }, query: { filter: name } })).contacts[0]?.lane

describe('a call sheet', () => {
  it('holds whoever is in a lane for calls: now first, then whose day ends soonest', async () => {
    // A Wednesday: 16:30 in London, 17:30 in Berlin, 11:30 in New York.
    expect(await at('2026-07-01T15:30:00Z', names)).toBe('Ilse Maren Jonah Abe')
    // 08:30 in London, 09:30 in Berlin, 03:30 in New York.
    expect(await at('2026-07-01T07:30:00Z', names)).toBe('Ilse Maren Jonah Abe')
    const early = await at('2026-07-01T07:30:00Z', sheet)
    expect(early).toMatchObject({ now: 1, later: 3, resting: 0 })
    expect(early.next[0]).toMatchObject({ clock: '09:30', until: '18:00', call: 'now' })
  })

  it('lets rest whom nobody answered for, and whoever asked for another time', async () => {
    const call = await note('Maren', 'no-answer')
    await note('Ilse', 'later', new Date(Date.now() + 86_400_000).toISOString())
    expect(await sheet()).toMatchObject({ resting: 2, today: { 'no-answer': 1, later: 1 } })
    // Which of the two may be called at this hour is another matter.
    expect((await names()).split(' ').sort()).toEqual(['Abe', 'Jonah'])
    await server.sql(`update calls set made_at = now() - interval '4 hours' where id = $1`, [call.id])
    expect(await names()).toContain('Maren')
    const maren = (await sheet()).next.find(({ fullName }) => fullName.startsWith('Maren'))
    expect(maren?.last).toMatchObject({ outcome: 'no-answer' })
  })

  it('has a wrong number fall out of service in every list, until that is taken back', async () => {
    expect(await laneOf('jonah', other)).toBe('call')
    const { id } = await note('Jonah', 'wrong-number')
    expect([await laneOf('jonah'), await laneOf('jonah', other)]).toEqual(['parked', 'parked'])
    expect((await sheet()).lastCall).toMatchObject({ id, outcome: 'wrong-number' })
    await server.api.call('undoCall', { params: { callId: id } })
    expect([await laneOf('jonah'), await laneOf('jonah', other)]).toEqual(['call', 'call'])
    expect(await server.sql(`select 1 from numbers where e164 = '+441665555019'`)).toEqual([])
    await expect(server.api.call('undoCall', { params: { callId: id } })).rejects.toMatchObject({ status: 404 })
  })

  it('suppresses for calls whoever asked for that, until it is taken back', async () => {
    const { id } = await note('Abe', 'asked-not-to')
    expect([await laneOf('abe'), await laneOf('abe', other)]).toEqual(['ads-only', 'ads-only'])
    const [found] = (await server.api.call('readContacts', { params: { listId }, query: { filter: 'abe' } })).contacts
    expect(found?.suppressedFor).toEqual(['calls'])
    const story = await server.api.call('readStory', { params: { contactId: found?.id ?? 0 } })
    expect(story.story.map(({ what }) => what.kind)).toContain('called')
    await server.api.call('undoCall', { params: { callId: id } })
    expect([await laneOf('abe'), await laneOf('abe', other)]).toEqual(['call', 'call'])
  })

  it.each([
    ['wrong-number', 'parked', [0, 1]],
    ['wrong-number', 'parked', [1, 0]],
    ['asked-not-to', 'ads-only', [0, 1]],
    ['asked-not-to', 'ads-only', [1, 0]],
  ] as const)(
    'keeps what a second call found too: %s, %s, taken back in the order %j',
    async (outcome, lane, order) => {
      const made = await Promise.all(
        [listId, other].map(async (list) => {
          const found = await server.api.call('readContacts', { params: { listId: list }, query: { filter: 'jonah' } })
          return { list, contactId: found.contacts[0]?.id ?? 0 }
        }),
      )
      const ids: string[] = []
      for (const { list, contactId } of made) {
        const body = { contactId, e164: '+441665555019', outcome, againAt: null }
        ids.push((await server.api.call('noteCall', { params: { listId: list }, body })).id)
      }
      const [first, second] = order.map((i) => ids[i] ?? '')
      await server.api.call('undoCall', { params: { callId: first ?? '' } })
      expect([await laneOf('jonah'), await laneOf('jonah', other)]).toEqual([lane, lane])
      await server.api.call('undoCall', { params: { callId: second ?? '' } })
      expect([await laneOf('jonah'), await laneOf('jonah', other)]).toEqual(['call', 'call'])
      expect(await server.sql(`select 1 from numbers where e164 = '+441665555019'`)).toEqual([])
    },
  )

  it('leaves what the register, or a person, has said besides', async () => {
    const wrong = await note('Jonah', 'wrong-number')
    await server.sql(
      `update numbers set status = 'unreachable', checked_at = now(), ages_as = 'unreachable' where e164 = '+441665555019'`,
    )
    await server.api.call('undoCall', { params: { callId: wrong.id } })
    expect(await server.sql(`select status from numbers where e164 = '+441665555019'`)).toEqual([
      { status: 'unreachable' },
    ])
    await server.sql(`delete from numbers where e164 = '+441665555019'`)
    const lists = await server.api.call('readSuppressionLists')
    const asked = lists.find(({ name }) => name === 'Asked not to be called')
    await server.api.call('addSuppressionEntries', {
      params: { suppressionListId: asked?.id ?? '' },
      body: { text: '+441665555018', reason: 'wrote a letter' },
    })
    const maren = (await server.api.call('readContacts', { params: { listId }, query: { filter: 'maren' } }))
      .contacts[0]
    const { id } = await server.api.call('noteCall', {
      params: { listId },
      body: { contactId: maren?.id ?? 0, e164: '+441665555018', outcome: 'asked-not-to', againAt: null },
    })
    await server.api.call('undoCall', { params: { callId: id } })
    expect(await laneOf('maren')).toBe('ads-only')
  })

  it('calls nobody again who was reached before it was joined to another', async () => {
    const list = await newList(server.api)
    const text = 'name,phone,mail\nIda Vaubert,+441665555031,\nIda Vaubert,+441665555032,ida@heron.example\n'
    await bringText(server.api, list, text)
    const sheet = async () => (await server.api.call('readCallSheet', { params: { listId: list }, query: {} })).next
    const second = (await sheet()).find(({ e164 }) => e164 === '+441665555032')
    const contactId = second?.contactId ?? 0
    await server.api.call('noteCall', {
      params: { listId: list },
      body: { contactId, e164: '+441665555032', outcome: 'reached', againAt: null },
    })
    expect((await sheet()).map(({ e164 }) => e164)).toEqual(['+441665555031'])
    const edits = [{ contactId, column: 'number', value: '+441665555031' }]
    await server.api.call('makeEdits', { params: { listId: list }, body: { edits } })
    expect(await sheet()).toEqual([])
    const [first] = (await server.api.call('readContacts', { params: { listId: list }, query: {} })).contacts
    const { story } = await server.api.call('readStory', { params: { contactId: first?.id ?? 0 } })
    expect(story.filter(({ what }) => what.kind === 'called')).toHaveLength(1)
  })

  it('calls nobody again who was reached, and notes nothing of a number the contact does not have', async () => {
    await note('Abe', 'reached')
    expect(await names()).not.toContain('Abe')
    const tom = (await server.api.call('readContacts', { params: { listId }, query: { filter: 'kestle' } })).contacts[0]
    const noting = server.api.call('noteCall', {
      params: { listId },
      body: { contactId: tom?.id ?? 0, e164: '+441665555018', outcome: 'reached' },
    })
    await expect(noting).rejects.toMatchObject({ code: 'other-number' })
  })
})

it('of a large list is found by what is known of its lanes as soon as the list is there', async () => {
  const large = await newList(server.api, 'All of a town')
  const rows = Array.from({ length: 10_000 }, (_, i) => `Person ${i},,01665 5${String(i).padStart(5, '0')},GB`)
  await bringText(server.api, large, [ROWS[0], ...rows].join('\n'))
  const known = await server.sql(
    "select attname, most_common_vals::text as values from pg_stats where tablename = 'contacts' and attname in ('lane', 'call_from') order by 1",
  )
  expect(known).toEqual([
    { attname: 'call_from', values: expect.stringContaining('GB Europe/London') },
    { attname: 'lane', values: expect.stringContaining('call') },
  ])
})
