import { createHash } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { ApiClient } from '@upper-field/contract'
import { untilEnded } from '../../../../scripts/bringIn'
import { bringText, newList, startTestServer, type TestServer } from './harness'

let server: TestServer
let api: ApiClient
let first: string
let second: string

const FILE = `Name,Company,Phone,Desk,E-mail,Note
Maren Oldershaw,Causeway,07911 204481,01665 555018,maren@causeway.example,met at the fair
M. Oldershaw,Causeway Camping,07911 204481,,,
Tom Kestle,Causeway,07911 204482,01665 555018,tom@causeway.example,
`
const OTHER = `Name,E-mail,Phone
Oldershaw Maren,MAREN@causeway.example,
Priya Hallowell,priya@thornbury.example,07911 204483
`
const facts = { defaultCountry: 'GB' }
const contacts = async (listId: string, filter = '') =>
  (await api.call('readContacts', { params: { listId }, query: { filter } })).contacts
const find = async (listId: string, part: string) =>
  (await contacts(listId)).find(({ fullName }) => fullName.includes(part))?.id ?? 0
/** Every text of the database but names of lists and columns, for looking for what must not be there. */
async function everything(): Promise<string> {
  const tables = await server.sql<{ name: string }>(
    `select table_name as name from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE'`,
  )
  const texts = await Promise.all(
    tables.map(async ({ name }) => JSON.stringify(await server.sql(`select t::text from "${name}" t`))),
  )
  const pieces = await server.sql<{ text: string }>(
    `select convert_from(bytes, 'UTF8') as text from edition_pieces union all select convert_from(bytes, 'UTF8') from held_rows`,
  )
  return [...texts, ...pieces.map(({ text }) => text)].join('\n')
}

beforeAll(async () => {
  server = await startTestServer()
  api = server.api
  // A list that knows the person by what they are reached by.
  const { id } = await api.call('makeSuppressionList', { body: { name: 'Opt-outs', kind: 'opt-outs', scope: 'post' } })
  await api.call('addSuppressionEntries', {
    params: { suppressionListId: id },
    body: { text: 'maren@causeway.example\n07911 204481', country: 'GB', reason: 'asked' },
  })
  first = await newList(api)
  await bringText(api, first, FILE, facts)
  second = await newList(api, 'Second')
  await bringText(api, second, OTHER, facts)
})
afterAll(() => server.stop())

/** What other rooms may know of them: a page that names them, a program that added them, an answer that was paid. */
async function leaveTraces(): Promise<void> {
  const [page] = await server.sql<{ id: string }>(
    `with h as (insert into harvests (list_id, name, settings, contact, made_by) values ($1, 'Pages', '{}', 'x', 'x') returning id)
     insert into harvest_pages (harvest_id, site, url, depth, rank, state, title, html)
     select id, 'causeway.example', 'http://causeway.example/', 0, 0, 'read', 'Maren', '\\x4d6172656e' from h returning id`,
    [first],
  )
  await server.sql(
    `insert into harvest_findings (harvest_id, page_id, site, kind, value, raw, how, confidence, quote, position)
     select harvest_id, id, site, 'number', '+447911204481', '07911 204481', 'label', 0.9, 'Maren 07911 204481', 0 from harvest_pages where id = $1`,
    [page?.id],
  )
  await server.sql(
    `insert into machine_contacts (list_id, key_id, their_id, contact_id, sent) values ($1, $1, 'maren@causeway.example', $2, 'x')`,
    [first, await find(first, 'Maren')],
  )
  await server.sql(
    `with s as (insert into directory_searches (list_id, name, provider, trade, place, budget, price, total, made_by)
      values ($1, 'x', 'x', '{}', '{}', 0, 0, 1, 'x') returning id)
     insert into directory_records (search_id, record, facts, state, reach)
     select id, 'r1', '{"name": "Maren", "number": "07911 204481"}', 'there-already', '{+447911204481}' from s`,
    [first],
  )
  await server.sql(
    `insert into charges (provider, subject, question, amount, reason) values ('x', '+447911204481', 'asked:+447911204481', 1, 'x')`,
  )
}

describe('a person who asks to be forgotten', () => {
  it('is found in every list, and told before anything is done', async () => {
    const contactId = await find(first, 'Maren')
    expect(await api.call('readForgetting', { params: { contactId } })).toEqual({
      contacts: 3,
      lists: ['A list', 'Second'],
      keys: 2,
      heldByOthers: ['+441665555018'],
      files: 0,
    })
  })

  it('is erased from all of them, with what was sent and edited, and every count stays', async () => {
    await leaveTraces()
    const contactId = await find(first, 'Maren')
    await api.call('makeEdits', {
      params: { listId: first },
      body: { edits: [{ contactId, column: 'company', value: 'Causeway of Maren' }] },
    })
    const edition = await api.call('makeEdition', {
      params: { listId: first },
      body: { destination: 'people', form: 'people', filter: '' },
    })
    await untilEnded(api, first, edition.jobId)
    expect(await everything()).toMatch(/Oldershaw/)
    const rowsBefore = (await api.call('readList', { params: { listId: first } })).terrace[0]

    expect(await api.call('forgetPerson', { params: { contactId } })).toMatchObject({ contacts: 3, files: 1 })
    const left = await everything()
    for (const word of ['ldershaw', 'maren', '7911204481', '07911 204481', 'met at the fair', 'Causeway of'])
      expect(left.includes(word)).toBe(false)
    expect(left).toContain('Tom Kestle')
    expect((await api.call('readList', { params: { listId: first } })).terrace[0]).toEqual(rowsBefore)
    expect((await contacts(first, 'fell:nothing-readable')).map(({ fullName }) => fullName)).toEqual(['', ''])
    const { story } = await api.call('readStory', { params: { contactId } })
    expect(story.map(({ what }) => what.kind)).toContain('forgotten')
    const download = await api.raw('downloadEdition', { params: { editionId: edition.id } })
    expect(download.status).toBe(410)
  })

  it('leaves those who share a line with the person as they are, and alone on it', async () => {
    const contactId = await find(first, 'Tom')
    const { numbers, contact } = await api.call('readStory', { params: { contactId } })
    expect(numbers.map(({ e164, isShared }) => [e164, isShared])).toEqual([
      ['+447911204482', false],
      ['+441665555018', false],
    ])
    expect(contact.lane).not.toBe('parked')
  })

  it('does not come back unmarked with the next batch; only hashes know of them', async () => {
    await bringText(api, second, FILE, facts)
    const marked = await contacts(second, 'reason:suppressed')
    expect(marked.map(({ fullName }) => fullName)).toEqual(['Maren Oldershaw'])
    const entries = await server.sql<{ hash: string; key: string | null }>('select hash, key from suppression_entries')
    expect(entries.every(({ key }) => key === null)).toBe(true)
    expect(entries.map(({ hash }) => hash)).toContain(
      createHash('sha256').update('maren@causeway.example').digest('hex'),
    )
  })
})
