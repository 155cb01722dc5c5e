import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { ContactTrail } from '@upper-field/contract'
import type { StandIns } from '@upper-field/standins'
import { createWorld } from '@upper-field/standins/world'
import { untilEnded } from '../../../../scripts/bringIn'
import { bringText, connectStandIns, newList, startTestServer, type TestServer } from './harness'
import { holdList } from './holdList'

const WORLD = { seed: 'trails', people: 90 }
const world = createWorld(WORLD.seed, WORLD)
const ORDER = ['quillwort', 'brindle', 'corvane']
let server: TestServer
let standIns: StandIns
let listId = ''

beforeAll(async () => {
  server = await startTestServer({ LOCK_SECONDS: '2' })
  standIns = await connectStandIns(server, WORLD)
  listId = await newList(server.api)
  const rows = world.people.map(
    ({ given, family, company, workEmail, profile }) =>
      `${given} ${family},${company.name},${workEmail},${company.place.country},https://${profile}`,
  )
  await bringText(server.api, listId, `name,company,mail,country,profile\n${rows.join('\n')}\n`)
  const body = { order: ORDER, checksLines: true, budget: 900_000_000 }
  const job = await server.api.call('startFill', { params: { listId }, body })
  expect((await untilEnded(server.api, listId, job.id)).state).toBe('done')
})
afterAll(async () => {
  await server.stop()
  await standIns.stop()
})

const read = (query: { filter?: string; foundBy?: string; because?: string; cursor?: string; limit?: number } = {}) =>
  server.api.call('readTrail', { params: { listId }, query })
const course = async (contactId: number): Promise<ContactTrail> => {
  const trail = await server.api.call('readContactTrail', { params: { contactId } })
  if (!trail) throw new Error('nothing was asked')
  return trail
}
const charged = () => Object.values(standIns.charged()).reduce((sum, { total }) => sum + total, 0)
const booked = async () => Number((await server.sql<{ n: string }>('select sum(amount) as n from charges'))[0]?.n)

describe('the trail', () => {
  it('tells the course of every contact, page by page, each once', async () => {
    const seen: number[] = []
    let cursor: string | null | undefined
    do {
      const page = await read({ limit: 40, ...(cursor ? { cursor } : {}) })
      expect(page?.total).toBe(90)
      seen.push(...(page?.lines.map(({ contactId }) => contactId) ?? []))
      cursor = page?.next
    } while (cursor)
    expect(new Set(seen).size).toBe(90)
    expect(seen).toHaveLength(90)
  })

  it('shows who was asked in the order in which they were, what was taken and what it cost', async () => {
    const page = await read({ limit: 200 })
    const cost = page?.lines.reduce((sum, line) => sum + line.cost, 0)
    expect(cost).toBe(await booked())
    for (const { steps, state, taken } of page?.lines ?? []) {
      const asked = steps.map(({ provider }) => provider)
      expect(asked).toEqual(ORDER.filter((provider) => asked.includes(provider)))
      expect(steps.findIndex((step) => step.state === 'accepted')).toBe(state === 'found' ? steps.length - 1 : -1)
      expect(taken.some(({ foundAs }) => foundAs === 'mobile')).toBe(state === 'found')
    }
  })

  it('counts by whom something was found and why it was set aside, and opens just those', async () => {
    const page = await read()
    for (const [provider, n] of Object.entries(page?.foundBy ?? {}))
      expect([provider, (await read({ foundBy: provider }))?.total]).toEqual([provider, n])
    for (const [reason, n] of Object.entries(page?.because ?? {}))
      expect([reason, (await read({ because: reason }))?.total]).toEqual([reason, n])
    expect(Object.keys(page?.because ?? {}).length).toBeGreaterThan(1)
  })
})

describe('what each provider gave', () => {
  it('costs together what was spent, checks included, and by country no less', async () => {
    const fills = (country?: string) =>
      server.api.call('readFills', { params: { listId }, query: country ? { country } : {} })
    const [run] = await fills()
    const sum = (of: typeof run, key: 'cost' | 'asked' | 'accepted') =>
      (of?.providers ?? []).reduce((all, one) => all + one[key], 0)
    expect(sum(run, 'cost')).toBe(run?.spent)
    const countries = [...new Set(world.people.map(({ company }) => company.place.country))]
    const parts = await Promise.all(countries.map(async (country) => (await fills(country))[0]))
    const usable = await server.api.call('readUsable', {})
    expect(usable.reduce((all, { amount }) => all + amount, 0)).toBe(run?.spent)
    expect(usable.reduce((all, one) => all + one.usable, 0)).toBe(sum(run, 'accepted'))
    for (const key of ['cost', 'asked', 'accepted'] as const)
      expect(parts.reduce((all, part) => all + sum(part, key), 0)).toBe(sum(run, key))
  })
})

describe('the course of somebody who was joined to another since', () => {
  it('stays, and is chosen with whom they are joined to', async () => {
    const [kept, gone] = (await read({ foundBy: 'quillwort' }))?.lines ?? []
    if (!kept || !gone) throw new Error('two were not found')
    const number = kept.taken.find(({ foundAs }) => foundAs === 'mobile')?.value ?? ''
    const edits = [
      { contactId: gone.contactId, column: 'full-name', value: kept.fullName },
      { contactId: gone.contactId, column: 'number', value: number },
    ]
    await server.api.call('makeEdits', { params: { listId }, body: { edits } })
    const { contact } = await server.api.call('readStory', { params: { contactId: gone.contactId } })
    expect(contact.joinedInto).toBe(kept.contactId)
    expect((await read())?.total).toBe(90)
    const chosen = await read({ filter: `name="${kept.fullName}"` })
    expect(chosen?.lines.map(({ contactId }) => contactId)).toEqual([kept.contactId, gone.contactId])
  })
})

