import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { LaneRules } from '@upper-field/contract'
import { bringText, newList, startTestServer, type TestServer } from './harness'

let server: TestServer
let listId = ''
const ROWS = [
  'name,company,title,street,city,zip,phone,mail,country',
  'Maren Oldershaw,Causeway,Head of Procurement,1 Quay,Kelso,NE69 7BP,07911 204481,maren@causeway.example,GB',
  'Jonah Carnridge,Tidewater Inn,Inhaber,,,,01665 555018,jonah@tidewater.example,GB',
  'Ilse Krug,Heron GmbH,Einkaufsleiterin,Seeweg 2,Berlin,10115,,ilse@heron.example,DE',
  'Tom Kestle,House of Guests,Buyer,,Kelso,,07911 204482,,GB',
  'No Way,Nowhere,,,,,,,GB',
  'Letters Only,Quiet House,,4 Row,Alnwick,NE69 7BQ,,,GB',
]

beforeAll(async () => {
  server = await startTestServer()
  listId = await newList(server.api, 'Terraces')
  await bringText(server.api, listId, ROWS.join('\n'), { defaultCountry: 'GB' })
})
afterAll(() => server.stop())

const contacts = async () => (await server.api.call('readContacts', { params: { listId }, query: {} })).contacts
const lanes = async () =>
  Object.fromEntries(
    (await contacts()).map(({ fullName, lane, laneReason }) => [fullName.split(' ')[0], `${lane}/${laneReason}`]),
  )
const keep = (rules: LaneRules['rules'] | null) =>
  server.api.call('keepLaneRules', { params: { listId }, body: { rules } })
const USUAL = {
  Maren: 'text/mobile',
  Jonah: 'call/line-to-call',
  Ilse: 'ads-only/only-email',
  Tom: 'text/mobile',
  No: 'parked/no-way-to-reach',
  Letters: 'parked/no-way-to-reach',
}
const rule = (lane: string, use: LaneRules['rules'][number]['use'], filter = ''): LaneRules['rules'][number] => ({
  lane,
  name: lane,
  use,
  filter,
})
/** What the terrace says of Split is what the lanes other than Parked hold. */
async function addsUp() {
  const { terrace } = await server.api.call('readList', { params: { listId } })
  const { lane } = await server.api.call('readPiles', { params: { listId } })
  const inLanes = Object.entries(lane).reduce((sum, [name, n]) => sum + (name === 'parked' ? 0 : n), 0)
  expect(terrace.find(({ stage }) => stage === 'split')?.count).toBe(inLanes)
}

describe('lanes', () => {
  it('are the usual ones, and rules are proposed by what the list holds', async () => {
    expect(await lanes()).toEqual(USUAL)
    const proposed = await server.api.call('readLaneRules', { params: { listId } })
    expect(proposed.isOwn).toBe(false)
    expect(proposed.rules.map(({ lane }) => lane)).toEqual(['text', 'call', 'post', 'ads-only'])
  })

  it('by own rules take each contact with the first that means it', async () => {
    await keep([
      rule('buyers', 'calls', 'function:purchasing'),
      rule('text', 'texts'),
      rule('post', 'post'),
      rule('ads-only', 'ads'),
    ])
    expect(await lanes()).toEqual({
      Maren: 'buyers/by-rule',
      Jonah: 'ads-only/by-rule',
      Ilse: 'post/by-rule',
      Tom: 'buyers/by-rule',
      No: 'parked/no-rule',
      // A letter is the only way, and one is enough.
      Letters: 'post/by-rule',
    })
    await addsUp()
  })

  it('keep to the rules when something else changes, and new contacts go by them', async () => {
    await bringText(server.api, listId, 'name,title,phone\nNia Haddow,Buyer,07911 204499\n', { defaultCountry: 'GB' })
    expect(await lanes()).toMatchObject({ Nia: 'buyers/by-rule', Tom: 'buyers/by-rule' })
    await addsUp()
  })

  it('are beaten by a hand, and both by a suppression list', async () => {
    const tom = (await contacts()).find(({ fullName }) => fullName === 'Tom Kestle')
    const place = (lane: string | null) =>
      server.api.call('placeByHand', { params: { contactId: tom?.id ?? 0 }, body: { lane } })
    expect(await place('text')).toEqual({ lane: 'text' })
    expect((await lanes()).Tom).toBe('text/by-hand')
    const { id } = await server.api.call('makeSuppressionList', {
      body: { name: 'No texts', kind: 'opt-outs', scope: 'texts' },
    })
    await server.api.call('addSuppressionEntries', {
      params: { suppressionListId: id },
      body: { text: '+447911204482' },
    })
    expect((await lanes()).Tom).toBe('buyers/by-rule')
    expect(await place(null)).toEqual({ lane: 'buyers' })
    expect((await lanes()).Tom).toBe('buyers/by-rule')
    await addsUp()
  })

  it('are refused by rules that ask for lanes, with the rule', async () => {
    await expect(keep([rule('vip', 'calls', 'lane:text')])).rejects.toThrow(/vip: A rule cannot ask for lanes/)
    expect((await server.api.call('readLaneRules', { params: { listId } })).rules).toHaveLength(4)
  })

  it('go back to the usual ones', async () => {
    expect((await keep(null)).isOwn).toBe(false)
    // Tom may not be texted any more.
    expect(await lanes()).toEqual({ ...USUAL, Tom: 'call/line-to-call', Nia: 'text/mobile' })
    await addsUp()
  })
})

describe('segments', () => {
  const keepSegment = (name: string, filter: string) =>
    server.api.call('keepSegment', { params: { listId }, body: { name, filter } })
  const all = () => server.api.call('readSegments', { params: { listId } })

  it('are filters by name, counted as they are now', async () => {
    expect(await keepSegment('Deciders', 'level:head,owner')).toMatchObject({ contacts: 3 })
    expect(await keepSegment('Kelso', 'city:kelso')).toMatchObject({ contacts: 2 })
    await bringText(server.api, listId, 'name,city,phone\nRhys Penrose,Kelso,07911 204500\n', { defaultCountry: 'GB' })
    expect((await all()).map(({ name, contacts: n }) => [name, n])).toEqual([
      ['Deciders', 3],
      ['Kelso', 3],
    ])
  })

  it('are kept anew under their name, and forgotten', async () => {
    expect(await keepSegment('Kelso', 'city:kelso function:purchasing')).toMatchObject({ contacts: 2 })
    const [, kelso] = await all()
    await server.api.call('removeSegment', { params: { segmentId: kelso?.id ?? '' } })
    expect((await all()).map(({ name }) => name)).toEqual(['Deciders'])
    await expect(keepSegment('Off', 'fell:nowhere')).rejects.toMatchObject({ status: 422 })
  })
})
