import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { ApiClient } from '@upper-field/contract'
import { firstLines, sharedLines as pageOfLines } from '../../src/pair/sharedLines'
import { sharedLines, sharersAmong } from '../../src/projection/sharedIn'
import { bringText, newList, startTestServer, type TestServer } from './harness'

let server: TestServer
let api: ApiClient
let here: string
let there: string

const HERE = `Name,Company,Phone,E-mail
Maren Oldershaw,Fernhill,07911 204481,maren@fernhill.example
Tom Kestle,Fernhill,01665 555018,
Priya Garside,Fernhill,01665 555018,priya@fernhill.example
Alice Haddow,Heron,07911 204484,
Sam Haddow,Alder,07911 204484,
`
const THERE = `Name,Phone,E-mail
Maren O.,,MAREN@fernhill.example
Oldershaw Maren,07911 204481,m.o@kinpost.example
Somebody Else,01665 555018,
Jo Newcomer,07911 204499,
`
const names = async (listId: string, filter: string) =>
  (await api.call('readContacts', { params: { listId }, query: { filter } })).contacts.map(({ fullName }) => fullName)

beforeAll(async () => {
  server = await startTestServer()
  api = server.api
  here = await newList(api, 'Here')
  there = await newList(api, 'There')
  await bringText(api, here, HERE, { defaultCountry: 'GB' })
  await bringText(api, there, THERE, { defaultCountry: 'GB' })
})
afterAll(() => server.stop())

describe('two lists beside each other', () => {
  it('are told apart by who is in both, counted on either side, only here and only there', async () => {
    expect(await api.call('readListsBeside', { params: { listId: here } })).toEqual([
      { listId: there, name: 'There', bothHere: 1, bothThere: 2, onlyHere: 4, onlyThere: 2 },
    ])
  })

  it('open exactly whom they count, and the sieve counts the same', async () => {
    expect(await names(here, `in:${there}`)).toEqual(['Maren Oldershaw'])
    expect(await names(here, `notin:${there}`)).toHaveLength(4)
    expect(await names(there, `notin:${here}`)).toEqual(['Somebody Else', 'Jo Newcomer'])
    const { is, line } = await api.call('readPiles', { params: { listId: here }, query: { filter: `notin:${there}` } })
    expect([is.shared, line.mobile]).toEqual([4, 2])
  })

  it('are a pile with the count of whoever the filter chooses', async () => {
    const also = (filter: string) => api.call('readAlsoIn', { params: { listId: here }, query: { filter } })
    expect(await also('')).toEqual([{ listId: there, name: 'There', contacts: 1 }])
    expect(await also(`in:${there}`)).toEqual([{ listId: there, name: 'There', contacts: 1 }])
    expect(await also('is:shared')).toEqual([])
  })

  it('do not count those whose batch was taken back, nor archived lists', async () => {
    const third = await newList(api, 'Third')
    await api.call('changeList', { params: { listId: third }, body: { archived: true } })
    const beside = await api.call('readListsBeside', { params: { listId: here } })
    expect(beside.map(({ name }) => name)).toEqual(['There'])
    expect(await names(here, `in:${third}`)).toEqual([])
  })
})

describe('shared lines', () => {
  it('are found alike for some contacts and for a whole list', async () => {
    const e164s = ['+447911204481', '+441665555018', '+447911204484']
    const { db } = server.services
    const some = await sharedLines(db, 1)({ listIds: [here], e164s })
    const all = await sharedLines(db, 1_000_000)({ listIds: [here], e164s })
    expect([...all].sort()).toEqual([`${here} +441665555018`, `${here} +447911204484`])
    expect(some).toEqual(all)
  })

  it('are held by those who share them with another contact of their own list, whoever is asked for', async () => {
    const { db } = server.services
    const idsOf = async (listId: string, filter: string) =>
      (await api.call('readContacts', { params: { listId }, query: { filter } })).contacts.map(({ id }) => id)
    const all = [...(await idsOf(here, '')), ...(await idsOf(there, ''))]
    const sharing = await idsOf(here, 'is:shared')
    expect([all.length, sharing.length]).toEqual([9, 4])
    expect((await sharersAmong(db, all)).sort()).toEqual(sharing.sort())
    expect(await sharersAmong(db, sharing.slice(0, 1))).toEqual(sharing.slice(0, 1))
    expect(await sharersAmong(db, [])).toEqual([])
  })

  it('are told with who holds them, and what kind of line they are', async () => {
    const { lines, total } = await api.call('readSharedLines', { params: { listId: here } })
    expect(total).toBe(2)
    expect(lines.map(({ e164, kind, holders, who }) => [e164, kind, holders, who.map((one) => one.fullName)])).toEqual([
      ['+441665555018', 'switchboard', 2, ['Tom Kestle', 'Priya Garside']],
      ['+447911204484', 'household', 2, ['Alice Haddow', 'Sam Haddow']],
    ])
  })

  it('are paged through once each, those with most holders first, whatever of them is kept', async () => {
    const many = await newList(api, 'Houses of many')
    const rows = Array.from({ length: 130 }, (_, house) =>
      Array.from(
        { length: 2 + (house % 3) },
        (_, at) => `Person${'abcdefgh'[at]}${house},Family${at},+44191555${1000 + house}`,
      ),
    )
    await bringText(api, many, ['first,last,phone', ...rows.flat()].join('\n'))
    const { db } = server.services
    const all = await firstLines(db, many)
    expect(all.map(({ holders }) => holders)).toEqual(rows.map((house) => house.length).sort((a, b) => b - a))
    const pagesWith = async (kept: number): Promise<string[]> => {
      const read: string[] = []
      for (let cursor: string | undefined; ; ) {
        const { lines, next, total } = await pageOfLines(db, many, cursor, async () => all.slice(0, kept))
        expect(total).toBe(130)
        read.push(...lines.map(({ e164 }) => e164))
        if (next === null) return read
        cursor = next
      }
    }
    for (const kept of [1, 60, 100, 130]) expect(await pagesWith(kept)).toEqual(all.map(({ e164 }) => e164))
  })
})
