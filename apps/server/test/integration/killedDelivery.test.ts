import { afterAll, describe, expect, it } from '@jest/globals'
import { networkKeysOf, startStandIns } from '@upper-field/standins'
import { createRandom, createWorld } from '@upper-field/standins/world'
import { Client } from 'pg'
import { freePort } from '../../../../scripts/postgres.mjs'
import { addDestinations, bringText, freshDatabase, newList, OWNER, signedIn } from './harness'
import { ended, killAll, makeOwner, startProcess } from './processes'
import { until } from './until'

afterAll(killAll)

const KILLS = 20
const WORLD = { seed: 'killed deliveries', people: 10, consumers: 620 }
const ACCOUNT = { id: 'bb-4410', name: 'Wrenfold UK' }
/** So few lines in a part make many parts. */
const LINES_OF_PART = 3

describe('a delivery whose server is killed again and again', () => {
  it('leaves at the network every line once, and none twice', async () => {
    const keys = networkKeysOf((network) => `key of ${network}`)
    const standIns = await startStandIns({ port: 0, ...WORLD, keys, speed: 40_000 })
    const databaseUrl = await freshDatabase()
    const port = await freePort()
    const start = () => startProcess(databaseUrl, port)
    let server = await start()
    const api = await makeOwner(`http://127.0.0.1:${port}`)
    await addDestinations(api)
    await api.call('keepDestinationKey', {
      params: { destinationId: 'brassbell' },
      body: { address: standIns.url, key: keys.brassbell },
    })
    const db = new Client({ connectionString: databaseUrl })
    await db.connect()
    await db.query(
      `update destinations set document = jsonb_set(document, '{network,part,most}', '${LINES_OF_PART}') where id = 'brassbell'`,
    )
    const listId = await newList(api)
    const rows = createWorld(WORLD.seed, WORLD).consumers.map(({ given, mobile, personalEmail, place }) =>
      [given, mobile.e164, personalEmail, place.country].join(','),
    )
    await bringText(api, listId, ['first name,phone,mail,country', ...rows].join('\n'))
    const audience = await api.call('makeAudience', {
      params: { listId },
      body: { name: 'Killed', destination: 'brassbell', account: ACCOUNT, isWholeList: true },
    })
    const edition = await api.call('prepareEdition', { params: { audienceId: audience.id } })
    expect(await ended(api, listId, edition.jobId)).toMatchObject({ state: 'done' })
    const delivery = await api.call('deliverEdition', {
      params: { audienceId: audience.id },
      body: { editionId: edition.id, account: ACCOUNT.id },
    })
    const jobId = delivery.jobId ?? ''
    const stateNow = async () => (await db.query('select state from jobs where id = $1', [jobId])).rows[0].state
    const random = createRandom('moments')
    let killed = 0
    for (; killed < KILLS && (await stateNow()) !== 'done'; killed++) {
      await new Promise((resolve) => setTimeout(resolve, random.below(160)))
      server.kill('SIGKILL')
      server = await start()
    }
    // Every kill met the delivery at work.
    expect(killed).toBe(KILLS)
    const again = await signedIn(`http://127.0.0.1:${port}`, OWNER)
    // So many kills in the same step end the job: a person goes on.
    if ((await stateNow()) === 'failed') await again.call('resumeJob', { params: { jobId } })
    await until(async () => (await stateNow()) === 'done')
    const held = standIns.network('brassbell').books()
    expect(held).toHaveLength(1)
    expect(held[0]).toMatchObject({ lines: rows.length, odd: 0 })
    const ours = await db.query("select encode(key, 'hex') as key from audience_members")
    expect(ours.rows.map(({ key }) => key).sort()).toEqual([...(held[0]?.keys ?? [])].sort())
    const told = await again.call('readAudience', { params: { audienceId: audience.id } })
    expect(told.latest).toMatchObject({ state: 'done', added: rows.length, refusedParts: 0 })
    await db.end()
    server.kill('SIGKILL')
    await standIns.stop()
  })
})
