import { createHash } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { ApiClient, NewBatch } from '@upper-field/contract'
import { untilEnded } from '../../../../scripts/bringIn'
import { bringText, newList, startTestServer, type TestServer } from './harness'

let server: TestServer
let api: ApiClient
let listId: string
let optOuts: string

const FILE = `Name,Company,Phone,E-mail,Country
Maren Oldershaw,Causeway,07911 204481,maren@causeway.example,GB
Priya Kestle,Thornbury,07911 204482,priya@thornbury.example,GB
Tom Garside,Rival Shades,07911 204483,tom@sales.rival.example,GB
Alice Haddow,Heron,07911 204484,alice@heron.example,GB
`
const facts: Partial<NewBatch> = { defaultCountry: 'GB' }
const add = (text: string, more: object = {}) =>
  api.call('addSuppressionEntries', {
    params: { suppressionListId: optOuts },
    body: { text, country: 'GB', reason: 'asked by text', ...more },
  })
const suppressed = async (list = listId) => {
  const page = await api.call('readContacts', { params: { listId: list }, query: { filter: 'reason:suppressed' } })
  return page.contacts.map(({ fullName }) => fullName).sort()
}
const entries = () => api.call('readSuppressionEntries', { params: { suppressionListId: optOuts } })

beforeAll(async () => {
  server = await startTestServer()
  api = server.api
  listId = await newList(api)
  await bringText(api, listId, FILE, facts)
  optOuts = (await api.call('makeSuppressionList', { body: { name: 'Opt-outs', kind: 'opt-outs' } })).id
})
afterAll(() => server.stop())

