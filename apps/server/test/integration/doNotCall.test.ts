import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { StandIns } from '@upper-field/standins'
import { createWorld } from '@upper-field/standins/world'
import { untilEnded } from '../../../../scripts/bringIn'
import { addDestinations, bringText, connectStandIns, KEYS, newList, startTestServer, type TestServer } from './harness'

let server: TestServer
let standIns: StandIns
let listId = ''
const world = createWorld('tests', { people: 200 })
const lines = world.people.flatMap(({ given, family, mobile }) => (mobile ? [{ given, family, mobile }] : []))

beforeAll(async () => {
  server = await startTestServer()
  standIns = await connectStandIns(server)
  await addDestinations(server.api)
  listId = await newList(server.api, 'Terraces')
  const rows = lines.map(({ given, family, mobile }) => `${given} ${family},${mobile.e164}`)
  await bringText(server.api, listId, ['name,phone', ...rows, 'Office Only,+44 1665 555018'].join('\n'))
})
afterAll(async () => {
  await server.stop()
  await standIns.stop()
})

/** What the register itself says of these. */
async function saidBy(numbers: readonly string[]): Promise<Map<string, boolean | null>> {
  const response = await fetch(`${standIns.url}/pellow-registers/v1/look`, {
    method: 'POST',
    headers: {
      authorization: `Bearer ${KEYS['pellow-registers']}`,
      'content-type': 'application/json',
      'idempotency-key': 'asked by the test',
    },
    body: JSON.stringify({ numbers }),
  })
  const { answers } = (await response.json()) as { answers: { number: string; listed: boolean | null }[] }
  return new Map(answers.map(({ number, listed }) => [number, listed]))
}
const chosen = async (filter: string) =>
  (await server.api.call('readContacts', { params: { listId }, query: { filter, limit: 500 } })).contacts
const ages = () => server.api.call('readAnswerAges', { params: { listId }, query: { of: 'do-not-call' } })
async function ask(filter: string) {
  const estimate = await server.api.call('estimateCheck', { params: { listId }, query: { of: 'do-not-call', filter } })
  const job = await server.api.call('startCheck', {
    params: { listId },
    body: { of: 'do-not-call', filter, agreed: estimate.most },
  })
  return { estimate, job: await untilEnded(server.api, listId, job.id) }
}

describe('do-not-call registers', () => {
  it('are asked for the countries chosen, and only about numbers they know of', async () => {
    const british = new Set(lines.filter(({ mobile }) => mobile.country === 'GB').map(({ mobile }) => mobile.e164))
    const { estimate, job } = await ask('country:GB')
    expect(estimate.toAsk).toBe(british.size + 1)
    expect(job).toMatchObject({ state: 'done', unit: 'do-not-call' })
    const french = await server.api.call('estimateCheck', {
      params: { listId },
      query: { of: 'do-not-call', filter: 'country:FR' },
    })
    expect(french).toMatchObject({ subjects: 0, toAsk: 0, most: 0 })
    expect(Number(job.result.spent)).toBe(standIns.charged()['pellow-registers'].total)
  })

  it('suppress for calls whom they hold, who may still be texted', async () => {
    const said = await saidBy(lines.filter(({ mobile }) => mobile.country === 'GB').map(({ mobile }) => mobile.e164))
    const listed = [...said].flatMap(([number, isListed]) => (isListed ? number : [])).sort()
    expect(listed.length).toBeGreaterThan(0)
    const held = await chosen('suppressed:calls')
    expect(held.map(({ number }) => number).sort()).toEqual(listed)
    expect(new Set(held.map(({ lane }) => lane))).toEqual(new Set(['text']))
    expect(held.every(({ suppressedFor }) => suppressedFor.join() === 'calls')).toBe(true)
    const piles = await server.api.call('readPiles', { params: { listId } })
    expect(piles.suppressed).toMatchObject({ calls: listed.length })
    const mayBeCalled = await chosen('call:now,later')
    expect(mayBeCalled.some(({ id }) => held.some((one) => one.id === id))).toBe(false)
  })

  it('tell by country who was asked, and what is too old to rely on', async () => {
    const before = (await ages()).find(({ country }) => country === 'GB')
    expect(before).toMatchObject({ stale: 0, listed: expect.any(Number) })
    // The office is in nobody's books: it was asked about, and nothing is known of it.
    const known = (before?.subjects ?? 0) - 1
    expect(before?.byAge).toMatchObject({ week: known, never: 1 })
    await server.sql(`update do_not_call set checked_at = now() - interval '40 days'`)
    const after = (await ages()).find(({ country }) => country === 'GB')
    expect(after).toMatchObject({ stale: known, byAge: { week: 0, quarter: known } })
    const again = await server.api.call('estimateCheck', {
      params: { listId },
      query: { of: 'do-not-call', filter: 'country:GB' },
    })
    expect(again).toMatchObject({ fresh: 0, stale: known })
  })

  it('let those go whom they hold no more, and keep the entry of a person', async () => {
    const [first, second] = await chosen('suppressed:calls')
    const [{ id: register = '' } = {}] = await server.api.call('readSuppressionLists', {})
    await server.sql(`update suppression_entries set added_by = 'Olive Owner' where key = $1`, [second?.number])
    const { suppressListed } = await import('../../src/check/suppressListed')
    const { db } = server.services
    await suppressListed(
      db,
      [first, second].map((one) => ({ e164: one?.number ?? '', isListed: false, register: null })),
    )
    const left = await server.api.call('readSuppressionEntries', { params: { suppressionListId: register } })
    expect(left.entries.map(({ key }) => key)).not.toContain(first?.number)
    expect(left.entries.map(({ key }) => key)).toContain(second?.number)
  })

  it('are not asked where none is connected', async () => {
    await server.sql(`delete from connections where provider = 'pellow-registers'`)
    const refused = server.api.call('startCheck', {
      params: { listId },
      body: { of: 'do-not-call', filter: '', agreed: 1e9 },
    })
    await expect(refused).rejects.toMatchObject({ code: 'no-do-not-call' })
  })
})

