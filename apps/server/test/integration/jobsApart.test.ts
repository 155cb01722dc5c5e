import type { ChildProcess } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { afterAll, describe, expect, it } from '@jest/globals'
import { sourceOfBytes } from '@upper-field/files'
import { announce, bringIn, send } from '../../../../scripts/bringIn'
import { freePort } from '../../../../scripts/postgres.mjs'
import { freshDatabase, newList } from './harness'
import { ended, killAll, makeOwner, startProcess } from './processes'
import { until } from './until'

afterAll(killAll)

const ROWS = 6000

const lines = Array.from({ length: ROWS }, (_, i) => `Person ${i},+4479113${String(i).padStart(5, '0')}\n`)
const FILE = { name: 'people.csv', bytes: Buffer.from(`name,phone\n${lines.join('')}`) }

async function startServer(more: Record<string, string> = {}) {
  const port = await freePort()
  const server = await startProcess(await freshDatabase({ isEmpty: true }), port, more)
  const api = await makeOwner(`http://127.0.0.1:${port}`)
  return { server, api, listId: await newList(api) }
}

/** The processes that a server has started: where jobs are worked on. */
const startedBy = ({ pid }: ChildProcess): number[] =>
  readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').split(' ').filter(Boolean).map(Number)

async function jobsOf(server: ChildProcess): Promise<number> {
  await until(() => startedBy(server).length === 1)
  return startedBy(server)[0] ?? 0
}

function isThere(pid: number): boolean {
  try {
    process.kill(pid, 0)
    return true
  } catch {
    return false
  }
}

describe('the process that works on jobs', () => {
  it('may be killed: the server answers all the while, and the work is done by another', async () => {
    const { server, api, listId } = await startServer()
    const batch = await announce(api, listId, { name: FILE.name, source: sourceOfBytes(FILE.bytes) })
    const jobId = await send(api, batch.id, FILE)
    // It was taken up.
    await until(async () => (await api.call('readJobs', { params: { listId } }))[0]?.startedAt !== null)
    const killed = await jobsOf(server)
    process.kill(killed, 'SIGKILL')
    await until(() => !isThere(killed))
    expect((await api.call('readList', { params: { listId } })).id).toBe(listId)
    expect(await ended(api, listId, jobId)).toMatchObject({ state: 'done', result: { rows: ROWS, held: 0 } })
    expect(server.exitCode).toBeNull()
    expect(await jobsOf(server)).not.toBe(killed)
  })

  it('may be killed again and again, also before it has begun', async () => {
    const { server, api, listId } = await startServer()
    for (let i = 0; i < 3; i++) {
      const killed = await jobsOf(server)
      process.kill(killed, 'SIGKILL')
      await until(() => !isThere(killed))
    }
    expect(await bringIn(api, listId, FILE)).toMatchObject({ state: 'ready', rows: ROWS })
    expect(server.exitCode).toBeNull()
  })

  it('gives memory back by ending once nothing is to be done, and what comes then is done by another', async () => {
    const { server, api, listId } = await startServer({ JOBS_GROWTH_MB: '20' })
    const grown = await jobsOf(server)
    await bringIn(api, listId, FILE)
    await until(() => !isThere(grown))
    expect(await jobsOf(server)).not.toBe(grown)
    const [batch] = await api.call('readBatches', { params: { listId } })
    expect(batch).toMatchObject({ state: 'ready', rows: ROWS })
    const next = await api.call('takeBatchBack', { params: { batchId: batch?.id ?? '' } })
    expect(await ended(api, listId, next.jobId ?? '')).toMatchObject({ state: 'done' })
    expect(server.exitCode).toBeNull()
  })

  it('ends with its server, whose end it could not hear yet', async () => {
    const databaseUrl = await freshDatabase({ isEmpty: true })
    for (let i = 0; i < 5; i++) {
      const server = await startProcess(databaseUrl, await freePort())
      const jobs = await jobsOf(server)
      server.kill('SIGKILL')
      await until(() => !isThere(jobs))
      expect(isThere(jobs)).toBe(false)
    }
  })

  it.each(['SIGTERM', 'SIGKILL'] as const)('ends with its server, which a %s ends', async (signal) => {
    const { server } = await startServer()
    const jobs = await jobsOf(server)
    server.kill(signal)
    await until(() => !isThere(jobs))
    expect(isThere(jobs)).toBe(false)
  })
})
