import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { StandIns } from '@upper-field/standins'
import { createWorld } from '@upper-field/standins/world'
import { untilEnded } from '../../../../scripts/bringIn'
import { bringText, connectStandIns, newList, startTestServer, type TestServer } from './harness'

const WORLD = { seed: 'plans', people: 40 }
const world = createWorld(WORLD.seed, WORLD)
let server: TestServer
let standIns: StandIns
beforeAll(async () => {
  server = await startTestServer()
  standIns = await connectStandIns(server, WORLD)
})
afterAll(async () => {
  await server.stop()
  await standIns.stop()
})

describe('new batches', () => {
  const rowsOf = (people: typeof world.people) =>
    `name,company,country\n${people.map(({ given, family, company }) => `${given} ${family},${company.name},${company.place.country}`).join('\n')}\n`
  const plan = { order: ['tansy'], checksLines: true, notAgainDays: 30, options: { wants: ['mobile' as const] } }

  it('are filled on their own where that is switched on, within their amount, and no other contacts with them', async () => {
    const listId = await newList(server.api)
    await bringText(server.api, listId, rowsOf(world.people.slice(0, 10)))
    expect(await server.api.call('readStandingFill', { params: { listId } })).toBeNull()
    const perBatch = 2_000_000
    await server.api.call('changeStandingFill', { params: { listId }, body: { isOn: true, perBatch, plan } })
    const batch = await bringText(server.api, listId, rowsOf(world.people.slice(10, 30)))
    const jobs = await server.api.call('readJobs', { params: { listId } })
    const fill = jobs.find(({ kind }) => kind === 'fill')
    expect(await untilEnded(server.api, listId, fill?.id ?? '')).toMatchObject({ state: 'done', total: 20 })
    const [run] = await server.sql<{ budget: string; spent: string }>(
      'select budget, spent from fill_runs where list_id = $1',
      [listId],
    )
    expect(Number(run?.budget)).toBe(perBatch)
    expect(Number(run?.spent)).toBeLessThanOrEqual(perBatch)
    const others = await server.sql(
      `select 1 from attempts a join contacts c on c.id = a.contact_id where a.list_id = $1 and c.batch_id <> $2`,
      [listId, batch.id],
    )
    expect(others).toEqual([])

    await server.api.call('changeStandingFill', { params: { listId }, body: { isOn: false, perBatch, plan } })
    await bringText(server.api, listId, rowsOf(world.people.slice(30, 33)))
    expect((await server.sql('select 1 from fill_runs where list_id = $1', [listId])).length).toBe(1)
  })

  it('are brought in all the same where their fill cannot start, and the job says why', async () => {
    const listId = await newList(server.api)
    await server.api.call('changeStandingFill', { params: { listId }, body: { isOn: true, perBatch: 1_000_000, plan } })
    await bringText(server.api, listId, 'name,phone\nMaren Oldershaw,07911 204481\n', { defaultCountry: 'GB' })
    const jobs = await server.api.call('readJobs', { params: { listId } })
    expect(jobs.find(({ kind }) => kind === 'bring-in')).toMatchObject({
      state: 'done',
      result: { rows: 1, fillProblem: 'nobody-wanting' },
    })
    await expect(
      server.api.call('changeStandingFill', {
        params: { listId },
        body: { isOn: true, perBatch: 1, plan: { ...plan, order: ['nobody'] } },
      }),
    ).rejects.toMatchObject({ code: 'unknown-provider' })
  })
})
