import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { StandIns } from '@upper-field/standins'
import { bringText, connectStandIns, newList, startTestServer, type TestServer } from './harness'

let server: TestServer
let standIns: StandIns
let listId = ''

beforeAll(async () => {
  server = await startTestServer()
  standIns = await connectStandIns(server)
  listId = await newList(server.api, 'Terraces')
  await bringText(
    server.api,
    listId,
    [
      'name,company,phone,mail',
      'Maren Oldershaw,Causeway Guest House,+44 1665 555018,maren@causeway.example',
      'Maren Oldershaw,Causeway Guest House,+44 7911 204481,maren@causeway.example',
      'Jonah Carnridge,Tidewater Gasthof,+1 212 555 2671,',
      'Ilse Brandhofer,Café am Wehr,+43 316 555018,',
      'Nobody Reached,Nowhere,,',
    ].join('\n'),
  )
})
afterAll(async () => {
  await server.stop()
  await standIns.stop()
})

/** Who may be called, as if it were another time. */
async function callableAt(iso: string): Promise<string[]> {
  const { services } = server
  const { now } = services
  Object.assign(services, { now: () => new Date(iso).getTime() })
  try {
    const piles = await server.api.call('readPiles', { params: { listId } })
    const page = await server.api.call('readContacts', { params: { listId }, query: { filter: 'call:now' } })
    expect(page.total).toBe(piles.call.now ?? 0)
    const later = await server.api.call('readContacts', { params: { listId }, query: { filter: 'call:later' } })
    expect(later.total).toBe(piles.call.later ?? 0)
    expect(piles.call.none).toBe(1)
    return page.contacts.map(({ fullName }) => fullName)
  } finally {
    Object.assign(services, { now })
  }
}

describe('who may be called now', () => {
  it('is told by the clocks where the number is', async () => {
    expect(await callableAt('2026-07-01T10:00:00Z')).toEqual(['Maren Oldershaw', 'Ilse Brandhofer'])
    expect(await callableAt('2026-07-01T16:30:00Z')).toEqual(['Maren Oldershaw', 'Jonah Carnridge'])
    expect(await callableAt('2026-07-04T15:00:00Z')).toEqual([])
  })

  it('leaves out public holidays of the country', async () => {
    // Christmas of 2026 is a Friday; the day before is one nowhere.
    expect(await callableAt('2026-12-24T10:00:00Z')).toEqual(['Maren Oldershaw', 'Ilse Brandhofer'])
    expect(await callableAt('2026-12-25T10:00:00Z')).toEqual([])
    // The national day of Austria alone.
    expect(await callableAt('2026-10-26T10:00:00Z')).toEqual(['Maren Oldershaw'])
  })

  it('keeps the hours that were set for a country', async () => {
    const settings = await server.api.call('readCheckSettings', {})
    const at = { from: 11 * 60, to: 12 * 60, days: [3] }
    await server.api.call('changeCheckSettings', {
      body: { ...settings, callHours: { ...settings.callHours, AT: at } },
    })
    expect(await callableAt('2026-07-01T09:30:00Z')).toEqual(['Maren Oldershaw', 'Ilse Brandhofer'])
    expect(await callableAt('2026-07-01T10:30:00Z')).toEqual(['Maren Oldershaw'])
    await server.api.call('changeCheckSettings', { body: settings })
  })

  it('is told in the story, with the best number to text and to call', async () => {
    const page = await server.api.call('readContacts', { params: { listId }, query: { filter: 'maren' } })
    const story = await server.api.call('readStory', { params: { contactId: page.contacts[0]?.id ?? 0 } })
    expect(story.bestTo).toEqual({ text: '+447911204481', call: '+447911204481' })
    expect(story.numbers.map(({ clock }) => clock)).toEqual([
      expect.stringMatching(/^\d\d:\d\d$/),
      expect.stringMatching(/^\d\d:\d\d$/),
    ])
  })
})

describe('what is pasted', () => {
  const lookUp = (text: string, country: string | null = null) => server.api.call('lookUp', { body: { text, country } })

  it('is read, with what is known, who holds it, and what asking costs', async () => {
    const told = await lookUp('Mob: 07911 204481', 'GB')
    expect(told.reading.verdict).toBe('repaired')
    expect(told.numbers).toMatchObject([
      { e164: '+447911204481', lineType: 'mobile', knownFrom: 'plan', price: 5000, checkedAt: null, held: 1 },
    ])
    expect(told.numbers[0]?.holders).toMatchObject([{ listId, list: 'Terraces', fullName: 'Maren Oldershaw' }])
    const address = await lookUp('MAREN@causeway.example')
    expect(address.addresses).toMatchObject([
      { address: 'maren@causeway.example', kind: 'work', state: 'not-checked', price: 4000, held: 1 },
    ])
  })

  it('costs nothing where a fresh answer is known', async () => {
    const estimate = await server.api.call('estimateCheck', { params: { listId } })
    const job = await server.api.call('startCheck', { params: { listId }, body: { filter: '', agreed: estimate.most } })
    const { untilEnded } = await import('../../../../scripts/bringIn')
    await untilEnded(server.api, listId, job.id)
    await server.sql(
      `insert into numbers (e164, line_type, status, checked_at) values ('+447911204481', 'mobile', 'in-service', now())
       on conflict (e164) do update set line_type = 'mobile', status = 'in-service', checked_at = now()`,
    )
    expect((await lookUp('+447911204481')).numbers).toMatchObject([
      { status: 'in-service', knownFrom: 'register', price: 0, checkedAt: expect.any(String) },
    ])
  })

  it('says who must not be contacted, and why nothing was read', async () => {
    const list = await server.api.call('makeSuppressionList', { body: { name: 'No more', kind: 'opt-outs' } })
    await server.api.call('addSuppressionEntries', {
      params: { suppressionListId: list.id },
      body: { text: '+43 316 555018', reason: 'asked by phone' },
    })
    expect((await lookUp('+43 316 555018')).numbers[0]?.suppressedBy).toMatchObject([
      { list: 'No more', reason: 'asked by phone' },
    ])
    expect(await lookUp('12.05.2026')).toMatchObject({ numbers: [], addresses: [], reading: { problem: 'date' } })
  })
})
