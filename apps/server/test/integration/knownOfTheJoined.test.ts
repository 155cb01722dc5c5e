import { afterAll, beforeAll, expect, it } from '@jest/globals'
import { untilEnded } from '../../../../scripts/bringIn'
import { projectFound } from '../../src/fill/projectFound'
import { answeredLately } from '../../src/fill/wanting'
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

it('what was asked about a contact, what that cost and the audiences it is in are known of whom it is joined to', async () => {
  const { call } = server.api
  const listId = await newList(server.api)
  const text = 'name,phone,mail\nJuno Vaubert,+441665555019,\nJuno Vaubert,,juno@heron.example\n'
  await bringText(server.api, listId, text)
  const read = async (filter = '') =>
    (await call('readContacts', { params: { listId }, query: { filter } })).contacts.map(({ id }) => id)
  const [first = 0, second = 0] = await read()
  await server.sql(
    `with asked as (
       insert into attempts (id, job_id, list_id, contact_id, provider, state, reserved, answered_at)
       values (gen_random_uuid(), gen_random_uuid(), $1, $2, 'quillwort', 'nothing', 0, now()) returning *)
     insert into charges (list_id, job_id, provider, subject, contact_id, attempt_id, question, amount, reason)
     select list_id, job_id, provider, contact_id::text, contact_id, id, id::text, 40000, 'per question' from asked`,
    [listId, second],
  )
  await server.sql(
    `with made as (
       insert into audiences (list_id, name, destination, takes, form, filter, purpose, account_id, account_name, refresh_days, removes_by_itself, made_by)
       values ($1, 'Spring', 'northpin', '{}', 'hashed', '', 'reach', 'a', 'A', 30, false, 'us') returning id)
     insert into audience_members (audience_id, key, contact_id, cells, delivery_id)
     select id, 'x', $2, '{}', gen_random_uuid() from made`,
    [listId, second],
  )
  const filters = ['asked:quillwort', 'cost>0.01', 'audience:Spring']
  const chosen = () => Promise.all(filters.map((filter) => read(filter)))
  const lately = async () =>
    [...(await answeredLately(server.services.db, { jobId: crypto.randomUUID(), notAgainDays: 30 }, [first, second]))]
      .map(([id, providers]) => [id, ...providers])
      .sort()
  expect(await chosen()).toEqual([[second], [second], [second]])
  expect(await lately()).toEqual([[second, 'quillwort']])

  const edits = [{ contactId: second, column: 'number', value: '+441665555019' }]
  await call('makeEdits', { params: { listId }, body: { edits } })
  expect(await read()).toEqual([first])
  expect(await chosen()).toEqual([[first], [first], [first]])
  expect(await lately()).toEqual([
    [first, 'quillwort'],
    [second, 'quillwort'],
  ])
  const { story } = await call('readStory', { params: { contactId: first } })
  expect(story.map(({ what }) => what).filter(({ kind }) => kind === 'asked')).toMatchObject([
    { provider: 'quillwort', cost: 40_000 },
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
