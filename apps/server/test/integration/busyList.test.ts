import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { ApiClient } from '@upper-field/contract'
import { Client } from 'pg'
import { untilEnded } from '../../../../scripts/bringIn'
import { LOCKS } from '../../src/db/locks'
import { bringText, newList, startTestServer, type TestServer } from './harness'
import { holdList } from './holdList'
import { until } from './until'

let server: TestServer
let api: ApiClient
let suppressionListId: string
beforeAll(async () => {
  server = await startTestServer({ LOCK_SECONDS: '1', DATABASE_CONNECTIONS: '6' })
  api = server.api
  suppressionListId = (await api.call('makeSuppressionList', { body: { name: 'Opt-outs', kind: 'opt-outs' } })).id
})
afterAll(() => server.stop())

/** Entries hold in every list: each test has people of its own. */
let made = 0
const numberOf = (who: number) => `+44791120${String(made * 10 + who).padStart(4, '0')}`

async function listOfPeople(): Promise<string> {
  made++
  const listId = await newList(api)
  const rows = ['Maren', 'Tom', 'Ines'].map((name, i) => `${name},${numberOf(i)}`)
  await bringText(api, listId, `name,phone\n${rows.join('\n')}\n`)
  return listId
}

const hold = (listId: string, jobId?: string) => holdList(server, listId, jobId)

const contactsOf = async (listId: string) =>
  (await api.call('readContacts', { params: { listId } })).contacts.map(({ id, laneReason }) => ({ id, laneReason }))
const optOut = (key: string) =>
  api.call('addSuppressionEntries', { params: { suppressionListId }, body: { text: key } })
const fileOf = async (listId: string) => {
  const edition = await api.call('makeEdition', {
    params: { listId },
    body: { destination: 'people', form: 'people', filter: '' },
  })
  await untilEnded(api, listId, edition.jobId)
  return edition.id
}

