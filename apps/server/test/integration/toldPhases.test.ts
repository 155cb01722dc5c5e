import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { Job } from '@upper-field/contract'
import { DEFAULT_THRESHOLDS } from '@upper-field/core/pair'
import { bringText, newList, startTestServer, type TestServer } from './harness'
import { ended } from './processes'

let server: TestServer
let listId: string
let batchId: string

/** Each stands in two rows: more people than are written at a time. */
const PEOPLE = 1200
const person = (i: number, mail: string) =>
  `Maren ${'abcdefghij'[i % 10]}${'klmnopqrst'[Math.floor(i / 10) % 10]}uvw ${'abcdefghij'[Math.floor(i / 100) % 10]}${'klmnopqrst'[Math.floor(i / 1000)]}lder,07911 2${String(10_000 + i)},${mail}`
const FILE = `name,phone,mail\n${Array.from({ length: PEOPLE }, (_, i) => `${person(i, '')}\n${person(i, `P${i}@causeway.example`)}`).join('\n')}\n`

beforeAll(async () => {
  server = await startTestServer()
  // Everything that is told of jobs, as it is told.
  await server.sql(`create table told (at bigint generated always as identity, job_id uuid, state text, phase text, share real);
    create table pressed (kind text, state text);
    create function tell() returns trigger language plpgsql as $$ begin
      insert into told (job_id, state, phase, share) values (new.id, new.state, new.phase, new.phase_share);
      return null;
    end $$;
    create trigger tell after update on jobs for each row execute function tell();
    create function press() returns trigger language plpgsql as $$ declare wanted text; begin
      if new.phase_share is null or new.state <> 'running' then return new; end if;
      delete from pressed where kind = new.kind returning state into wanted;
      if wanted is not null then new.state = wanted; end if;
      return new;
    end $$;
    create trigger press before update on jobs for each row execute function press()`)
  listId = await newList(server.api)
})
afterAll(() => server.stop())

/** The shares that are told of a job, by its phases. */
async function sharesOf({ id }: Pick<Job, 'id'>): Promise<Record<string, number[]>> {
  const told = await server.sql<{ phase: string; share: number | null }>(
    'select phase, share from told where job_id = $1 order by at',
    [id],
  )
  const shares: Record<string, number[]> = {}
  for (const { phase, share } of told) if (share !== null) shares[phase] = [...(shares[phase] ?? []), share]
  return shares
}

const rises = (shares: readonly number[] = []): boolean =>
  shares.length > 1 && shares.every((share, i) => share <= 1 && share > (shares[i - 1] ?? 0))

/** Whoever looks at a job of this kind as soon as its phase is told wants it to stop, or to rest. */
const press = (kind: Job['kind'], state: 'stopping' | 'pausing') =>
  server.sql('insert into pressed (kind, state) values ($1, $2)', [kind, state])

const latest = async (kind: Job['kind']): Promise<Job> => {
  const jobs = await server.api.call('readJobs', { params: { listId } })
  const job = jobs.find((one) => one.kind === kind)
  if (!job) throw new Error(`there is no job of the kind ${kind}`)
  return job
}

const resume = async ({ id }: Job) => {
  await server.api.call('resumeJob', { params: { jobId: id } })
  return ended(server.api, listId, id)
}

/** All that is shown of the list's contacts. */
const picture = () =>
  server.sql(
    `select md5(string_agg(md5(c::text), '' order by id)) as all, count(*)::int as n,
    count(*) filter (where joined_into is null)::int as standing from contacts c where list_id = $1`,
    [listId],
  )

