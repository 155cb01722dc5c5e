import { createHash } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { ApiClient, SuppressionBatch } from '@upper-field/contract'
import { letExpiredGo } from '../../src/suppression/expiry'
import { bringText, newList, startTestServer, type TestServer } from './harness'

let server: TestServer
let api: ApiClient
let listId: string
let register: string

const FILE = `Name,Company,Phone,E-mail,Country
Maren Oldershaw,Causeway,07911 204481,maren@causeway.example,GB
Priya Kestle,Thornbury,07911 204482,priya@thornbury.example,GB
Tom Garside,Rival Shades,07911 204483,tom@sales.rival.example,GB
Alice Haddow,Heron,07911 204484,alice@heron.example,GB
`
const NONE = { numbers: [], emails: [], domains: [], hashes: [] }
const announce = (name: string, more: object = {}): Promise<SuppressionBatch> =>
  api.call('announceSuppressionBatch', {
    params: { suppressionListId: register },
    body: { name, sha256: 'ab'.repeat(32), country: 'GB', reason: 'on the register', ...more },
  })
const addRows = (batch: SuppressionBatch, rows: readonly object[]) =>
  api.call('addSuppressionRows', {
    params: { suppressionBatchId: batch.id },
    body: { rows: rows.map((row, i) => ({ row: i + 2, ...NONE, ...row })) },
  })
const takeBack = (batch: SuppressionBatch) =>
  api.call('takeSuppressionBack', { params: { suppressionBatchId: batch.id } })
const suppressed = async () => {
  const page = await api.call('readContacts', { params: { listId }, query: { filter: 'reason:suppressed' } })
  return page.contacts.map(({ fullName }) => fullName).sort()
}
const listed = async () => {
  const lists = await api.call('readSuppressionLists', {})
  return lists.find(({ id }) => id === register)?.entries
}

beforeAll(async () => {
  server = await startTestServer()
  api = server.api
  listId = await newList(api)
  await bringText(api, listId, FILE, { defaultCountry: 'GB' })
  register = (await api.call('makeSuppressionList', { body: { name: 'Register', kind: 'register' } })).id
})
afterAll(() => server.stop())

describe('a suppression file', () => {
  let first: SuppressionBatch

  it('marks whom its rows name, and tells the rows that name nobody', async () => {
    first = await announce('register.csv')
    const added = await addRows(first, [
      { numbers: ['07911-204481 / 01665 555018'] },
      { numbers: ['soon'], emails: ['nobody'] },
      { domains: ['rival.example'] },
    ])
    expect(added).toEqual({ added: 3, known: 0, marked: 2, waiting: 0, unread: [3] })
    expect(await suppressed()).toEqual(['Maren Oldershaw', 'Tom Garside'])
    const [batch] = await api.call('readSuppressionBatches', { params: { suppressionListId: register } })
    expect(batch).toMatchObject({ name: 'register.csv', rows: 3, unread: 1, entries: 3, takenBackAt: null })
  })

  it('names itself as the source of its entries', async () => {
    const { entries } = await api.call('readSuppressionEntries', { params: { suppressionListId: register } })
    expect(new Set(entries.map(({ source }) => source))).toEqual(new Set(['register.csv']))
  })

  it('of which rows are sent twice adds nothing', async () => {
    expect(await addRows(first, [{ domains: ['rival.example'] }])).toMatchObject({ added: 0, known: 1, marked: 0 })
    expect(await listed()).toBe(3)
  })

  it('taken back lets go whom no other file holds', async () => {
    const second = await announce('register-may.csv')
    await addRows(second, [{ numbers: ['07911 204481'] }, { emails: ['priya@thornbury.example'] }])
    expect(await listed()).toBe(4)
    expect(await takeBack(first)).toMatchObject({ entries: 0, takenBackAt: expect.any(String) })
    expect(await suppressed()).toEqual(['Maren Oldershaw', 'Priya Kestle'])
    await expect(addRows(first, [{ domains: ['rival.example'] }])).rejects.toMatchObject({ code: 'taken-back' })
    await expect(takeBack(first)).rejects.toMatchObject({ code: 'taken-back-already' })
    await takeBack(second)
    expect([await suppressed(), await listed()]).toEqual([[], 0])
  })

  it('taken back leaves what a person has added besides, though the file held it already', async () => {
    const file = await announce('register-june.csv')
    await addRows(file, [{ numbers: ['07911 204481'] }, { emails: ['priya@thornbury.example'] }])
    const added = await api.call('addSuppressionEntries', {
      params: { suppressionListId: register },
      body: { text: '07911 204481', country: 'GB', reason: 'asked by text' },
    })
    expect(added).toMatchObject({ added: 0, known: 1 })
    expect(await listed()).toBe(2)
    await takeBack(file)
    expect([await suppressed(), await listed()]).toEqual([['Maren Oldershaw'], 1])
    const { entries } = await api.call('readSuppressionEntries', { params: { suppressionListId: register } })
    await api.call('dropSuppressionEntry', { params: { entryId: entries[0]?.id ?? '' } })
    expect(await suppressed()).toEqual([])
  })

  it('is refused where a row has no number or too many cells', async () => {
    const batch = await announce('odd.csv')
    await expect(addRows(batch, [{ row: 0 }])).rejects.toMatchObject({ code: 'not-valid' })
    await expect(addRows(batch, [{ numbers: Array(21).fill('1') }])).rejects.toMatchObject({ code: 'not-valid' })
  })
})

