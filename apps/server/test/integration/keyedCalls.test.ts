import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { ApiClient } from '@upper-field/contract'
import { forgetOldKeys } from '../../src/http/idempotency'
import { sha256Hex } from '../../src/sha256'
import { startTestServer, type TestServer } from './harness'

let server: TestServer
let api: ApiClient
beforeAll(async () => {
  server = await startTestServer({ UNDER_WAY_SECONDS: '60', IDEMPOTENCY_HOURS: '1' })
  api = server.api
})
afterAll(() => server.stop())

const make = (key: string, name = 'Keyed') => api.call('makeList', { body: { name } }, { 'idempotency-key': key })
const keyNow = async (key: string) =>
  (await server.sql<Record<string, unknown>>('select * from idempotency_keys where key = $1', [key]))[0]
/** A call as a crash leaves it: its key taken, no answer. */
async function cutOff(key: string, { secondsAgo, isCarriedOut }: { secondsAgo: number; isCarriedOut: boolean }) {
  const [person] = await server.sql<{ id: string }>('select id from people')
  await server.sql(
    `insert into idempotency_keys (person_id, key, call, request, token, at, carried_out_at)
     values ($1, $2, 'makeList', $3, gen_random_uuid(), now() - make_interval(secs => $4), $5)`,
    [
      person?.id,
      key,
      sha256Hex(JSON.stringify([{}, {}, { name: 'Keyed' }])),
      secondsAgo,
      isCarriedOut ? new Date() : null,
    ],
  )
}

describe('a keyed call', () => {
  it('is carried out once; repeated it gets the first answer', async () => {
    const [first, second] = [await make('a'), await make('a')]
    expect(second).toEqual(first)
    const together = await Promise.allSettled([make('b'), make('b'), make('b')])
    const ids = together.flatMap((one) => (one.status === 'fulfilled' ? one.value.id : []))
    expect(new Set(ids).size).toBe(1)
    for (const one of together) if (one.status === 'rejected') expect(one.reason).toMatchObject({ code: 'under-way' })
  })

  it('with the same key and another body is refused, and nothing is made', async () => {
    await make('c', 'This one')
    await expect(make('c', 'Another')).rejects.toMatchObject({ status: 422, code: 'key-reused' })
    expect((await api.call('readLists')).map(({ name }) => name)).not.toContain('Another')
  })

  it('that was refused gives its key back', async () => {
    await expect(make('d', '  ')).rejects.toMatchObject({ status: 422 })
    expect((await make('d', 'Now with a name')).name).toBe('Now with a name')
  })

  it('that a crash cut off before its effect is carried out by whoever repeats it, after a while', async () => {
    await cutOff('e', { secondsAgo: 10, isCarriedOut: false })
    await expect(make('e')).rejects.toMatchObject({ status: 409, code: 'under-way' })
    await server.sql(`update idempotency_keys set at = now() - interval '61 seconds' where key = 'e'`)
    expect(await make('e')).toMatchObject({ name: 'Keyed' })
    expect(await keyNow('e')).toMatchObject({ carried_out_at: expect.any(Date), answer: { name: 'Keyed' } })
  })

  it('that a crash cut off behind its effect is never carried out again, and says so', async () => {
    await cutOff('f', { secondsAgo: 3000, isCarriedOut: true })
    const before = (await api.call('readLists')).length
    await expect(make('f')).rejects.toMatchObject({ status: 409, code: 'carried-out' })
    expect((await api.call('readLists')).length).toBe(before)
  })

  it('whose effect is there and whose answer is about to be noted is under way', async () => {
    await cutOff('j', { secondsAgo: 1, isCarriedOut: true })
    await expect(make('j')).rejects.toMatchObject({ status: 409, code: 'under-way' })
    await server.sql(`update idempotency_keys set at = now() - interval '61 seconds' where key = 'j'`)
    await expect(make('j')).rejects.toMatchObject({ status: 409, code: 'carried-out' })
  })

  it('notes its effect in the transaction of the effect', async () => {
    await make('g')
    const [noted] = await server.sql<{ same: boolean }>(
      `select k.xmin::text <> '' and k.carried_out_at is not null as same from idempotency_keys k where key = 'g'`,
    )
    expect(noted).toEqual({ same: true })
    // Where the note cannot be made, because somebody else took the call over, there is no effect either.
    await server.sql(`create function take_over() returns trigger language plpgsql as $$
      begin update idempotency_keys set token = gen_random_uuid() where key = 'h'; return new; end $$`)
    await server.sql('create trigger take_over after insert on lists for each row execute function take_over()')
    const before = (await api.call('readLists')).length
    await expect(make('h', 'Taken over')).rejects.toMatchObject({ code: 'taken-over' })
    await server.sql('drop trigger take_over on lists')
    expect((await api.call('readLists')).length).toBe(before)
  })

  it('is forgotten after its time', async () => {
    const first = await make('i')
    await server.sql(`update idempotency_keys set at = now() - interval '61 minutes' where key = 'i'`)
    expect((await make('i')).id).not.toBe(first.id)
    await server.sql(`update idempotency_keys set at = now() - interval '61 minutes' where key in ('a', 'b')`)
    expect(await forgetOldKeys(server.services)).toBe(2)
    expect(await keyNow('a')).toBeUndefined()
    expect(await keyNow('i')).toBeDefined()
  })
})
