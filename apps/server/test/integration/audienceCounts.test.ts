import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import { Client } from 'pg'
import { bringText } from './harness'
import { Sending } from './sending'
import { untilIs } from './until'

let sending: Sending
let id = ''

/** No page waits for counts that are held up. */
const IMPATIENT = { COUNT_SECONDS: '0.05' }

beforeAll(async () => {
  sending = await Sending.start(40, IMPATIENT)
  id = (await sending.makeAudience('brassbell', { name: 'Counted' })).id
  await sending.prepare(id)
  await sending.send(id)
})
afterAll(() => sending.stop())

const counted = () =>
  untilIs(
    () => sending.read(id),
    ({ isBehind }) => !isBehind,
  )

/** Nobody can count who came until these are let go, as where there are a million of them. */
async function holdCounts(): Promise<() => Promise<void>> {
  const client = new Client({ connectionString: sending.server.databaseUrl })
  await client.connect()
  await client.query('begin')
  await client.query('lock table edition_left_out in access exclusive mode')
  return async () => {
    await client.query('rollback')
    await client.end()
  }
}

describe('an audience whose list has changed', () => {
  it('is told at once as it was counted last, and that it is being counted', async () => {
    expect(await counted()).toMatchObject({ people: 40, cameSince: 0, leftSince: 0 })
    const letGo = await holdCounts()
    try {
      await bringText(sending.server.api, sending.listId, sending.csv(40, 50), { name: 'more' })
      expect(await sending.read(id)).toMatchObject({ isBehind: true, people: 40, cameSince: 0 })
      const [told] = await sending.server.api.call('readAudiences', { params: { listId: sending.listId } })
      expect(told).toMatchObject({ isBehind: true, people: 40, cameSince: 0 })
      await expect(sending.server.api.call('readToday', {})).resolves.toBeDefined()
    } finally {
      await letGo()
    }
    expect(await counted()).toMatchObject({ people: 40, cameSince: 10, leftSince: 0 })
  })

  it('is not told by a filter that was changed while it was counted', async () => {
    const { cameSince } = await counted()
    const letGo = await holdCounts()
    try {
      await sending.server.sql('update lists set version = version + 1 where id = $1', [sending.listId])
      expect(await sending.read(id)).toMatchObject({ isBehind: true, cameSince })
      await sending.server.api.call('changeAudience', {
        params: { audienceId: id },
        body: { filter: 'country:XX', isWholeList: false },
      })
    } finally {
      await letGo()
    }
    expect(await counted()).toMatchObject({ cameSince: 0, leftSince: 40 })
  })

  it('is told anew with the next edition', async () => {
    await sending.server.api.call('changeAudience', {
      params: { audienceId: id },
      body: { filter: '', isWholeList: true },
    })
    expect(await counted()).toMatchObject({ cameSince: 10, leftSince: 0 })
    await sending.prepare(id)
    await sending.send(id)
    expect(await counted()).toMatchObject({ people: 50, cameSince: 0, leftSince: 0 })
  })
})

describe('an audience that cannot be counted', () => {
  it('keeps no other from it, and nobody is told that none has to leave', async () => {
    const other = (await sending.makeAudience('brassbell', { name: 'Beside it' })).id
    await sending.prepare(other)
    await sending.send(other)
    const words = Array.from({ length: 13 }, (_, i) => `word${i}`).join(' ')
    const { filter } = await sending.read(id)
    await sending.server.sql('update audiences set filter = $2 where id = $1', [id, words])
    await bringText(sending.server.api, sending.listId, sending.csv(50, 55), { name: 'still more' })
    const told = await untilIs(
      () => sending.read(other),
      ({ isBehind }) => !isBehind,
    )
    expect(told).toMatchObject({ cameSince: 5 })
    expect(await sending.read(id)).toMatchObject({ isBehind: true, cameSince: 0 })
    await expect(sending.server.api.call('deliverRemovals', { params: { audienceId: id } })).rejects.toMatchObject({
      code: 'too-many-words',
    })
    await sending.server.sql('update audiences set filter = $2 where id = $1', [id, filter])
    expect(await counted()).toMatchObject({ cameSince: 5 })
  })
})

describe('an audience that was never sent', () => {
  it('has nobody who came since its last edition, and is not held against its list for that', async () => {
    const { id: fresh } = await sending.makeAudience('brassbell', { name: 'Fresh' })
    const told = await untilIs(
      () => sending.read(fresh),
      ({ isBehind }) => !isBehind,
    )
    expect(told).toMatchObject({ people: 0, cameSince: 0, leftSince: 0, lastEditionAt: null })
  })
})