describe('a file whose duplicates are being joined', () => {
  it('stops when it is told to: nothing of it is shown, and it goes on with joining', async () => {
    await press('bring-in', 'stopping')
    const batch = await bringText(server.api, listId, FILE, { defaultCountry: 'GB' })
    batchId = batch.id
    const stopped = await latest('bring-in')
    expect(stopped).toMatchObject({ state: 'stopped', done: stopped.total, phaseShare: null })
    expect(await server.api.call('readList', { params: { listId } })).toMatchObject({ contacts: 0 })
    expect(await resume(stopped)).toMatchObject({ state: 'done', result: { rows: 2 * PEOPLE, joined: PEOPLE } })
    const [now] = await picture()
    expect(now).toMatchObject({ n: 2 * PEOPLE, standing: PEOPLE })
  })

  it('tells how far joining is', async () => {
    await bringText(server.api, await newList(server.api, 'Told'), FILE, { defaultCountry: 'GB' })
    const [{ id = '' } = {}] = await server.sql<{ id: string }>(
      `select id from jobs where kind = 'bring-in' order by created_at desc limit 1`,
    )
    const { joining, ...others } = await sharesOf({ id })
    expect(others).toEqual({})
    expect(joining?.[0]).toBe(0)
    expect(rises(joining?.slice(1))).toBe(true)
    expect(joining?.at(-1)).toBe(1)
  })
})

describe('work on a whole list', () => {
  it('can be stopped while a batch is taken back, and while it comes back', async () => {
    for (const [call, kind, phase] of [
      ['takeBatchBack', 'take-back', 'parting'],
      ['bringBatchBack', 'bring-back', 'joining'],
    ] as const) {
      await bringText(server.api, listId, `${FILE.split('\n').slice(0, 1500).join('\n')}\n`, { defaultCountry: 'GB' })
      const before = await picture()
      await press(kind, 'pausing')
      await server.api.call(call, { params: { batchId } })
      const paused = await ended(server.api, listId, (await latest(kind)).id)
      expect(paused).toMatchObject({ state: 'paused', done: 0 })
      expect(await picture()).toEqual(before)
      expect(await resume(paused as Job)).toMatchObject({ state: 'done', done: 2 * PEOPLE })
      const shares = (await sharesOf(paused as Job))[phase] ?? []
      expect(shares.length).toBeGreaterThan(1)
      expect(await picture()).not.toEqual(before)
    }
  })

  it('tells how far pairing is with those it joins', async () => {
    const other = await newList(server.api, 'Alike')
    const strangers = Array.from(
      { length: 30 },
      (_, i) =>
        `Given${String.fromCharCode(97 + (i % 26))} Stranger${i},House ${i},Town ${i % 9},07911 2${10_000 + i},`,
    )
    const twice = [
      'Odd Oldershaw,Heron Lodge,Oxford,07911 304482,',
      'Odd Oldershaw,Heron Lodge,Oxford,,odd@heron.example',
    ]
    const text = ['name,company,town,phone,mail', ...twice, ...strangers, ''].join('\n')
    await bringText(server.api, other, text, { defaultCountry: 'GB' })
    const params = { listId: other }
    const { id } = await server.api.call('runPairing', { params, body: { thresholds: DEFAULT_THRESHOLDS } })
    expect(await ended(server.api, other, id)).toMatchObject({ state: 'done', result: { joined: 1 } })
    expect(await sharesOf({ id })).toEqual({ joining: [0, 1] })
  })

  it('tells how far a routine is with those whose groups are decided anew', async () => {
    const { routine } = await server.api.call('readTidy', { params: { listId } })
    const before = await picture()
    await press('tidy', 'stopping')
    const applied = { params: { listId }, body: { routine: { ...routine, steps: [] }, name: null } }
    await server.api.call('applyRoutine', applied)
    const stopped = await ended(server.api, listId, (await latest('tidy')).id)
    expect(stopped).toMatchObject({ state: 'stopped', done: 0, phaseShare: null })
    expect(await picture()).toEqual(before)
    const { id } = await server.api.call('applyRoutine', applied)
    expect(await ended(server.api, listId, id)).toMatchObject({ state: 'done', phaseShare: null })
    const { joining } = await sharesOf({ id })
    expect(rises(joining)).toBe(true)
  })
})
