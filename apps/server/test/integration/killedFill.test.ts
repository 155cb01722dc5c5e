import { afterAll, describe, expect, it } from '@jest/globals'
import { keysOf, startStandIns } from '@upper-field/standins'
import { createRandom, createWorld } from '@upper-field/standins/world'
import { Client } from 'pg'
import { freePort } from '../../../../scripts/postgres.mjs'
import { bringText, freshDatabase, newList, OWNER, signedIn } from './harness'
import { ended, killAll, makeOwner, startProcess } from './processes'

afterAll(killAll)

const KILLS = 20
const WORLD = { seed: 'killed fills', people: 260 }
const ORDER = ['ferrier', 'quillwort', 'tansy', 'saltmarsh', 'corvane', 'brindle']

describe('a fill whose server is killed again and again', () => {
  it('pays what its providers have booked, to the cent, and asks nobody twice', async () => {
    const keys = keysOf((service) => `key of ${service}`)
    const standIns = await startStandIns({ port: 0, ...WORLD, keys, speed: 20 })
    const databaseUrl = await freshDatabase()
    const port = await freePort()
    const start = () => startProcess(databaseUrl, port, { LATE_ANSWER_SECONDS: '20' })
    let server = await start()
    const url = `http://127.0.0.1:${port}`
    const api = await makeOwner(url)
    for (const [provider, key] of Object.entries(keys))
      await api.call('changeConnection', { params: { provider }, body: { baseUrl: standIns.url, key } })
    const listId = await newList(api)
    const rows = createWorld(WORLD.seed, WORLD).people.map((person) =>
      [
        `${person.given} ${person.family}`,
        person.company.name,
        person.workEmail,
        person.company.place.country,
        `https://${person.profile}`,
      ].join(','),
    )
    await bringText(api, listId, `name,company,mail,country,profile\n${rows.join('\n')}\n`)
    const budget = 60_000_000
    const job = await api.call('startFill', { params: { listId }, body: { order: ORDER, checksLines: true, budget } })

    const db = new Client({ connectionString: databaseUrl })
    await db.connect()
    const one = async (text: string) => Number((await db.query(text)).rows[0].n)
    const random = createRandom('moments')
    let mostSpent = 0
    for (let kill = 0; kill < KILLS; kill++) {
      await new Promise((resolve) => setTimeout(resolve, random.below(700)))
      server.kill('SIGKILL')
      mostSpent = Math.max(mostSpent, await one('select spent + reserved as n from fill_runs'))
      server = await start()
    }
    const again = await signedIn(url, OWNER)
    const jobNow = async () => (await again.call('readJobs', { params: { listId } })).find(({ id }) => id === job.id)
    // So many kills in the same step end the job: a person goes on.
    if ((await jobNow())?.state === 'failed') await again.call('resumeJob', { params: { jobId: job.id } })
    expect(await ended(again, listId, job.id)).toMatchObject({ state: 'done' })

    const booked = (
      await db.query('select provider, sum(amount)::int as total, count(*)::int as count from charges group by 1')
    ).rows
    const theirs = Object.entries(standIns.charged()).filter(([, { count }]) => count > 0)
    expect(booked.sort((a, b) => a.provider.localeCompare(b.provider))).toEqual(
      theirs.map(([provider, { total, count }]) => ({ provider, total, count })),
    )
    expect(
      await one(
        'select count(*) as n from (select 1 from attempts group by contact_id, provider having count(*) > 1) twice',
      ),
    ).toBe(0)
    expect(await one("select count(*) as n from attempts where state = 'waiting'")).toBe(0)
    expect(await one('select reserved as n from fill_runs')).toBe(0)
    expect(await one('select spent as n from fill_runs')).toBe(await one('select sum(amount) as n from charges'))
    expect(mostSpent).toBeLessThanOrEqual(budget)
    await db.end()
    server.kill('SIGKILL')
    await standIns.stop()
  })
})