describe('a suppression list', () => {
  it('marks whoever it names at once, in every list, and tells the lines without a key', async () => {
    const other = await newList(api, 'Another')
    await bringText(api, other, FILE, facts)
    const added = await add(
      '07911-204481\nPRIYA@Thornbury.example\nhttps://www.rival.example/contact\nsoon\n\n07911 204481',
    )
    expect(added).toMatchObject({ added: 3, known: 1, unread: [{ line: 4, text: 'soon' }], marked: 6 })
    const three = ['Maren Oldershaw', 'Priya Kestle', 'Tom Garside']
    expect([await suppressed(), await suppressed(other)]).toEqual([three, three])
  })

  it('tells every line without a key, however many there are', async () => {
    const lines = Array.from({ length: 120 }, (_, i) => `nobody ${i}`)
    const { unread, unreadTotal } = await add(lines.join('\n'))
    expect([unread.map(({ text }) => text), unreadTotal]).toEqual([lines, 120])
  })

  it('is a fall of its own in the terrace, which opens exactly whom it counts', async () => {
    const { terrace } = await api.call('readList', { params: { listId } })
    expect(terrace.find(({ stage }) => stage === 'split')?.changes).toContainEqual({ riser: 'suppressed', by: -3 })
    const fell = await api.call('readContacts', { params: { listId }, query: { filter: 'fell:suppressed' } })
    expect(fell.total).toBe(3)
  })

  it('leaves very many of a list to a job, and no file holds them meanwhile', async () => {
    const list = await newList(api, 'A switchboard')
    const many = 2100
    const rows = Array.from({ length: many }, (_, i) => `Given${i} Family${i},01665 555777,p${i}@causeway.example`)
    await bringText(
      api,
      list,
      `Name,Phone,E-mail\n${rows.join('\n')}\nTom Other,07911 204499,tom@other.example\n`,
      facts,
    )
    expect(await add('01665 555777')).toMatchObject({ added: 1, marked: 0, waiting: many })
    const edition = await api.call('makeEdition', {
      params: { listId: list },
      body: { destination: 'people', form: 'people', filter: '' },
    })
    await untilEnded(api, list, edition.jobId)
    const { people } =
      (await api.call('readEditions', { params: { listId: list } })).find(({ id }) => id === edition.id) ?? {}
    expect(people).toBe(1)
    for (const { id, kind } of await api.call('readJobs', { params: { listId: list } }))
      if (kind === 'mark')
        expect(await untilEnded(api, list, id)).toMatchObject({ state: 'done', result: { marked: many } })
    const { total } = await api.call('readContacts', {
      params: { listId: list },
      query: { filter: 'reason:suppressed' },
    })
    expect(total).toBe(many)
  })

  it('marks those who come with a later batch', async () => {
    const later = await newList(api, 'Later')
    await bringText(api, later, FILE, facts)
    expect(await suppressed(later)).toHaveLength(3)
  })

  it('keeps only the hash where that is wanted, and matches by hashes that are given', async () => {
    const hash = createHash('sha256').update('alice@heron.example').digest('hex')
    expect(await add(hash.toUpperCase())).toMatchObject({ added: 1, marked: 3 })
    expect(await suppressed()).toHaveLength(4)
    const [newest] = (await entries()).entries
    expect(newest).toMatchObject({ kind: 'hash', key: null, reason: 'asked by text' })
    await add('07911 204499', { asHashes: true })
    const stored = await server.sql('select * from suppression_entries where hash = $1', [
      createHash('sha256').update('+447911204499').digest('hex'),
    ])
    expect(stored).toMatchObject([{ kind: 'number', key: null }])
  })

  it('lets go of a contact when its entry is taken off', async () => {
    const entry = (await entries()).entries.find(({ kind }) => kind === 'hash')
    await api.call('dropSuppressionEntry', { params: { entryId: entry?.id ?? '' } })
    expect(await suppressed()).toEqual(['Maren Oldershaw', 'Priya Kestle', 'Tom Garside'])
  })

  it('is asked again when a file is made: who came on it without being placed anew is left out', async () => {
    const fresh = await newList(api, 'Sent')
    await bringText(api, fresh, FILE, facts)
    expect(await suppressed(fresh)).toHaveLength(3)
    // An entry that reached the database by another way than this server.
    await server.sql(
      `insert into suppression_entries (suppression_list_id, kind, hash, reason, added_by) values ($1, 'email', $2, '', 'x')`,
      [optOuts, createHash('sha256').update('alice@heron.example').digest('hex')],
    )
    const { id, jobId } = await api.call('makeEdition', {
      params: { listId: fresh },
      body: { destination: 'people', form: 'people', filter: '' },
    })
    expect((await untilEnded(api, fresh, jobId)).state).toBe('done')
    const edition = (await api.call('readEditions', { params: { listId: fresh } })).find((one) => one.id === id)
    expect(edition).toMatchObject({ people: 0, leftOut: 1 })
  })

  it('ignores entries that have expired, and places anew whom they held', async () => {
    const held = (await entries()).entries.find(({ key }) => key === 'priya@thornbury.example')
    await api.call('dropSuppressionEntry', { params: { entryId: held?.id ?? '' } })
    await add('07911 204482', { expiresAt: '2020-01-01T00:00:00.000Z' })
    expect(await suppressed()).toEqual(['Maren Oldershaw', 'Tom Garside'])
  })

  it('holds for as long as was said last, and never for less', async () => {
    const until = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString()
    const key = '+447911204599'
    const expiry = async () => (await entries()).entries.find((one) => one.key === key)?.expiresAt
    const [week, month] = [until(7), until(30)]
    expect(await add(key, { expiresAt: week })).toMatchObject({ added: 1, known: 0 })
    expect(await add(key, { expiresAt: month, reason: 'asked again' })).toMatchObject({ added: 0, known: 1 })
    expect(await expiry()).toBe(month)
    await add(key, { expiresAt: week })
    expect(await expiry()).toBe(month)
    await add(key)
    expect(await expiry()).toBeNull()
    await add(key, { expiresAt: until(300) })
    expect(await expiry()).toBeNull()
  })

  it('takes a contact by its numbers and addresses', async () => {
    const { contacts } = await api.call('readContacts', { params: { listId }, query: { filter: 'Haddow' } })
    const [alice] = contacts
    await api.call('suppressContact', {
      params: { contactId: alice?.id ?? 0 },
      body: { suppressionListId: optOuts, reason: 'said so on the phone' },
    })
    expect(await suppressed()).toContain('Alice Haddow')
  })

  it('takes everybody whose cells held a remark that says no, at once', async () => {
    const said = await newList(api, 'With remarks')
    await bringText(
      api,
      said,
      'Name,Phone,E-mail,Note\nIda Penrose (do not call),07911 204495,ida@penrose.example,\nJo Penrose,07911 204496,,opted out\nKit Penrose,07911 204497,,ring before nine\n',
      facts,
    )
    const added = await api.call('suppressRefusals', {
      params: { listId: said },
      body: { suppressionListId: optOuts },
    })
    expect(added).toMatchObject({ added: 3, known: 0, marked: 2 })
    expect(await suppressed(said)).toEqual(['Ida Penrose', 'Jo Penrose'])
    const nobody = await newList(api, 'Without')
    await bringText(api, nobody, 'Name,Phone\nLi Penrose,07911 204498\n', facts)
    await expect(
      api.call('suppressRefusals', { params: { listId: nobody }, body: { suppressionListId: optOuts } }),
    ).rejects.toMatchObject({ status: 422, code: 'nothing-to-suppress' })
  })

  it('refuses a second list of the same name', async () => {
    const again = api.call('makeSuppressionList', { body: { name: 'Opt-outs', kind: 'register' } })
    await expect(again).rejects.toMatchObject({ status: 409, code: 'name-taken' })
  })
})
