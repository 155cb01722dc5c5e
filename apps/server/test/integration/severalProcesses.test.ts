import type { ChildProcess } from 'node:child_process'
import { afterAll, expect, it } from '@jest/globals'
import { type ApiClient, isUnderWay } from '@upper-field/contract'
import { createRandom } from '@upper-field/standins/world'
import { freePort } from '../../../../scripts/postgres.mjs'
import { freshDatabase, newBatch, newList, OWNER, signedIn } from './harness'
import { ended, killAll, makeOwner, startProcess } from './processes'
import { until } from './until'

const ROWS = 8000
afterAll(killAll)

const file = `name,phone,mail\n${Array.from(
  { length: ROWS },
  (_, i) => `Person ${i},+4479112${String(i).padStart(5, '0')},p${i}@causeway.example`,
).join('\n')}\n`

interface Server {
  readonly port: number
  child: ChildProcess
  api: ApiClient
}

it('share one database: either is killed at random, again and again, and the other goes on with its work', async () => {
  const databaseUrl = await freshDatabase({ isEmpty: true })
  const random = createRandom('two processes')
  const [first, second] = [await freePort(), await freePort()]
  const start = (port: number) => startProcess(databaseUrl, port)
  // Both bring the schema up to date at once: one does, the other waits.
  const children = await Promise.all([start(first), start(second)])
  const url = (port: number) => `http://127.0.0.1:${port}`
  const owner = await makeOwner(url(first))
  const servers: readonly Server[] = [
    { port: first, child: children[0], api: owner },
    { port: second, child: children[1], api: await signedIn(url(second), OWNER) },
  ]
  const [one, two] = servers as readonly [Server, Server]
  const listId = await newList(one.api)

  // Announced at one, sent to the other, and looked at from both.
  const batch = await one.api.call('makeBatch', {
    params: { listId },
    body: newBatch({
      name: 'big',
      fileName: 'big.csv',
      bytes: Buffer.byteLength(file),
      headings: ['name', 'phone', 'mail'],
      mapping: ['full-name', 'number', 'email'],
      defaultCountry: 'GB',
    }),
  })
  const sent = await two.api.raw('sendContent', { params: { batchId: batch.id }, body: new TextEncoder().encode(file) })
  const { jobId } = (await sent.json()) as { jobId: string }

  /** Has a job killed at some step of it, whoever is at work; the other is asked until it has ended. */
  const throughAKill = async (jobId: string) => {
    const [gone, other] = random.pick([
      [one, two],
      [two, one],
    ] as const)
    const steps = random.below(3)
    for (let step = 0; step <= steps; step++) {
      const before = await doneOf(other.api, listId)
      await until(async () => (await doneOf(other.api, listId)) !== before || (await isOver(other.api, listId, jobId)))
    }
    const wasOver = await isOver(other.api, listId, jobId)
    gone.child.kill('SIGKILL')
    await new Promise((resolve) => gone.child.once('exit', resolve))
    // Whoever is left answers at once.
    expect((await other.api.call('readList', { params: { listId } })).id).toBe(listId)
    const job = await ended(other.api, listId, jobId)
    expect(job).toMatchObject({ state: 'done' })
    gone.child = await start(gone.port)
    return { job, wasOver }
  }
  const through = [await throughAKill(jobId)]
  const { routine } = await one.api.call('readTidy', { params: { listId } })
  const none = { ...routine, steps: [] }
  for (const next of [none, routine]) {
    const body = { routine: next, name: null }
    const { id } = await random.pick(servers).api.call('applyRoutine', { params: { listId }, body })
    through.push(await throughAKill(id))
  }
  const made = await two.api.call('makeEdition', {
    params: { listId },
    body: { destination: 'people', form: 'people', filter: '' },
  })
  through.push(await throughAKill(made.jobId))
  expect(through[0]?.job?.result).toMatchObject({ rows: ROWS, held: 0 })
  expect(through.at(-1)?.job?.result).toMatchObject({ people: ROWS })
  // Work was cut off, not only waited for.
  expect(through.filter(({ wasOver }) => !wasOver).length).toBeGreaterThan(1)
  const fetched = await one.api.raw('downloadEdition', { params: { editionId: made.id } })
  const lines = (await fetched.text()).trim().split('\r\n')
  expect([lines.length, new Set(lines).size]).toEqual([ROWS + 1, ROWS + 1])

  const told = await Promise.all(
    servers.map(({ api }) => api.call('readPiles', { params: { listId }, query: { filter: '' } })),
  )
  expect(told[0]).toEqual(told[1])
  expect(told[0]?.country).toEqual({ GB: ROWS })
})

/** How far the jobs of a list have come, as a text that changes with each step. */
async function doneOf(api: ApiClient, listId: string): Promise<string> {
  const jobs = await api.call('readJobs', { params: { listId } }).catch(() => [])
  return jobs.map(({ id, state, phase, done }) => `${id} ${state} ${phase} ${done}`).join('\n')
}

async function isOver(api: ApiClient, listId: string, jobId: string): Promise<boolean> {
  const jobs = await api.call('readJobs', { params: { listId } })
  return !isUnderWay(jobs.find(({ id }) => id === jobId) ?? { state: 'queued' })
}