describe('a suppression list for one way to reach people', () => {
  const make = (name: string, scope: 'calls' | 'ads') =>
    server.api.call('makeSuppressionList', { body: { name, kind: 'opt-outs', scope } })
  const put = (suppressionListId: string, text: string) =>
    server.api.call('addSuppressionEntries', { params: { suppressionListId }, body: { text } })
  const fileOf = async (destination: 'brassbell' | 'people', form: 'people' | 'plain', filter: string) => {
    const made = await server.api.call('makeEdition', { params: { listId }, body: { destination, form, filter } })
    await untilEnded(server.api, listId, made.jobId)
    const sent = await server.api.raw('downloadEdition', { params: { editionId: made.id } })
    return { made, text: sent.status === 200 ? await sent.text() : '', status: sent.status }
  }

  it('for calls takes the office out of the lane of those who are called, not out of audiences', async () => {
    const { id } = await make('No calls', 'calls')
    expect(await put(id, '+44 1665 555018')).toMatchObject({ added: 1, marked: 1 })
    const [office] = await chosen('office only')
    expect(office).toMatchObject({ lane: 'ads-only', laneReason: 'not-by-phone', suppressedFor: ['calls'] })
    const people = await fileOf('people', 'people', 'Office')
    expect(people.text).toContain('Office Only')
    expect(people.text).not.toContain('555018')
    expect(people.text).toMatch(/ads-only,calls/)
    const story = await server.api.call('readStory', { params: { contactId: office?.id ?? 0 } })
    expect(story.suppressedBy).toMatchObject([{ list: 'No calls', scope: 'calls' }])
  })

  it('for ads keeps an audience back that was made before, and no file for people', async () => {
    const [someone] = await chosen('lane:text')
    const name = someone?.fullName ?? ''
    const audience = await fileOf('brassbell', 'plain', name)
    const people = await fileOf('people', 'people', name)
    expect([audience.status, people.status]).toEqual([200, 200])
    const { id } = await make('No ads', 'ads')
    await put(id, someone?.number ?? '')
    const download = async ({ made }: typeof audience) =>
      (await server.api.raw('downloadEdition', { params: { editionId: made.id } })).status
    expect([await download(audience), await download(people)]).toEqual([410, 200])
    const again = await fileOf('brassbell', 'plain', name)
    expect(again.text.split('\n').filter(Boolean)).toHaveLength(1)
  })
})
