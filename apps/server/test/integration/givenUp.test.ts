import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { ApiClient } from '@upper-field/contract'
import { startTestServer, type TestServer } from './harness'
import { tidiedLists } from './tidiedLists'

type Lists = ReturnType<typeof tidiedLists>
let server: TestServer
let api: ApiClient
let listWith: Lists['listWith']
let state: Lists['state']
let ended: Lists['ended']

beforeAll(async () => {
  server = await startTestServer()
  api = server.api
  ;({ listWith, state, ended } = tidiedLists(api))
})
afterAll(() => server.stop())

describe('a job that ends its process again and again', () => {
  it('is given up after some tries, with what was done kept', async () => {
    const listId = await listWith()
    const { routine } = await state(listId)
    const job = await api.call('applyRoutine', { params: { listId }, body: { routine, name: null } })
    await ended(listId, job)
    // As five crashes in a row would have left it.
    await server.sql(`update jobs set state = 'running', cut_offs = 5, finished_at = null where id = $1`, [job.id])
    expect(await ended(listId, job)).toMatchObject({ state: 'failed', problem: 'cut-off-often' })
  })
})
