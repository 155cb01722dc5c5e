import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { ApiClient } from '@upper-field/contract'
import { bringText, newList, startTestServer, type TestServer } from './harness'

let server: TestServer
let api: ApiClient

beforeAll(async () => {
  server = await startTestServer()
  api = server.api
}, 60_000)
afterAll(() => server.stop())

const people = async (listId: string, filter = '') =>
  (await api.call('readContacts', { params: { listId }, query: { filter } })).contacts.map(
    ({ fullName, joined }) => `${fullName} ${joined + 1}`,
  )
const idOf = async (listId: string, name: string) =>
  (await api.call('readContacts', { params: { listId }, query: { filter: name } })).contacts[0]?.id ?? 0
const storyOf = async (listId: string, name: string) =>
  api.call('readStory', { params: { contactId: await idOf(listId, name) } })
async function lastJoin(listId: string, name: string): Promise<number> {
  const joins = (await storyOf(listId, name)).story.flatMap(({ what }) =>
    what.kind === 'joined' && what.joinId > 0 ? [what.joinId] : [],
  )
  return joins.at(-1) ?? 0
}

const HEAD = 'name,company,phone,phone 2,mail\n'

describe('exact duplicates', () => {
  it('are joined: the first row survives, gaps are filled, all numbers kept', async () => {
    const listId = await newList(api)
    await bringText(
      api,
      listId,
      `${HEAD}Maren Oldershaw,,07911 204481,,\nM. Oldershaw,Causeway,07911 204481,01665 555018,maren@causeway.example\n`,
      { defaultCountry: 'GB' },
    )
    expect(await people(listId)).toEqual(['Maren Oldershaw 2'])
    const story = await storyOf(listId, 'Maren')
    expect(story.values.company).toBe('Causeway')
    expect(story.numbers.map(({ e164, origin }) => [e164, origin])).toEqual([
      ['+447911204481', 'row'],
      ['+441665555018', 'join'],
    ]) // prettier-ignore
    expect(story.emails).toEqual([{ address: 'maren@causeway.example', kind: 'work' }])
  })

  it('are told by a person’s e-mail, not by a role address', async () => {
    const listId = await newList(api)
    await bringText(
      api,
      listId,
      `${HEAD}Maren Oldershaw,,,,m@causeway.example\nOldershaw Maren,,,,M@Causeway.example\nPriya Hallowell,,,,info@causeway.example\nTom Kestle,,,,info@causeway.example\n,,,,info@causeway.example\n`,
    )
    expect(await people(listId)).toEqual(['Maren Oldershaw 2', 'Priya Hallowell 1', 'Tom Kestle 1', ' 1'])
  })

  it('are found across batches', async () => {
    const listId = await newList(api)
    await bringText(api, listId, `${HEAD}Maren Oldershaw,,07911 204481,,\n`, { defaultCountry: 'GB' })
    await bringText(api, listId, `${HEAD}Oldershaw Maren,,+44 7911 204481,,\n`)
    expect(await people(listId)).toEqual(['Maren Oldershaw 2'])
  })
})

describe('a shared line', () => {
  it('joins nobody, and is marked', async () => {
    const listId = await newList(api)
    await bringText(api, listId, `${HEAD}Priya Hallowell,,07911 204481,,\nTom Kestle,,07911 204481,,\n`, {
      defaultCountry: 'GB',
    })
    expect(await people(listId, 'is:shared')).toEqual(['Priya Hallowell 1', 'Tom Kestle 1'])
    const story = await storyOf(listId, 'Tom')
    expect(story.story.map(({ what }) => what)).toContainEqual({
      kind: 'shared-line',
      e164: '+447911204481',
      holders: 2,
    })
    expect(story.contact).toMatchObject({ lane: 'call', laneReason: 'shared-mobile' })
  })
})

describe('taking apart', () => {
  it('is the undoing of the join, and lasts', async () => {
    const listId = await newList(api)
    const rows = 'Maren Oldershaw,,07911 204481,,\nM. Oldershaw,Causeway,07911 204481,01665 555018,\n'
    await bringText(api, listId, HEAD + rows, { defaultCountry: 'GB' })
    const joinId = await lastJoin(listId, 'Maren')
    await api.call('takeApart', { params: { joinId } })
    expect(await people(listId)).toEqual(['Maren Oldershaw 1', 'M. Oldershaw 1'])
    const story = await storyOf(listId, 'Maren')
    expect(story.values.company).toBeUndefined()
    expect(story.numbers).toMatchObject([{ e164: '+447911204481', isShared: true }])
    expect(story.story.map(({ what }) => what.kind)).toContain('taken-apart')
    await expect(api.call('takeApart', { params: { joinId } })).rejects.toMatchObject({ code: 'apart-already' })
    await bringText(api, listId, `${HEAD}Somebody Else,,01665 555019,,\n`, { defaultCountry: 'GB' })
    expect(await people(listId)).toEqual(['Maren Oldershaw 1', 'M. Oldershaw 1', 'Somebody Else 1'])
    const { terrace } = await api.call('readList', { params: { listId } })
    expect(terrace[2]).toMatchObject({ count: 3, changes: [{ riser: 'joined', by: 0 }] })
  })

  it('gives a group back whole that was joined to another later', async () => {
    const listId = await newList(api)
    await bringText(api, listId, `${HEAD}Maren Oldershaw,,07911 204481,,\n`, { defaultCountry: 'GB' })
    await bringText(api, listId, `${HEAD}Maren Oldershaw,One,07911 204482,,\nMaren Oldershaw,Two,07911 204482,,\n`, {
      defaultCountry: 'GB',
    })
    expect(await people(listId)).toEqual(['Maren Oldershaw 1', 'Maren Oldershaw 2'])
    // A row with both numbers brings the two groups together.
    await bringText(api, listId, `${HEAD}Maren Oldershaw,Three,07911 204481,07911 204482,\n`, { defaultCountry: 'GB' })
    expect(await people(listId)).toEqual(['Maren Oldershaw 4'])
    const joins = await server.sql<{ id: string; row: number }>(
      `select j.id, c.row from joins j join contacts c on c.id = j.member_id where j.list_id = $1 and c.company = 'One' and j.undone_at is null`,
      [listId],
    ) // prettier-ignore
    expect(joins).toHaveLength(1)
    await api.call('takeApart', { params: { joinId: Number(joins[0]?.id) } })
    expect(await people(listId)).toEqual(['Maren Oldershaw 2', 'Maren Oldershaw 2'])
  })
})
