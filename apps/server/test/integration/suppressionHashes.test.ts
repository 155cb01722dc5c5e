import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { ApiClient } from '@upper-field/contract'
import { sha256Hex } from '../../src/sha256'
import { bringText, newList, startTestServer, type TestServer } from './harness'
import { until } from './until'

let server: TestServer
let api: ApiClient
let lists: readonly string[]
let register: string
beforeAll(async () => {
  // Two contacts are very many here.
  server = await startTestServer({ MAX_HASHES_AMONG: '1' })
  api = server.api
  const text =
    'name,phone,mail\nMaren Oldershaw,07911 204481,\nTom Garside,,tom@garside.example\nInes Vale,01665 555018,\n'
  lists = [await newList(api, 'One'), await newList(api, 'Other')]
  for (const listId of lists) await bringText(api, listId, text, { defaultCountry: 'GB' })
  register = (await api.call('makeSuppressionList', { body: { name: 'Register', kind: 'register' } })).id
})
afterAll(() => server.stop())

const suppressed = async (listId: string) => {
  const page = await api.call('readContacts', { params: { listId }, query: { filter: 'reason:suppressed' } })
  return page.contacts.map(({ fullName }) => fullName).sort()
}
const add = (lines: readonly string[]) =>
  api.call('addSuppressionEntries', {
    params: { suppressionListId: register },
    body: { text: lines.join('\n'), reason: 'asked' },
  })

describe('hashes among very many contacts', () => {
  it('are looked for by a job in each list, while whoever added them goes on', async () => {
    const added = [
      await add([sha256Hex('+447911204481')]),
      await add([sha256Hex('garside.example'), sha256Hex('nobody')]),
    ]
    expect(added).toMatchObject([
      { added: 1, marked: 0, waiting: 0, areLookedFor: true },
      { added: 2, marked: 0, waiting: 0, areLookedFor: true },
    ])
    for (const listId of lists)
      await until(async () => (await suppressed(listId)).join() === 'Maren Oldershaw,Tom Garside')
  })

  it('are looked for also in a list of which everything was taken back: who comes back is kept out', async () => {
    const listId = await newList(api, 'Taken back')
    const batch = await bringText(api, listId, 'name,phone\nOwen Strand,+447911204499\n')
    const untilIs = (wanted: string) =>
      until(async () => (await api.call('readBatches', { params: { listId } }))[0]?.state === wanted)
    await api.call('takeBatchBack', { params: { batchId: batch.id } })
    await untilIs('taken-back')
    await add([sha256Hex('+447911204499')])
    await until(async () => {
      const jobs = await api.call('readJobs', { params: { listId } })
      return jobs.some(({ kind, state }) => kind === 'mark' && state === 'done')
    })
    await api.call('bringBatchBack', { params: { batchId: batch.id } })
    await untilIs('ready')
    expect(await suppressed(listId)).toEqual(['Owen Strand'])
  })

  it('do not keep what is known by itself from being marked at once', async () => {
    const added = await add(['+441665555018', sha256Hex('somebody else')])
    expect(added).toMatchObject({ marked: 2, waiting: 0 })
    expect(await suppressed(lists[1] ?? '')).toContain('Ines Vale')
  })

  it('let everybody go again at once where they are taken back', async () => {
    const { entries } = await api.call('readSuppressionEntries', { params: { suppressionListId: register } })
    for (const { id } of entries) await api.call('dropSuppressionEntry', { params: { entryId: id } })
    for (const listId of lists) await until(async () => (await suppressed(listId)).length === 0)
  })
})
