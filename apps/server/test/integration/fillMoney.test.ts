import { afterEach, beforeEach, describe, expect, it } from '@jest/globals'
import { signed } from '@upper-field/standins/signed'
import { untilEnded } from '../../../../scripts/bringIn'
import { chargesOf } from './charges'
import { bringText, newList, startTestServer, type TestServer } from './harness'
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

async function listWithoutNumbers(names: readonly string[]): Promise<string> {
  const listId = await newList(server.api)
  const rows = names.map((name, i) => `${name},Company ${i},p${i}@company${i}.example,GB`)
  await bringText(server.api, listId, `name,company,mail,country\n${rows.join('\n')}\n`)
  return listId
}
const fill = (listId: string) =>
  server.api.call('startFill', {
    params: { listId },
    body: { order: ['tansy'], checksLines: true, budget: 20_000_000 },
  })
const charges = () => chargesOf(server)

describe('one number that two people of a fill turn out to have', () => {
  it('is bought once and serves both; the ledger says what the register says', async () => {
    const billed = new Set<string>()
    services = await startOddServices(server, async ({ path, key, body }, response) => {
      if (path === '/tansy/v1/find')
        return answerJson(response, { candidates: [{ number: '+447911204481', score: 80 }] })
      // Both ask at the same time: neither knows what the other is told.
      await new Promise((resolve) => setTimeout(resolve, 50))
      billed.add(key)
      answerJson(response, mobileLine(String(body.number)))
    })
    const listId = await listWithoutNumbers(['Maren Oldershaw', 'Tom Garside', 'Ines Marchetti'])
    const job = await fill(listId)
    const ended = await untilEnded(server.api, listId, job.id)
    const ofRegister = (await charges()).filter(({ provider }) => provider === 'pellow')
    expect(billed.size).toBe(1)
    expect(ofRegister).toMatchObject([{ subject: '+447911204481', amount: '5000' }])
    expect(ofRegister[0]?.attempt_id).not.toBeNull()
    const ofProvider = (await charges()).filter(({ provider }) => provider === 'tansy')
    expect(ofProvider).toHaveLength(3)
    expect(new Set(ofProvider.map(({ attempt_id }) => attempt_id)).size).toBe(3)
    expect(ended.result.spent).toBe(3 * 80_000 + 5000)
    const [run] = await server.sql<{ spent: string; reserved: string }>('select spent, reserved from fill_runs')
    expect(run).toEqual({ spent: String(3 * 80_000 + 5000), reserved: '0' })
  })
})

describe('one odd answer of a provider', () => {
  const ODD: readonly [string, (response: import('node:http').ServerResponse) => void, string][] = [
    ['HTML', (r) => void r.writeHead(200, { 'content-type': 'text/html' }).end('<html>Welcome</html>'), 'odd-answer'],
    ['another shape', (r) => answerJson(r, { candidates: 'none' }), 'odd-answer'],
    ['nothing', (r) => void r.end(), 'odd-answer'],
    ['too much', (r) => void r.end(`{"candidates":[],"x":"${'x'.repeat(200_000)}"}`), 'answer-too-large'],
    ['never an end', (r) => void r.write('{"candidates":'), 'answer-too-late'],
    ['an error', (r) => answerJson(r, {}, 500), 'provider-failed'],
  ]

  it('fails one attempt, with its reason; the others go on, and nobody is asked again', async () => {
    services = await startOddServices(server, ({ path, body }, response) => {
      if (path !== '/tansy/v1/find') return answerJson(response, mobileLine(String(body.number)))
      const { name } = body.person as { name: string }
      const odd = ODD[Number(name.split(' ').at(-1))]
      if (odd) return odd[1](response)
      answerJson(response, { candidates: [{ number: '+44 7911 204\x04481', score: 80 }] })
    })
    const listId = await listWithoutNumbers([...ODD.map((_, i) => `Odd Person ${i}`), 'Maren Oldershaw'])
    const job = await fill(listId)
    expect(await untilEnded(server.api, listId, job.id)).toMatchObject({ state: 'done', result: { found: 1 } })
    const attempts = await server.sql<{ reason: string | null; state: string }>(
      'select a.state, a.reason from attempts a join contacts c on c.id = a.contact_id order by c.row',
    )
    expect(attempts).toEqual([
      ...ODD.map(([, , reason]) => ({ state: 'failed', reason })),
      { state: 'accepted', reason: null },
    ])
    expect((await server.sql<{ reserved: string }>('select reserved from fill_runs'))[0]?.reserved).toBe('0')
    const asked = services.met.length
    await server.api.call('resumeJob', { params: { jobId: job.id } }).catch(() => {})
    expect(services.met.length).toBe(asked)
  })

  it('about a candidate leaves it unchecked; what its provider charged is in the ledger', async () => {
    services = await startOddServices(server, ({ path }, response) => {
      if (path === '/tansy/v1/find')
        return answerJson(response, { candidates: [{ number: '+447911204481', score: 80 }] })
      response.end('<html>')
    })
    const listId = await listWithoutNumbers(['Maren Oldershaw'])
    const job = await fill(listId)
    expect(await untilEnded(server.api, listId, job.id)).toMatchObject({ state: 'done', result: { spent: 80_000 } })
    expect(await server.sql('select outcome from candidates')).toEqual([{ outcome: 'not-checked' }])
    expect(await charges()).toMatchObject([{ provider: 'tansy', amount: '80000' }])
  })

  it('that comes by callback is told where the attempt ends', async () => {
    const callbacks: string[] = []
    services = await startOddServices(server, ({ path, body }, response) => {
      if (path === '/brindle/v1/requests') callbacks.push(String(body.callback))
      answerJson(response, { request: 'taken' })
    })
    const listId = await listWithoutNumbers(['Maren Oldershaw'])
    const job = await server.api.call('startFill', {
      params: { listId },
      body: { order: ['brindle'], checksLines: false, budget: 20_000_000 },
    })
    await until(() => callbacks.length > 0)
    for (const body of [
      '<html>',
      '{"candidates":7}',
      JSON.stringify({ candidates: Array(50).fill({ number: '1', score: 1 }) }),
    ]) {
      const told = await fetch(callbacks[0] ?? '', { method: 'POST', body, headers: signed('key of brindle', body) })
      expect([400, 422]).toContain(told.status)
    }
    expect((await fetch(callbacks[0] ?? '', { method: 'POST', body: 'x'.repeat(2_000_000) })).status).toBe(413)
    expect(await untilEnded(server.api, listId, job.id)).toMatchObject({ state: 'done' })
    expect(await server.sql('select state, reason from attempts')).toEqual([{ state: 'failed', reason: 'odd-answer' }])
  })
})
