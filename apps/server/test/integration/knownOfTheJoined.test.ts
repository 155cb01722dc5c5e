import { afterAll, beforeAll, expect, it } from '@jest/globals'
import { untilEnded } from '../../../../scripts/bringIn'
import { projectFound } from '../../src/fill/projectFound'
import { withListLock } from '../../src/lists/listLock'
import { addDestinations, bringText, newList, startTestServer, type TestServer } from './harness'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.stop())

const FOUND = '+447911204499'

/** A mobile that a provider found for a contact, kept as a fill keeps it. @returns the id of what was found */
async function keepFound(listId: string, contactId: number): Promise<string> {
  const [kept] = await server.sql<{ id: string }>(
    `insert into fills (list_id, contact_id, attempt_id, provider, e164) values ($1, $2, gen_random_uuid(), 'tansy', $3) returning id`,
    [listId, contactId, FOUND],
  )
  await withListLock(server.services, listId, { work: 'fill' }, (tx, client) =>
    projectFound(tx, client, listId, [{ contactId, value: FOUND }]),
  )
  return kept?.id ?? ''
}

it('what was found for a contact is known of whom it is joined to, until it is taken back', async () => {
  const { call } = server.api
  const listId = await newList(server.api)
  const text = 'name,phone,mail\nMaren Oldershaw,+441665555018,\nMaren Oldershaw,,maren@heron.example\n'
  await bringText(server.api, listId, text)
  const read = async (filter = '') => (await call('readContacts', { params: { listId }, query: { filter } })).contacts
  const [first, second] = await read()
  if (!first || !second) throw new Error('there are not two contacts')
  const fillId = await keepFound(listId, second.id)
  expect((await read()).map(({ number, lane }) => [number, lane])).toEqual([
    ['+441665555018', 'call'],
    [FOUND, 'text'],
  ])

  const edits = [{ contactId: second.id, column: 'number', value: '+441665555018' }]
  await call('makeEdits', { params: { listId }, body: { edits } })
  expect((await read()).map(({ id, joined, number, lane }) => [id, joined, number, lane])).toEqual([
    [first.id, 1, FOUND, 'text'],
  ])
  expect((await read('found:tansy')).map(({ id }) => id)).toEqual([first.id])
  const { story } = await call('readStory', { params: { contactId: first.id } })
  expect(story.filter(({ what }) => what.kind === 'filled').map(({ what }) => what)).toMatchObject([
    { fillId, value: FOUND },
  ])

  await call('takeFillBack', { params: { fillId } })
  expect((await read()).map(({ id, number, lane }) => [id, number, lane])).toEqual([
    [first.id, '+441665555018', 'call'],
  ])
})

it('whoever was sent counts as sent under the contact it is joined to, until they are taken apart', async () => {
  const { call } = server.api
  const listId = await newList(server.api)
  await addDestinations(server.api)
  const text = 'name,phone,mail\nTom Kestle,+447911204491,\nTom Kestle,+447911204492,tom@heron.example\n'
  await bringText(server.api, listId, text)
  const read = async (filter = '') => (await call('readContacts', { params: { listId }, query: { filter } })).contacts
  const [first, second] = await read()
  if (!first || !second) throw new Error('there are not two contacts')
  const notSent = async () =>
    (await call('readList', { params: { listId } })).terrace.at(-1)?.changes.find(({ riser }) => riser === 'not-sent')
      ?.by
  const body = { destination: 'people', form: 'people' as const, filter: 'tom@heron' }
  const { jobId } = await call('makeEdition', { params: { listId }, body })
  await untilEnded(server.api, listId, jobId)
  expect([(await read('sent:people')).map(({ id }) => id), await notSent()]).toEqual([[second.id], -1])

  const edits = [{ contactId: second.id, column: 'number', value: '+447911204491' }]
  const act = await call('makeEdits', { params: { listId }, body: { edits } })
  expect([(await read('sent:people')).map(({ id }) => id), await notSent()]).toEqual([[first.id], 0])
  await untilEnded(server.api, listId, (await call('takeActBack', { params: { actId: act.id } })).id)
  expect([(await read('sent:people')).map(({ id }) => id), await notSent()]).toEqual([[second.id], -1])
})

it('two of one name to whom one number is found are one person, and others share a line with them', async () => {
  const { call } = server.api
  const listId = await newList(server.api)
  const text =
    'name,mail\nPriya Hallowell,priya@heron.example\nPriya Hallowell,ph@larch.example\nJuno Vaubert,jv@larch.example\n'
  await bringText(server.api, listId, text)
  const read = async () => (await call('readContacts', { params: { listId }, query: {} })).contacts
  const ids = (await read()).map(({ id }) => id)
  const kept: string[] = []
  for (const id of ids) kept.push(await keepFound(listId, id))
  const [first, second, third] = ids
  expect((await read()).map(({ id, joined, isShared }) => [id, joined, isShared])).toEqual([
    [first, 1, true],
    [third, 0, true],
  ])

  await call('takeFillBack', { params: { fillId: kept[2] ?? '' } })
  expect((await read()).map(({ id, joined, isShared }) => [id, joined, isShared])).toEqual([
    [first, 1, false],
    [third, 0, false],
  ])
  await call('takeFillBack', { params: { fillId: kept[1] ?? '' } })
  expect((await read()).map(({ id, joined, number }) => [id, joined, number])).toEqual([
    [first, 0, FOUND],
    [second, 0, null],
    [third, 0, null],
  ])
})
