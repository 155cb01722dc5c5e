import { afterEach, beforeEach, describe, expect, it } from '@jest/globals'
import { ConnectorDocument } from '@upper-field/contract'
import { untilEnded } from '../../../../scripts/bringIn'
import { shippedConnectors } from '../../src/connections/connectors'
import { LOCKS } from '../../src/db/locks'
import { startHttp } from '../../src/startHttp'
import { startJobs } from '../../src/startJobs'
import { chargesOf } from './charges'
import { bringText, newList, OWNER, signedIn, startTestServer, type TestServer } from './harness'
import { answerJson, mobileLine, type OddServices, startOddServices } from './oddServices'
import { until } from './until'

let server: TestServer
let services: OddServices
beforeEach(async () => {
  server = await startTestServer({ ANSWER_SECONDS: '1', MAX_ANSWER_BYTES: '100000' })
})
afterEach(async () => {
  await server.stop()
  await services.stop()
})

async function listOfNumbers(count: number): Promise<string> {
  const listId = await newList(server.api)
  const rows = Array.from({ length: count }, (_, i) => `Person ${i},+4479112${String(4400 + i).padStart(5, '0')}`)
  await bringText(server.api, listId, `name,phone\n${rows.join('\n')}\n`)
  return listId
}
const check = (listId: string) =>
  server.api.call('startCheck', { params: { listId }, body: { filter: '', agreed: 10_000_000 } })
const jobOf = async (listId: string, jobId: string) =>
  (await server.api.call('readJobs', { params: { listId } })).find(({ id }) => id === jobId)
const charges = () => chargesOf(server)

/** A register whose bulk orders are ready when the test says so. */
async function slowRegister() {
  let isReady = false
  const orders = new Map<string, string[]>()
  services = await startOddServices(server, ({ method, path, key, body }, response) => {
    if (method === 'POST') {
      if (!orders.has(key)) orders.set(key, body.numbers as string[])
      return answerJson(response, { id: key, state: 'working', answers: [] })
    }
    const id = decodeURIComponent(path.split('/').at(-1) ?? '')
    const answers = isReady ? (orders.get(id) ?? []).map(mobileLine) : []
    answerJson(response, { id, state: isReady ? 'ready' : 'working', answers })
  })
  return {
    orders,
    isReady: () => {
      isReady = true
    },
  }
}