describe('entries that expire', () => {
  const soon = () => new Date(Date.now() + 3_600_000).toISOString()

  it('let go of their contacts when their time is over, and hold them again when they are added anew', async () => {
    const batch = await announce('until.csv', { expiresAt: soon() })
    await addRows(batch, [{ numbers: ['07911 204482'] }])
    await api.call('addSuppressionEntries', {
      params: { suppressionListId: register },
      body: { text: 'alice@heron.example', expiresAt: soon() },
    })
    expect(await suppressed()).toEqual(['Alice Haddow', 'Priya Kestle'])
    expect(await letExpiredGo(server.services)).toBe(0)
    await server.sql(`update suppression_entries set expires_at = now() - interval '1 minute'`, [])
    expect(await letExpiredGo(server.services)).toBe(2)
    expect(await suppressed()).toEqual([])
    const again = await api.call('addSuppressionEntries', {
      params: { suppressionListId: register },
      body: { text: 'alice@heron.example' },
    })
    expect(again).toMatchObject({ added: 1, known: 0, marked: 1 })
    expect(await suppressed()).toEqual(['Alice Haddow'])
  })
})

describe('a domain in a suppression file', () => {
  const HOUSES = `Name,E-mail,Website
Ada Sorrel,ada@sorrel.example,
Ben Sorrel,ben@post.eu.sorrel.example,
Cal Sorrel,cal@postbox.example,https://shop.sorrel.example/about
Dot Notsorrel,dot@notsorrel.example,
Eve Example,eve@postbox.example,https://www.sorrel.example.org
`
  const everybodyThere = ['Ada Sorrel', 'Ben Sorrel', 'Cal Sorrel']
  beforeAll(async () => {
    listId = await newList(api)
    await bringText(api, listId, HOUSES)
  })

  it.each([
    ['by its name', { domains: ['sorrel.example'] }],
    ['by its hash', { hashes: [createHash('sha256').update('sorrel.example').digest('hex')] }],
  ])('%s keeps out whoever writes from there or below, or has a site there, and nobody else', async (_, row) => {
    const batch = await announce(`houses ${Object.keys(row)}.csv`)
    expect(await addRows(batch, [row])).toMatchObject({ added: 1, marked: 3 })
    expect(await suppressed()).toEqual(everybodyThere)
    await takeBack(batch)
    expect(await suppressed()).toEqual([])
  })
})
