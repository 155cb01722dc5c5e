import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import { newList, startTestServer, type TestServer } from './harness'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.stop())

describe('what happened last to a list', () => {
  it('names every job that is not over, however much was done since, and the latest of each kind', async () => {
    const listId = await newList(server.api)
    await server.sql(
      `insert into jobs (kind, list_id, state, unit, payload, created_at)
       select 'fill', $1::uuid, 'paused', 'contacts', '{}'::jsonb, now() - interval '9 days'
       union all select 'check', $1, 'done', 'contacts', '{}', now() - interval '8 days'
       union all select 'tidy', $1, 'done', 'contacts', '{}', now() - n * interval '1 hour' from generate_series(1, 40) n`,
      [listId],
    )
    const jobs = await server.api.call('readJobs', { params: { listId } })
    const kinds = jobs.map(({ kind, state }) => `${kind} ${state}`)
    expect(kinds).toEqual([...Array.from({ length: 10 }, () => 'tidy done'), 'check done', 'fill paused'])
    const ages = jobs.map(({ createdAt }) => createdAt)
    expect(ages).toEqual([...ages].sort().reverse())
  })

  it('is not gone on with in a list that is only looked at', async () => {
    const listId = await newList(server.api)
    const [job] = await server.sql<{ id: string }>(
      `insert into jobs (kind, list_id, state, unit, payload) values ('fill', $1, 'paused', 'contacts', '{}') returning id`,
      [listId],
    )
    const params = { jobId: job?.id ?? '' }
    await server.api.call('changeList', { params: { listId }, body: { archived: true } })
    await expect(server.api.call('resumeJob', { params })).rejects.toMatchObject({ code: 'list-archived' })
    expect(await server.api.call('readJobs', { params: { listId } })).toMatchObject([{ state: 'paused' }])
  })

  it('names a hundred acts of people, and says whether there were more', async () => {
    const listId = await newList(server.api)
    const addActs = (n: number) =>
      server.sql(
        `insert into acts (list_id, kind, contacts, detail, made_by, made_at)
         select $1, 'edit', 1, 'company: Inn ' || n, 'Maren', now() from generate_series(1, $2::int) n`,
        [listId, n],
      )
    const told = async () => {
      const { acts, hasOlderActs } = await server.api.call('readTidy', { params: { listId } })
      return { acts: acts.length, hasOlderActs }
    }
    await addActs(100)
    expect(await told()).toEqual({ acts: 100, hasOlderActs: false })
    await addActs(1)
    expect(await told()).toEqual({ acts: 100, hasOlderActs: true })
  })
})