describe('the course of one contact', () => {
  it('says why somebody was not asked', async () => {
    const found = (await read({ foundBy: 'quillwort' }))?.lines[0]
    const { steps, state } = await course(found?.contactId ?? 0)
    expect(state).toBe('found')
    expect(steps.map(({ notAsked }) => notAsked)).toEqual([null, 'ended-before', 'ended-before'])
    expect(steps[2]?.mayAsk).toBeGreaterThan(0)
  })

  it('gives what was set aside on a person’s word, charges what that costs, and takes it out again', async () => {
    const aside = (await read({ because: 'out-of-service', limit: 200 }))?.lines ?? []
    const all = await Promise.all(aside.map(async ({ contactId }) => ({ contactId, ...(await course(contactId)) })))
    const options = all.flatMap(({ contactId, steps }) =>
      steps.flatMap(({ attempt }) =>
        (attempt?.candidates ?? []).flatMap((candidate) =>
          candidate.outcome === 'out-of-service' && candidate.mayTake !== null
            ? [{ contactId, attemptId: attempt?.id ?? '', candidate }]
            : [],
        ),
      ),
    )
    const paid = options.find(({ candidate }) => (candidate.mayTake ?? 0) > 0) ?? options[0]
    if (!paid?.candidate.value) throw new Error('nothing was set aside')
    const { contactId, attemptId, candidate } = paid
    const params = { attemptId, position: candidate.position }
    const price = candidate.mayTake ?? 0
    const before = charged()
    if (price > 0)
      await expect(server.api.call('takeCandidate', { params, body: { agreed: price - 1 } })).rejects.toMatchObject({
        code: 'costs-more',
      })
    if (price > 0) {
      // What the month does not allow is refused before the provider charges it.
      const { spent } = await server.api.call('readSpendMonth')
      await server.api.call('changeSpendLimit', { body: { limit: Math.max(1, spent) } })
      await expect(server.api.call('takeCandidate', { params, body: { agreed: price } })).rejects.toMatchObject({
        code: 'month-is-spent',
      })
      await server.api.call('changeSpendLimit', { body: { limit: null } })
      expect([charged(), await booked()]).toEqual([before, before])
      // Nor does it where the list is busy.
      const letGo = await holdList(server, listId)
      await expect(server.api.call('takeCandidate', { params, body: { agreed: price } })).rejects.toMatchObject({
        code: 'list-busy',
      })
      await letGo()
      expect([charged(), await booked()]).toEqual([before, before])
    }
    const twice = await Promise.allSettled(
      [0, 1].map(() => server.api.call('takeCandidate', { params, body: { agreed: price } })),
    )
    expect(twice.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
    expect(charged() - before).toBe(price)
    expect(await booked()).toBe(charged())
    const story = await server.api.call('readStory', { params: { contactId } })
    expect(story.numbers.map(({ e164 }) => e164)).toContain(candidate.value)
    await expect(server.api.call('takeCandidate', { params, body: { agreed: price } })).rejects.toMatchObject({
      code: 'known-already',
    })

    const fact = story.story
      .map(({ what }) => what)
      .find((what) => what.kind === 'filled' && what.value === candidate.value)
    if (fact?.kind !== 'filled') throw new Error('the story does not tell it')
    await server.api.call('takeFillBack', { params: { fillId: fact.fillId } })
    const after = await server.api.call('readStory', { params: { contactId } })
    expect(after.numbers.map(({ e164 }) => e164)).not.toContain(candidate.value)
    expect(await booked()).toBe(charged())
    await expect(server.api.call('takeFillBack', { params: { fillId: fact.fillId } })).rejects.toMatchObject({
      status: 404,
    })
  })

  it('can be gone on with alone, at a price said first', async () => {
    const nobody = (await read({ limit: 200 }))?.lines.find(({ state }) => state === 'not-found')
    const contactId = nobody?.contactId ?? 0
    const estimate = await server.api.call('estimateFill', {
      params: { listId },
      query: { order: 'saltmarsh', contactId },
    })
    expect(estimate.wanting).toBe(1)
    const body = { order: ['saltmarsh'], checksLines: true, budget: estimate.most, notAgainDays: 0, contactId }
    const job = await server.api.call('startFill', { params: { listId }, body })
    expect(await untilEnded(server.api, listId, job.id)).toMatchObject({ state: 'done', total: 1 })
    expect(await booked()).toBe(charged())
    expect((await course(contactId)).steps.map(({ provider }) => provider)).toEqual(['saltmarsh'])
  })
})

describe('trying some first', () => {
  it('tells of the others what can be told, with a range', async () => {
    const other = await newList(server.api)
    const rows = world.people.map(
      ({ given, family, company }) => `${given} ${family},${company.name},${company.place.country}`,
    )
    await bringText(server.api, other, `name,company,country\n${rows.join('\n')}\n`)
    const body = { order: ['corvane'], checksLines: true, budget: 900_000_000, sample: 30 }
    const job = await server.api.call('startFill', { params: { listId: other }, body })
    await untilEnded(server.api, other, job.id)
    const [run] = await server.api.call('readFills', { params: { listId: other } })
    const { usable, cost, contacts } = run?.rest ?? { usable: { value: 0, low: 0, high: 0 }, cost: null, contacts: 0 }
    expect(contacts).toBe(60)
    expect(usable.value).toBe(Math.round(((run?.found ?? 0) * 60) / 30))
    expect(usable.low).toBeLessThanOrEqual(usable.value)
    expect(usable.high).toBeGreaterThanOrEqual(usable.value)
    expect(cost?.value).toBe(Math.round(((run?.spent ?? 0) * 60) / 30))
  })
})