describe('a list that is being worked on', () => {
  it('keeps an edit waiting, and says who is at work when the patience ends', async () => {
    const listId = await listOfPeople()
    const [job] = await server.sql<{ id: string }>(
      `insert into jobs (kind, list_id, unit, total, done, payload, started_by, state)
       values ('tidy', $1, 'contacts', 200, 86, '{}', 'Maud', 'done') returning id`,
      [listId],
    )
    const letGo = await hold(listId, job?.id)
    const [contact] = await contactsOf(listId)
    const edit = () =>
      api.call('makeEdits', {
        params: { listId },
        body: { edits: [{ contactId: contact?.id ?? 0, column: 'city', value: 'Bath' }] },
      })
    await expect(edit()).rejects.toMatchObject({ status: 409, code: 'list-busy' })
    await expect(edit()).rejects.toThrow(/being tidied, started by Maud, 43 % done.*Nothing was changed/)
    const waiting = edit()
    await letGo()
    expect(await waiting).toMatchObject({ kind: 'edit', contacts: 1 })
  })

  it('is told as the work of another process too, and goes on by itself where that one dies', async () => {
    const listId = await listOfPeople()
    const client = new Client({ connectionString: server.databaseUrl, application_name: 'upper-field pair x' })
    client.on('error', () => {})
    await client.connect()
    await client.query('begin')
    await client.query('select pg_advisory_xact_lock(hashtextextended($1, $2))', [listId, LOCKS.list])
    const [contact] = await contactsOf(listId)
    const edit = () =>
      api.call('makeEdits', {
        params: { listId },
        body: { edits: [{ contactId: contact?.id ?? 0, column: 'city', value: 'Bath' }] },
      })
    await expect(edit()).rejects.toThrow(/being paired/)
    await server.sql(
      `select pg_terminate_backend(pid) from pg_stat_activity where application_name = 'upper-field pair x'`,
    )
    expect(await edit()).toMatchObject({ contacts: 1 })
  })

  it('is not waited for by an opt-out: it is stored at once, holds at every exit, and its mark follows', async () => {
    const listId = await listOfPeople()
    const editionId = await fileOf(listId)
    const letGo = await hold(listId)
    const added = await optOut(numberOf(0))
    expect(added).toMatchObject({ added: 1, marked: 0, waiting: 1 })
    expect((await contactsOf(listId)).some(({ laneReason }) => laneReason === 'suppressed')).toBe(false)

    // A file that was ready before is not given out any more.
    const download = await api.raw('downloadEdition', { params: { editionId } })
    expect(download.status).toBe(410)
    expect(await download.json()).toMatchObject({ code: 'suppressed-since' })
    const [told] = await api.call('readEditions', { params: { listId } })
    expect(told).toMatchObject({ suppressedSince: 1 })

    await letGo()
    const mark = (await api.call('readJobs', { params: { listId } })).find(({ kind }) => kind === 'mark')
    expect(await untilEnded(api, listId, mark?.id ?? '')).toMatchObject({ state: 'done', result: { marked: 1 } })
    expect((await contactsOf(listId)).filter(({ laneReason }) => laneReason === 'suppressed')).toHaveLength(1)
    const again = await fileOf(listId)
    expect(await (await api.raw('downloadEdition', { params: { editionId: again } })).text()).not.toContain('Maren')
  })

  it('is left alone by a new file too, although nobody is marked yet', async () => {
    const listId = await listOfPeople()
    const letGo = await hold(listId)
    await optOut(numberOf(1))
    const edition = await api.call('makeEdition', {
      params: { listId },
      body: { destination: 'people', form: 'people', filter: '' },
    })
    const pieces = () =>
      server.sql<{ text: string }>(
        `select convert_from(bytes, 'UTF8') as text from edition_pieces where edition_id = $1`,
        [edition.id],
      )
    await until(async () => (await pieces()).length > 0)
    expect((await pieces())[0]?.text).toMatch(/Ines/)
    expect((await pieces())[0]?.text).not.toMatch(/Tom/)
    await letGo()
    await untilEnded(api, listId, edition.jobId)
  })

  it('does not hold up the rest: with sixteen opt-outs and sixteen edits waiting everybody is served', async () => {
    const listId = await listOfPeople()
    const letGo = await hold(listId)
    const [contact] = await contactsOf(listId)
    const optOuts = Array.from({ length: 16 }, (_, i) => optOut(`+4479112045${String(i).padStart(2, '0')}`))
    const edits = Array.from({ length: 16 }, () =>
      api
        .call('makeEdits', {
          params: { listId },
          body: { edits: [{ contactId: contact?.id ?? 0, column: 'city', value: 'Bath' }] },
        })
        .catch((error: { code: string }) => error.code),
    )
    expect((await api.call('readLists')).length).toBeGreaterThan(0)
    const other = await newList(api)
    expect((await bringText(api, other, 'name,phone\nElsewhere,07911 204499\n', { defaultCountry: 'GB' })).state).toBe(
      'ready',
    )
    expect((await Promise.all(optOuts)).every(({ added }) => added === 1)).toBe(true)
    expect(new Set(await Promise.all(edits))).toEqual(new Set(['list-busy']))
    await letGo()
  })

  it('lets whoever waits give up: then nothing is done, also when the list is free', async () => {
    const listId = await listOfPeople()
    const letGo = await hold(listId)
    const [contact] = await contactsOf(listId)
    const giveUp = new AbortController()
    const waiting = api.raw('makeEdits', {
      params: { listId },
      body: JSON.stringify({ edits: [{ contactId: contact?.id, column: 'city', value: 'Bath' }] }),
      signal: giveUp.signal,
    })
    const isWaiting = async () =>
      (
        await server.sql(
          `select 1 from pg_locks where locktype = 'advisory' and not granted and database = (select oid from pg_database where datname = current_database())`,
        )
      ).length > 0
    await until(isWaiting)
    giveUp.abort()
    await expect(waiting).rejects.toThrow()
    await until(async () => !(await isWaiting()))
    await letGo()
    await optOut('+447911204499')
    expect(await server.sql('select 1 from acts where list_id = $1', [listId])).toEqual([])
  })

  it('makes a job wait, which begins as soon as it is free', async () => {
    const listId = await listOfPeople()
    const letGo = await hold(listId)
    const { routine } = await api.call('readTidy', { params: { listId } })
    const job = await api.call('applyRoutine', {
      params: { listId },
      body: { routine: { ...routine, steps: routine.steps.map((step) => ({ ...step, isOn: false })) }, name: null },
    })
    const jobNow = async () => (await api.call('readJobs', { params: { listId } })).find(({ id }) => id === job.id)
    await until(async () => (await jobNow())?.phase === 'list-busy')
    expect(await jobNow()).toMatchObject({ state: 'waiting', phase: 'list-busy', startedBy: 'Olive Owner' })
    await letGo()
    expect(await untilEnded(api, listId, job.id)).toMatchObject({ state: 'done' })
  })

  it('makes a job of what would be taken back at once, were it free', async () => {
    const listId = await listOfPeople()
    const [contact] = await contactsOf(listId)
    const edits = [{ contactId: contact?.id ?? 0, column: 'city', value: 'Bath' }]
    const act = await api.call('makeEdits', { params: { listId }, body: { edits } })
    const letGo = await hold(listId)
    const job = await api.call('takeActBack', { params: { actId: act.id } })
    expect(job).toMatchObject({ kind: 'tidy', state: 'queued' })
    expect((await api.call('readTidy', { params: { listId } })).acts).toMatchObject([{ undoneAt: null }])
    await letGo()
    expect(await untilEnded(api, listId, job.id)).toMatchObject({ state: 'done', result: { contacts: 1 } })
    expect((await api.call('readTidy', { params: { listId } })).acts).toMatchObject([{ undoneAt: expect.any(String) }])
  })
})

