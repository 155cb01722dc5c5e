import { createHash } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { List } from '@upper-field/contract'
import { type CellTruth, fairBadges } from '@upper-field/demo'
import type { StandIns } from '@upper-field/standins'
import { createWorld, deliverabilityOf } from '@upper-field/standins/world'
import { sql } from 'drizzle-orm'
import { bringIn, untilEnded } from '../../../../scripts/bringIn'
import { transaction } from '../../src/db/database'
import { reproject } from '../../src/projection/reproject'
import { addDestinations, connectStandIns, newList, startTestServer, type TestServer } from './harness'

const WORLD = { seed: 'path', people: 120 }
let server: TestServer
let standIns: StandIns
let listId: string
const world = createWorld(WORLD.seed, WORLD)
const badges = fairBadges(world, { rows: 200 })

beforeAll(async () => {
  server = await startTestServer()
  standIns = await connectStandIns(server, WORLD)
  listId = await newList(server.api, 'Autumn')
  await bringIn(server.api, listId, badges)
})
afterAll(async () => {
  await server.stop()
  await standIns.stop()
})

const readList = () => server.api.call('readList', { params: { listId } })
const stepOf = (list: List, stage: string) => list.terrace.find((step) => step.stage === stage)?.count ?? -1
const countOf = async (filter: string) =>
  (await server.api.call('readContacts', { params: { listId }, query: { filter, limit: 1 } })).total

/** Everything a person sees of the contacts, but for the order in which the table holds them. */
const snapshot = () =>
  server.sql<Record<string, unknown>>(
    `select c.*, (select json_agg(n order by position) from contact_numbers n where n.contact_id = c.id) as numbers,
  (select json_agg(e order by position) from contact_emails e where e.contact_id = c.id) as emails from contacts c where list_id = $1 order by id`,
    [listId],
  ) // prettier-ignore

async function checkEveryRiser(): Promise<void> {
  const list = await readList()
  list.terrace.forEach((step, i) => {
    const before = list.terrace[i - 1]?.count ?? step.count
    expect([step.stage, step.count]).toEqual([step.stage, step.changes.reduce((sum, { by }) => sum + by, before)])
  })
  for (const { riser, by } of list.terrace.flatMap(({ changes }) => changes)) {
    if (riser === 'held') continue
    expect([riser, await countOf(`fell:${riser}`)]).toEqual([riser, Math.abs(by)])
  }
}