describe('a line register that takes its time', () => {
  it('is asked once, whatever ends meanwhile: the job comes back for what was ordered', async () => {
    const register = await slowRegister()
    const listId = await listOfNumbers(5)
    const job = await check(listId)
    const isResting = async () => {
      const now = await jobOf(listId, job.id)
      return now?.phase === 'waiting-for-answers' && now.state === 'waiting'
    }
    await until(isResting)
    expect(await jobOf(listId, job.id)).toMatchObject({ done: 0 })
    expect(await server.sql('select 1 from line_checks where answered_at is not null')).toEqual([])

    await server.stop()
    const http = await startHttp(server.services.config)
    const jobs = await startJobs(server.services.config)
    const api = await signedIn(server.url, OWNER)
    register.isReady()
    expect(await untilEnded(api, listId, job.id)).toMatchObject({
      state: 'done',
      done: 5,
      result: { spent: 25_000, unknown: 0 },
    })
    expect(register.orders.size).toBe(1)
    const known = await http.services.pool.query('select line_type from numbers')
    expect(known.rows).toHaveLength(5)
    await jobs.stop()
    server = {
      ...server,
      ...http,
      api,
      sql: async (text, values) => (await http.services.pool.query(text, values)).rows,
    }
  })

  it('is not left with an order that nobody fetches: a job that is to stop fetches it first', async () => {
    const register = await slowRegister()
    const listId = await listOfNumbers(4)
    const job = await check(listId)
    await until(async () => (await jobOf(listId, job.id))?.phase === 'waiting-for-answers')
    await server.api.call('stopJob', { params: { jobId: job.id } })
    await until(() => services.met.filter(({ method }) => method === 'GET').length > 2)
    expect(await jobOf(listId, job.id)).toMatchObject({ state: 'stopping' })
    // Whoever asks what a check would cost now is told that these are on their way.
    expect(await server.api.call('estimateCheck', { params: { listId } })).toMatchObject({ toAsk: 0, most: 0 })
    register.isReady()
    expect(await untilEnded(server.api, listId, job.id)).toMatchObject({ state: 'stopped', result: { spent: 20_000 } })
    expect(await charges()).toHaveLength(4)
    expect(register.orders.size).toBe(1)
  })

  it('has several orders at once, and whoever stops pays for those alone', async () => {
    const register = await slowRegister()
    const listId = await listOfNumbers(1050)
    const job = await check(listId)
    await until(async () => (await jobOf(listId, job.id))?.phase === 'waiting-for-answers')
    expect([...register.orders.values()].map(({ length }) => length)).toEqual([200, 200, 200, 200])
    await server.api.call('stopJob', { params: { jobId: job.id } })
    register.isReady()
    const spent = 800 * 5000
    expect(await untilEnded(server.api, listId, job.id)).toMatchObject({
      state: 'stopped',
      done: 800,
      result: { spent },
    })
    expect(await charges()).toHaveLength(800)
    // What is left is asked about by another check, and nothing twice.
    expect(await untilEnded(server.api, listId, (await check(listId)).id)).toMatchObject({ state: 'done', done: 250 })
    expect(new Set([...register.orders.values()].flat()).size).toBe(1050)
    expect([...register.orders.values()].flat()).toHaveLength(1050)
  })

  it('that refuses an order is asked for nothing more, and what it owes besides is fetched first', async () => {
    const orders = new Map<string, string[]>()
    let isReady = false
    services = await startOddServices(server, ({ method, path, key, body }, response) => {
      if (method === 'POST') {
        const numbers = body.numbers as string[]
        if (numbers.includes('+447911204650')) return answerJson(response, { error: 'not these' }, 422)
        orders.set(key, numbers)
        return answerJson(response, { id: key, state: 'working', answers: [] })
      }
      const id = decodeURIComponent(path.split('/').at(-1) ?? '')
      const answers = isReady ? (orders.get(id) ?? []).map(mobileLine) : []
      answerJson(response, { id, state: isReady ? 'ready' : 'working', answers })
    })
    const listId = await listOfNumbers(1050)
    const job = await check(listId)
    await until(() => services.met.filter(({ method }) => method === 'GET').length > 6)
    expect(await jobOf(listId, job.id)).toMatchObject({
      state: expect.stringMatching(/^(?:running|waiting)$/),
      done: 0,
    })
    isReady = true
    const ended = await untilEnded(server.api, listId, job.id)
    expect(ended).toMatchObject({ state: 'failed', problem: 'question-refused' })
    const owed = [...orders.values()].flat().length
    expect(ended).toMatchObject({ done: owed, result: { spent: owed * 5000 } })
    expect(await charges()).toHaveLength(owed)
  })

  it('that answers nonsense about one number costs that one number alone', async () => {
    services = await startOddServices(server, ({ key, body }, response) => {
      const numbers = body.numbers as string[]
      const answers = numbers.map((number, i) => (i === 1 ? { number, lineType: 'quantum' } : mobileLine(number)))
      answerJson(response, { id: key, state: 'ready', answers })
    })
    const listId = await listOfNumbers(3)
    const job = await check(listId)
    expect(await untilEnded(server.api, listId, job.id)).toMatchObject({
      state: 'done',
      result: { spent: 10_000, unknown: 1 },
    })
  })
})