describe('a long job', () => {
  it('lets single acts in while it only compares, and takes account of them', async () => {
    const listId = await newList(api)
    const rows = Array.from(
      { length: 3000 },
      (_, i) => `Person ${i % 700} Name${i % 1500},Company ${i % 400},+44791130${String(i).padStart(4, '0')}`,
    )
    await bringText(api, listId, `name,company,phone\n${rows.join('\n')}\n`)
    const job = await api.call('runPairing', { params: { listId }, body: { thresholds: { join: 7, decide: -6 } } })
    const jobNow = async () => (await api.call('readJobs', { params: { listId } })).find(({ id }) => id === job.id)
    const [contact] = await contactsOf(listId)
    let letIn = 0
    for (let now = await jobNow(); now && ['queued', 'running', 'waiting'].includes(now.state); now = await jobNow()) {
      const done = await api
        .call('makeEdits', {
          params: { listId },
          body: { edits: [{ contactId: contact?.id ?? 0, column: 'city', value: `Bath ${letIn}` }] },
        })
        .catch((error: { code: string }) => error.code)
      if (typeof done !== 'string' && now.phase !== 'joining') letIn++
    }
    expect(letIn).toBeGreaterThan(0)
    expect(await jobNow()).toMatchObject({ state: 'done' })
    const [kept] = await server.sql<{ city: string }>('select city from contacts where id = $1', [contact?.id])
    expect(kept?.city).toMatch(/^Bath \d+$/)
    const counted = await api.call('readList', { params: { listId } })
    const [stored] = await server.sql<{ n: number }>(
      'select count(*)::int as n from contacts where list_id = $1 and joined_into is null',
      [listId],
    )
    expect(counted.contacts).toBe(stored?.n)
  })
})

describe('every connection', () => {
  it('gives up a statement and a lock after a time', async () => {
    const settings = await server.sql<{ name: string; setting: string }>(
      `select name, setting from pg_settings where name in ('lock_timeout', 'statement_timeout', 'idle_in_transaction_session_timeout')`,
    )
    expect(Object.fromEntries(settings.map(({ name, setting }) => [name, setting]))).toEqual({
      idle_in_transaction_session_timeout: '600000',
      lock_timeout: '1000',
      statement_timeout: '60000',
    })
  })
})