describe('the whole path', () => {
  it('stores every row as it stood', async () => {
    const rows = await server.sql<{ row: number; text: string }>('select row, text from rows order by row')
    const lines = new TextDecoder().decode(badges.bytes).split('\r\n').slice(1, -1)
    expect(rows.map(({ text }) => text)).toEqual(lines)
    expect(rows.map(({ row }) => row)).toEqual(badges.truth.map(({ row }) => row))
  })

  /** Of two readings that compete nobody holds either before a person has chosen. */
  const heldOf = ({ verdict, e164s }: CellTruth): readonly string[] => (verdict === 'doubtful' ? [] : e164s)

  it('reads every number the truth knows', async () => {
    const stored = await server.sql<{ row: number; e164s: string[] | null }>(`
      select c.row, (select array_agg(e164 order by position) from contact_numbers n where n.contact_id = c.id and n.origin = 'row' and is_valid) as e164s
      from contacts c order by row`)
    const byRow = new Map(stored.map(({ row, e164s }) => [row, e164s ?? []]))
    for (const { row, phones } of badges.truth) {
      expect([row, byRow.get(row)]).toEqual([row, [...new Set(phones.flatMap(heldOf))]])
    }
  })

  it('joins nobody to somebody else, and every riser opens what it counts', async () => {
    const joined = await server.sql<{ member: number; survivor: number }>(`
      select m.row as member, s.row as survivor from contacts m join contacts s on s.id = m.joined_into`)
    const personOf = new Map(badges.truth.map(({ row, person }) => [row, person]))
    expect(joined.length).toBeGreaterThan(10)
    expect(joined.filter(({ member, survivor }) => personOf.get(member) !== personOf.get(survivor))).toEqual([])
    expect(joined.every(({ member, survivor }) => survivor < member)).toBe(true)
    await checkEveryRiser()
  })

  it('says what a check costs, asks, and pays each answer once', async () => {
    const estimate = await server.api.call('estimateCheck', { params: { listId } })
    expect(estimate).toMatchObject({ fresh: 0, toAsk: estimate.subjects, most: estimate.subjects * 5000 })
    await expect(
      server.api.call('startCheck', { params: { listId }, body: { filter: '', agreed: estimate.most - 1 } }),
    ).rejects.toMatchObject({ code: 'costs-more' })
    const key = { 'idempotency-key': 'check-once' }
    const input = { params: { listId }, body: { filter: '', agreed: estimate.most } }
    const job = await server.api.call('startCheck', input, key)
    expect(await server.api.call('startCheck', input, key)).toEqual(job)
    expect(await untilEnded(server.api, listId, job.id)).toMatchObject({ state: 'done', done: estimate.toAsk })

    const told = standIns.charged().pellow
    const [ours] = await server.sql<{ total: string; count: string }>(
      'select sum(amount) as total, count(*) as count from charges',
    )
    expect([Number(ours?.total), Number(ours?.count)]).toEqual([told.total, told.count])
    expect(told.total).toBeLessThanOrEqual(estimate.most)
    expect(await server.api.call('estimateCheck', { params: { listId } })).toMatchObject({ fresh: told.count })

    // The same job worked on again asks nothing and books nothing.
    await server.sql(`update line_checks set answered_at = null where job_id = $1`, [job.id])
    await server.sql(`update jobs set state = 'stopped', done = 0, result = '{}' where id = $1`, [job.id])
    await server.api.call('resumeJob', { params: { jobId: job.id } })
    await untilEnded(server.api, listId, job.id)
    expect(standIns.charged().pellow).toEqual(told)
    const [again] = await server.sql<{ total: string }>('select sum(amount) as total from charges')
    expect(Number(again?.total)).toBe(told.total)
  })

  it('keeps the register’s word on the number', async () => {
    const facts = await server.sql<{ e164: string; status: string; line_type: string }>('select * from numbers')
    expect(facts.length).toBeGreaterThan(100)
    for (const { e164, status, line_type } of facts) {
      expect({ e164, status, line_type }).toEqual({
        e164,
        status: world.numberOf(e164)?.status,
        line_type: world.numberOf(e164)?.type,
      })
    }
    await checkEveryRiser()
  })

  it('asks the verifier about addresses, pays what is told, and puts the best one first', async () => {
    const of = 'addresses' as const
    const estimate = await server.api.call('estimateCheck', { params: { listId }, query: { of } })
    expect(estimate).toMatchObject({ fresh: 0, stale: 0, toAsk: estimate.subjects, most: estimate.subjects * 4000 })
    const job = await server.api.call('startCheck', {
      params: { listId },
      body: { of, filter: '', agreed: estimate.most },
    })
    expect(await untilEnded(server.api, listId, job.id)).toMatchObject({
      state: 'done',
      unit: of,
      done: estimate.toAsk,
    })

    const [ours] = await server.sql<{ total: string; count: string }>(
      `select sum(amount) as total, count(*) as count from charges where provider = 'marram'`,
    )
    const told = standIns.charged().marram
    expect([Number(ours?.total), Number(ours?.count)]).toEqual([told.total, told.count])
    const facts = await server.sql<{ address: string; deliverability: string }>('select * from addresses')
    expect(new Set(facts.map(({ deliverability }) => deliverability))).toEqual(
      new Set(['deliverable', 'accept-all', 'undeliverable']),
    )
    for (const { address, deliverability } of facts)
      expect([address, deliverability]).toEqual([address, deliverabilityOf(world, address)])
    // What a host that takes everything was asked about is free, and not asked again.
    const after = await server.api.call('estimateCheck', { params: { listId }, query: { of } })
    expect(after.fresh).toBe(facts.length)

    const worse = await server.sql(`
      select 1 from contact_emails e join addresses f using (address)
      join contact_emails o on o.contact_id = e.contact_id and o.position > e.position join addresses g on g.address = o.address
      where f.deliverability = 'undeliverable' and g.deliverability = 'deliverable'`)
    expect(worse).toEqual([])
    const piles = await server.api.call('readPiles', { params: { listId }, query: { filter: 'address:undeliverable' } })
    const page = await server.api.call('readContacts', {
      params: { listId },
      query: { filter: 'address:undeliverable', limit: 200 },
    })
    expect(page.total).toBe(piles.address.undeliverable)
    expect(new Set(page.contacts.map(({ emailState }) => emailState))).toEqual(new Set(['undeliverable']))
    await checkEveryRiser()
  })

  it('lets answers age as it was set, and asks again only where they are too old', async () => {
    const settings = await server.api.call('readCheckSettings', {})
    await server.sql(`update addresses set checked_at = now() - interval '20 days'`)
    const set = { ...settings.freshDays, deliverable: 10 }
    await server.api.call('changeCheckSettings', { body: { ...settings, freshDays: set } })
    const [{ n }] = (await server.sql<{ n: string }>(
      `select count(*) as n from addresses where deliverability = 'deliverable'`,
    )) as [{ n: string }]
    const aged = await server.api.call('estimateCheck', { params: { listId }, query: { of: 'addresses' } })
    expect(aged.stale).toBe(Number(n))
    await server.api.call('changeCheckSettings', { body: settings })
    const again = await server.api.call('estimateCheck', { params: { listId }, query: { of: 'addresses' } })
    expect(again.stale).toBe(0)
  })

  it('fills missing mobiles within the budget, one provider after the other', async () => {
    const before = await server.api.call('estimateFill', { params: { listId }, query: { order: 'tansy,brindle' } })
    const budget = 6_000_000
    const job = await server.api.call('startFill', {
      params: { listId },
      body: { order: ['tansy', 'brindle'], checksLines: true, budget },
    })
    await expect(
      server.api.call('startFill', { params: { listId }, body: { order: ['tansy'], checksLines: true, budget } }),
    ).rejects.toMatchObject({ code: 'fill-under-way' })
    expect(await untilEnded(server.api, listId, job.id)).toMatchObject({ state: 'done', total: before.wanting })

    const [run] = await server.api.call('readFills', { params: { listId } })
    const [kept] = await server.sql<{ spent: string; reserved: string }>('select spent, reserved from fill_runs')
    expect(kept?.reserved).toBe('0')
    expect(Number(kept?.spent)).toBeLessThanOrEqual(budget)
    expect(run?.found).toBeGreaterThan(5)
    const [charged] = await server.sql<{ total: string }>(
      'select sum(amount) as total from charges where job_id = $1',
      [job.id],
    )
    expect(Number(charged?.total)).toBe(run?.spent)
    const told = standIns.charged()
    const [all] = await server.sql<{ total: string }>('select sum(amount) as total from charges')
    expect(Number(all?.total)).toBe(told.pellow.total + told.marram.total + told.tansy.total + told.brindle.total)

    const found = await server.sql<{ e164: string }>(`select e164 from fills where found_as = 'mobile'`)
    expect(found.map(({ e164 }) => world.numberOf(e164)?.type).filter((type) => type !== 'mobile')).toEqual([])
    // Nobody was asked after somebody had found one.
    const late = await server.sql(`
      select 1 from attempts a join attempts b on b.job_id = a.job_id and b.contact_id = a.contact_id and b.provider = 'brindle'
      where a.provider = 'tansy' and a.state = 'accepted'`)
    expect(late).toEqual([])
    await checkEveryRiser()
  })

  it('puts everybody into one lane', async () => {
    const piles = await server.api.call('readPiles', { params: { listId } })
    const lanes = Object.values(piles.lane).reduce((sum, n) => sum + n, 0)
    expect(lanes).toBe((await readList()).contacts)
    for (const [lane, n] of Object.entries(piles.lane)) expect([lane, await countOf(`lane:${lane}`)]).toEqual([lane, n])
  })

  it('counts facets by whom the words of a filter mean', async () => {
    const sum = (pile: Record<string, number>) => Object.values(pile).reduce((all, n) => all + n, 0)
    const { isEstimate, ...nobody } = await server.api.call('readPiles', {
      params: { listId },
      query: { filter: 'zzzznobody' },
    })
    expect(isEstimate).toBe(false)
    for (const pile of Object.values(nobody)) expect(sum(pile)).toBe(0)
    const { contacts } = await server.api.call('readContacts', { params: { listId }, query: { filter: '' } })
    const word =
      contacts.flatMap(({ fullName }) => fullName.split(' ')).find((one) => /^[A-Z][a-z]{4,}$/.test(one)) ?? ''
    const some = await server.api.call('readPiles', { params: { listId }, query: { filter: word } })
    expect(sum(some.lane)).toBe(await countOf(word))
    // A field does not narrow its own counts.
    const text = await server.api.call('readPiles', { params: { listId }, query: { filter: `lane:text ${word}` } })
    expect(text.lane).toEqual(some.lane)
  })

  it('tells the story of a contact, from its row to its last charge', async () => {
    const [filled] = await server.sql<{ contact_id: string }>(
      `select contact_id from fills f join contacts c on c.id = f.contact_id
       where provider = 'brindle' and c.joined = 0 and c.joined_into is null limit 1`,
    )
    const story = await server.api.call('readStory', { params: { contactId: Number(filled?.contact_id) } })
    const kinds = story.story.map(({ what }) => what.kind)
    expect(kinds[0]).toBe('brought-in')
    expect(kinds).toEqual(expect.arrayContaining(['asked', 'filled', 'placed']))
    expect(story.row.find(({ field }) => field === 'full-name')?.cell).not.toBe('')
    expect(story.numbers.some(({ origin }) => origin === 'fill')).toBe(true)
  })

  it('prepares an audience that holds what it should', async () => {
    await addDestinations(server.api)
    const flight = await server.api.call('preflight', { params: { listId }, query: { destination: 'brassbell' } })
    const missing = flight.missing.reduce((sum, { n }) => sum + n, 0)
    expect(flight.chosen).toBe(flight.ready + missing + flight.nothingToMatch)
    expect(flight.byCount.reduce((sum, n) => sum + n, 0)).toBe(flight.ready)
    const edition = await server.api.call('makeEdition', {
      params: { listId },
      body: { destination: 'brassbell', form: 'hashed', filter: '' },
    })
    await untilEnded(server.api, listId, edition.jobId)
    const [made] = await server.api.call('readEditions', { params: { listId } })
    const response = await server.api.raw('downloadEdition', { params: { editionId: edition.id } })
    const text = await response.text()
    const [heading, ...lines] = text.trimEnd().split('\r\n')
    expect(heading).toBe('mail,mail,mail,line,line,line,given,family,postal,country')
    expect([lines.length, made?.people]).toEqual([flight.ready, flight.ready])
    expect(response.headers.get('content-length')).toBe(String(Buffer.byteLength(text)))
    expect(made?.sha256).toBe(createHash('sha256').update(text).digest('hex'))
    expect(response.headers.get('content-disposition')).toMatch(/autumn-brassbell-hashed-\d{4}-\d\d-\d\d\.csv/)

    const [someone] = await server.sql<{ email: string; number: string }>(
      'select email, number from contacts where email is not null and number is not null and joined_into is null limit 1',
    )
    const line = lines.find((one) =>
      one.startsWith(
        createHash('sha256')
          .update(someone?.email ?? '')
          .digest('hex'),
      ),
    )
    expect(line?.split(',').slice(3, 6)).toContain(
      createHash('sha256')
        .update(someone?.number ?? '')
        .digest('hex'),
    )
    expect(lines.every((one) => /,[A-Z]{2}$/.test(one))).toBe(true)
    expect(text).not.toContain(createHash('sha256').update('').digest('hex'))
    const list = await readList()
    expect(stepOf(list, 'send')).toBe(flight.ready)
    await checkEveryRiser()
  })

  it('gives the same contacts when everything is projected anew', async () => {
    const before = await snapshot()
    await transaction(server.services.pool, async (tx, client) => {
      const { rows } = await tx.execute<{ id: string }>(sql`select id from contacts`)
      await reproject(tx, client, { contacts: rows.map(({ id }) => Number(id)), because: 'changed' })
    })
    expect(await snapshot()).toEqual(before)
    expect(before.length).toBe(200)
  })

  it('finds people by name, company, number and e-mail, and pages without a gap', async () => {
    const [someone] = await server.sql<{ id: string; full_name: string; number: string; email: string }>(
      'select * from contacts where joined_into is null and number is not null and email is not null limit 1',
    )
    for (const word of [someone?.full_name, someone?.number, someone?.email?.split('@')[0]]) {
      const page = await server.api.call('readContacts', { params: { listId }, query: { filter: word ?? '' } })
      expect(page.contacts.map(({ id }) => id)).toContain(Number(someone?.id))
    }
    const [gb] = await server.sql<{ id: string; number: string }>(
      `select id, number from contacts where joined_into is null and number like '+44%' limit 1`,
    )
    const national = `0${gb?.number.slice(3, 7)} ${gb?.number.slice(7)}`
    const home = await server.api.call('readContacts', { params: { listId }, query: { filter: national } })
    expect(home.contacts.map(({ id }) => id)).toContain(Number(gb?.id))
    const seen: number[] = []
    let cursor: string | undefined
    do {
      const page = await server.api.call('readContacts', { params: { listId }, query: { limit: 7, cursor } })
      seen.push(...page.contacts.map(({ id }) => id))
      cursor = page.next ?? undefined
    } while (cursor)
    expect(seen.length).toBe((await readList()).contacts)
    expect(seen).toEqual([...new Set(seen)].sort((a, b) => a - b))
  })

  it('treats a filter as words, never as part of a query', async () => {
    for (const filter of ["'; drop table contacts; --", '%', '_', 'line:"mobile\' or 1=1"', 'is:joined);drop']) {
      expect(await countOf(filter)).toBe(0)
    }
    for (const filter of ["fell:x' or 1=1", 'not is:joined;drop'])
      await expect(countOf(filter)).rejects.toMatchObject({ status: 422, code: 'unknown-value' })
    expect((await readList()).contacts).toBeGreaterThan(0)
  })
})