describe('checks that begin later than they were started', () => {
  /** No check begins before that is done. */
  async function beforeAnyBegins(work: () => Promise<void>): Promise<void> {
    const client = await server.services.pool.connect()
    try {
      await client.query('select pg_advisory_lock($1)', [LOCKS.checks])
      await work()
      await client.query('select pg_advisory_unlock($1)', [LOCKS.checks])
    } finally {
      client.release()
    }
  }
  const isGathering = async (listId: string, jobId: string) => (await jobOf(listId, jobId))?.phase === 'gathering'

  it('of the same numbers buy each of them once: who comes last has nothing left to ask', async () => {
    const register = await slowRegister()
    register.isReady()
    const [one, other] = [await listOfNumbers(4), await listOfNumbers(4)]
    const started = { first: '', second: '' }
    await beforeAnyBegins(async () => {
      started.first = (await check(one)).id
      started.second = (await check(other)).id
      await until(async () => (await isGathering(one, started.first)) && (await isGathering(other, started.second)))
    })
    const ended = [
      await untilEnded(server.api, one, started.first),
      await untilEnded(server.api, other, started.second),
    ]
    expect(ended.map(({ state }) => state)).toEqual(['done', 'done'])
    expect(ended.map(({ total }) => total).sort()).toEqual([0, 4])
    expect(await charges()).toHaveLength(4)
    expect([...register.orders.values()].flat()).toHaveLength(4)
    // Both lists know what was told, whoever has paid for it.
    for (const listId of [one, other]) {
      const { contacts } = await server.api.call('readContacts', { params: { listId } })
      expect(contacts.map(({ lineStatus }) => lineStatus)).toEqual(Array(4).fill('in-service'))
    }
  })

  it('ask nobody where they have become dearer than was agreed to', async () => {
    const register = await slowRegister()
    const listId = await listOfNumbers(3)
    const begun = { jobId: '' }
    await beforeAnyBegins(async () => {
      begun.jobId = (await check(listId)).id
      await until(() => isGathering(listId, begun.jobId))
      await bringText(server.api, listId, 'name,phone\nMaren Oldershaw,+447911204481\n')
    })
    expect(await untilEnded(server.api, listId, begun.jobId)).toMatchObject({ state: 'failed', problem: 'costs-more' })
    expect(register.orders.size).toBe(0)
    expect(await charges()).toEqual([])
    // Nothing is left of it that would keep others from asking.
    expect(await server.api.call('estimateCheck', { params: { listId } })).toMatchObject({ fresh: 0, toAsk: 4 })
  })
})

describe('a line register that is asked about one number at a time', () => {
  /** @param isRefused numbers that it will not be asked about */
  const singleRegister = async (isRefused: (number: string) => boolean) => {
    const answered: string[] = []
    services = await startOddServices(server, ({ body }, response) => {
      const number = String(body.number)
      if (isRefused(number)) return answerJson(response, { error: 'not this one' }, 422)
      answered.push(number)
      answerJson(response, mobileLine(number))
    })
    const pellow = shippedConnectors().find(({ id }) => id === 'pellow')
    const single = ConnectorDocument.parse({ ...pellow, many: null, address: services.url })
    await server.api.call('keepConnector', { params: { provider: 'pellow' }, body: single })
    return answered
  }

  it('is asked once about each', async () => {
    const answered = await singleRegister(() => false)
    const listId = await listOfNumbers(45)
    const ended = await untilEnded(server.api, listId, (await check(listId)).id)
    expect(ended).toMatchObject({ state: 'done', done: 45, result: { spent: 45 * 5000, unknown: 0 } })
    expect(answered).toHaveLength(45)
    expect(new Set(answered).size).toBe(45)
  })

  it('and refuses one has told of others meanwhile: that is kept, and nothing more is asked', async () => {
    const answered = await singleRegister((number) => number === '+447911204405')
    const listId = await listOfNumbers(45)
    const ended = await untilEnded(server.api, listId, (await check(listId)).id)
    expect(ended).toMatchObject({ state: 'failed', problem: 'question-refused' })
    expect(answered.length).toBeLessThan(45)
    expect(ended).toMatchObject({ done: answered.length, result: { spent: answered.length * 5000 } })
    const known = await server.sql<{ e164: string }>('select e164 from numbers order by 1')
    expect(known.map(({ e164 }) => e164)).toEqual(answered.toSorted())
  })
})
