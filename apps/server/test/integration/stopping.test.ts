import { spawn } from 'node:child_process'
import { connect } from 'node:net'
import { afterAll, describe, expect, it } from '@jest/globals'
import { Client } from 'pg'
import { freePort } from '../../../../scripts/postgres.mjs'
import { freshDatabase, newBatch, newList } from './harness'
import { environmentOf, killAll, MAIN_OF_SERVER, makeOwner, startProcess } from './processes'
import { until } from './until'

afterAll(killAll)

describe('a server that is told to end', () => {
  it('ends, whatever hangs: uploads that stand still, an event stream, a database that holds a lock', async () => {
    const databaseUrl = await freshDatabase()
    const port = await freePort()
    const server = await startProcess(databaseUrl, port)
    const url = `http://127.0.0.1:${port}`
    const api = await makeOwner(url)
    const listId = await newList(api)
    const batch = await api.call('makeBatch', { params: { listId }, body: newBatch({ bytes: 5_000_000 }) })
    api
      .raw('sendContent', {
        params: { batchId: batch.id },
        body: new ReadableStream({ start: (controller) => controller.enqueue(new Uint8Array(1000).fill(97)) }),
      })
      .catch(() => null)
    await api.raw('watch', {})
    const silent = connect(port, '127.0.0.1')
    silent.on('error', () => {})
    await new Promise((resolve) => silent.once('connect', resolve))
    const blocker = new Client({ connectionString: databaseUrl })
    await blocker.connect()
    await blocker.query('begin; lock table lists in access exclusive mode')
    api.call('readLists').catch(() => null)

    const ended = new Promise<number | null>((resolve) => server.once('exit', resolve))
    server.kill('SIGTERM')
    expect(await ended).toBe(0)
    await blocker.query('rollback')
    await blocker.end()
    silent.destroy()
  })

  it('ends also while its database does not let it begin', async () => {
    const databaseUrl = await freshDatabase()
    const blocker = new Client({ connectionString: databaseUrl })
    await blocker.connect()
    await blocker.query('select pg_advisory_lock(7411)')
    const server = spawn('node', [MAIN_OF_SERVER], { env: environmentOf(databaseUrl, await freePort()) })
    const isWaiting = async () =>
      // Other tests wait for locks of their own in the same cluster.
      (
        await blocker.query(
          `select 1 from pg_locks where locktype = 'advisory' and not granted
             and database = (select oid from pg_database where datname = current_database())`,
        )
      ).rows.length > 0
    await until(isWaiting)
    const ended = new Promise<number | null>((resolve) => server.once('exit', resolve))
    server.kill('SIGTERM')
    expect(await ended).toBe(0)
    await blocker.end()
  })
})
