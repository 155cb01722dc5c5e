import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { BodyOf } from '@upper-field/contract'
import { untilEnded } from '../../../../scripts/bringIn'
import { bringText, newList } from './harness'
import { Sending } from './sending'
import { untilIs } from './until'

let sending: Sending

beforeAll(async () => {
  sending = await Sending.start(800)
})
afterAll(() => sending.stop())

describe('a network', () => {
  it('tells its accounts, and what each lacks with what to do about it', async () => {
    const accounts = await sending.server.api.call('readAccounts', { params: { destinationId: 'northpin' } })
    expect(accounts.map(({ name, lacks }) => [name, lacks.map(({ code, stops }) => `${code} ${stops}`)])).toEqual([
      ['Wrenfold UK', []],
      ['Wrenfold DACH', ['exclude-only aiming']],
      ['Wrenfold trials', ['too-new everything']],
    ])
    expect(accounts[2]?.lacks[0]).toMatchObject({ takes: 'about two weeks' })
  })

  it('without a key, or with one it refuses, says so', async () => {
    const params = { destinationId: 'tallow' }
    const put = (key: string) =>
      sending.server.api.call('keepDestinationKey', { params, body: { address: sending.standIns.url, key } })
    await put('another')
    await expect(sending.server.api.call('readAccounts', { params })).rejects.toMatchObject({ code: 'key-refused' })
    await sending.server.api.call('removeDestinationKey', { params })
    await expect(sending.server.api.call('readAccounts', { params })).rejects.toMatchObject({ code: 'no-connection' })
    await put('key-tallow')
    expect(await sending.server.api.call('readAccounts', { params })).toHaveLength(2)
  })
})

describe('an audience', () => {
  it.each(['brassbell', 'northpin', 'tallow'] as const)(
    'is prepared, sent and becomes usable at %s, and the network holds exactly its lines',
    async (network) => {
      const { id } = await sending.makeAudience(network)
      const { difference } = await sending.prepare(id)
      expect(difference).toMatchObject({ comes: 800, leaves: 0, stays: 0, way: 'changes' })
      expect(await sending.send(id)).toMatchObject({ state: 'done', added: 800, removed: 0, refusedParts: 0 })
      const told = await sending.settled(id)
      expect(told).toMatchObject({ state: 'usable', people: 800 })
      expect(sending.booksOf(network, `At ${network}`)).toMatchObject({ lines: 800, odd: 0 })
    },
    60_000,
  )

  it('moves whoever came into it to the lane of a rule that asks for that', async () => {
    const name = 'Some at northpin'
    const keep = (rules: BodyOf<'keepLaneRules'>['rules']) =>
      sending.server.api.call('keepLaneRules', { params: { listId: sending.listId }, body: { rules } })
    const inLane = async () => {
      const { lane } = await sending.server.api.call('readPiles', {
        params: { listId: sending.listId },
        query: { filter: 'lane:reached' },
      })
      return lane.reached ?? 0
    }
    await keep([
      { lane: 'reached', name: 'Reached', use: 'ads', filter: `audience:"${name}"` },
      { lane: 'ads-only', name: 'Ads only', use: 'ads', filter: '' },
    ])
    expect(await inLane()).toBe(0)
    const { id } = await sending.makeAudience('northpin', { name, filter: 'country:GB', isWholeList: false })
    await sending.prepare(id)
    const { added } = await sending.send(id)
    expect(added).toBeGreaterThan(0)
    expect(await inLane()).toBe(added)
    await keep(null)
  })

  it('of companies is replaced whole, and people are kept inside it', async () => {
    const companies = await newList(sending.server.api, 'Companies')
    const rows = sending.world.people
      .slice(0, 400)
      .map(({ company, workEmail }) => [company.name, company.domain, workEmail, company.place.country].join(','))
    await bringText(sending.server.api, companies, ['company,web,mail,country', ...rows].join('\n'), {})
    const before = sending.listId
    sending.listId = companies
    try {
      const body = { name: 'Garden centres', takes: 'companies' as const }
      const outer = await sending.makeAudience('marlpost', body)
      const inner = await sending.makeAudience('marlpost', { name: 'Buyers', within: outer.id })
      await sending.prepare(inner.id)
      expect(await sending.send(inner.id)).toMatchObject({
        state: 'refused',
        refusal: { code: 'outer-audience-not-sent' },
      })
      const { difference } = await sending.prepare(outer.id)
      expect(difference?.way).toBe('whole')
      await sending.send(outer.id)
      expect(await sending.settled(outer.id)).toMatchObject({ people: difference?.people })
      expect(sending.booksOf('marlpost', 'Garden centres').lines).toBe(difference?.people)
      await sending.prepare(inner.id)
      expect(await sending.send(inner.id)).toMatchObject({ state: 'done' })
      expect(await sending.settled(inner.id)).toMatchObject({ state: 'usable' })
    } finally {
      sending.listId = before
    }
  })

  it('is refused for an account that lacks something before anything is sent', async () => {
    const account = { id: 'bb-1002', name: 'Wrenfold before 2024' }
    const { id } = await sending.makeAudience('brassbell', { name: 'Unpaid', account })
    const { difference } = await sending.prepare(id)
    const body = { editionId: difference?.editionId ?? '', account: account.id }
    await expect(sending.server.api.call('deliverEdition', { params: { audienceId: id }, body })).rejects.toMatchObject(
      {
        code: 'account-lacks',
        message: expect.stringContaining('no way to pay'),
      },
    )
    await expect(
      sending.server.api.call('deliverEdition', { params: { audienceId: id }, body: { ...body, account: 'bb-4410' } }),
    ).rejects.toMatchObject({ code: 'other-account' })
    expect(
      sending.standIns
        .network('brassbell')
        .books()
        .some(({ name }) => name === 'Unpaid'),
    ).toBe(false)
  })

  it('may exclude where its account may not aim', async () => {
    const account = { id: '70-305', name: 'Wrenfold DACH' }
    const aims = await sending.makeAudience('northpin', { name: 'Aims', account })
    const { difference } = await sending.prepare(aims.id)
    const body = { editionId: difference?.editionId ?? '', account: account.id }
    await expect(
      sending.server.api.call('deliverEdition', { params: { audienceId: aims.id }, body }),
    ).rejects.toMatchObject({
      code: 'account-lacks',
    })
    const excludes = await sending.makeAudience('northpin', { name: 'Excludes', account, purpose: 'exclude' })
    await sending.prepare(excludes.id)
    expect(await sending.send(excludes.id)).toMatchObject({ state: 'done' })
  })

  it('that would choose everybody has to be meant', async () => {
    const asked = sending.makeAudience('brassbell', { name: 'Slip', isWholeList: false })
    await expect(asked).rejects.toMatchObject({ code: 'whole-list' })
    await expect(sending.makeAudience('brassbell', { filter: 'country:XX', isWholeList: false })).resolves.toBeTruthy()
  })

  it('below the minimum that is matched is refused there, in its words, with what to do', async () => {
    const { id } = await sending.makeAudience('tallow', { name: 'Few', filter: 'country:GB', isWholeList: false })
    await sending.prepare(id)
    await sending.send(id)
    expect(await sending.settled(id)).toMatchObject({
      state: 'refused',
      refusal: { code: 'too-few-matched', says: 'Fewer people were matched than it wants.' },
    })
  })
})

describe('a later edition', () => {
  it('sends only who came and who left, and is refused where nothing has changed', async () => {
    const own = await newList(sending.server.api, 'Growing')
    const before = sending.listId
    sending.listId = own
    try {
      await bringText(sending.server.api, own, sending.csv(0, 50))
      const { id } = await sending.makeAudience('brassbell', { name: 'Growing' })
      await sending.prepare(id)
      await sending.send(id)
      await sending.prepare(id)
      await expect(sending.send(id)).rejects.toMatchObject({ code: 'nothing-to-send' })
      await bringText(sending.server.api, own, sending.csv(50, 60), { name: 'more' })
      expect(await sending.read(id)).toMatchObject({ cameSince: 10, leftSince: 0 })
      expect((await sending.prepare(id)).difference).toMatchObject({ comes: 10, leaves: 0, stays: 50, changed: 0 })
      expect(await sending.send(id)).toMatchObject({ added: 10, removed: 0 })
      expect(sending.booksOf('brassbell', 'Growing')).toMatchObject({ lines: 60, odd: 0 })
      // Somebody gets another name: the line that was goes out, and the new one in.
      const { contacts } = await sending.server.api.call('readContacts', {
        params: { listId: own },
        query: { limit: 1 },
      })
      const edits = [{ contactId: contacts[0]?.id ?? 0, column: 'family-name', value: 'Elsewise' }]
      await sending.server.api.call('makeEdits', { params: { listId: own }, body: { edits } })
      expect((await sending.prepare(id)).difference).toMatchObject({ comes: 1, leaves: 1, changed: 1, stays: 59 })
      expect(await sending.send(id)).toMatchObject({ added: 1, removed: 1 })
      expect(sending.booksOf('brassbell', 'Growing')).toMatchObject({ lines: 60, odd: 0 })
    } finally {
      sending.listId = before
    }
  })

  it('leaves out whoever said no after it was prepared; whoever is in it leaves by a delivery of removals', async () => {
    const own = await newList(sending.server.api, 'Saying no')
    const before = sending.listId
    sending.listId = own
    try {
      await bringText(sending.server.api, own, sending.csv(800, 860))
      const { id } = await sending.makeAudience('brassbell', { name: 'Saying no' })
      await sending.prepare(id)
      const no = await sending.server.api.call('makeSuppressionList', { body: { name: 'No', kind: 'opt-outs' } })
      const say = (at: number) =>
        sending.server.api.call('addSuppressionEntries', {
          params: { suppressionListId: no.id },
          body: { text: sending.world.consumers[at]?.personalEmail ?? '', reason: 'said so' },
        })
      await say(800)
      expect((await sending.read(id)).difference).toMatchObject({ people: 60, suppressedSince: 1 })
      expect(await sending.send(id)).toMatchObject({ added: 59 })
      await say(801)
      await say(802)
      const [told] = await sending.server.api.call('readAudiences', { params: { listId: sending.listId } })
      expect(told).toMatchObject({ people: 59, owedRemovals: 2 })
      const removal = await sending.server.api.call('deliverRemovals', { params: { audienceId: id } })
      await untilEnded(sending.server.api, sending.listId, removal.jobId ?? '')
      expect(await sending.read(id)).toMatchObject({
        people: 57,
        owedRemovals: 0,
        latest: { way: 'removals', removed: 2 },
      })
      expect(sending.booksOf('brassbell', 'Saying no')).toMatchObject({ lines: 57, odd: 0 })
      await expect(sending.server.api.call('deliverRemovals', { params: { audienceId: id } })).rejects.toMatchObject({
        code: 'nothing-to-send',
      })
    } finally {
      sending.listId = before
    }
  })
})

describe('a trial', () => {
  it('tells how many were matched, by its reach', async () => {
    const { id } = await sending.makeAudience('northpin', { name: 'Tried' })
    await expect(
      sending.server.api.call('startTrial', { params: { audienceId: id }, body: { daily: 10, days: 1 } }),
    ).rejects.toMatchObject({ code: 'not-usable' })
    await sending.prepare(id)
    await sending.send(id)
    await sending.settled(id)
    await sending.server.api.call('startTrial', { params: { audienceId: id }, body: { daily: 10, days: 1 } })
    const told = await untilIs(
      () => sending.read(id),
      ({ trials }) => trials[0]?.state === 'over',
    )
    const truly = sending.booksOf('northpin', 'Tried').matched
    const inferred = told.trials[0]?.inferred
    expect(inferred?.low).toBeLessThanOrEqual(truly)
    expect(inferred?.high).toBeGreaterThanOrEqual(truly)
  })
})

describe('similar people', () => {
  it('are an audience of their own that the network makes', async () => {
    const board = await sending.server.api.call('readAudiences', { params: { listId: sending.listId } })
    const seed = board.find(({ name, state }) => name === 'At brassbell' && state === 'usable')
    const similar = await sending.server.api.call('makeSimilar', {
      params: { audienceId: seed?.id ?? '' },
      body: { country: 'GB', closeness: 3, name: 'Like home owners' },
    })
    expect(similar).toMatchObject({ similarTo: { audienceId: seed?.id, country: 'GB', closeness: 3 } })
    await expect(
      sending.server.api.call('prepareEdition', { params: { audienceId: similar.id } }),
    ).rejects.toMatchObject({
      code: 'made-there',
    })
    expect(await sending.settled(similar.id)).toMatchObject({ state: 'usable' })
  })
})

describe('the audiences of an archived list', () => {
  it('cost nothing more and are not changed; who says no is still taken out', async () => {
    const { id } = await sending.makeAudience('brassbell', { name: 'Laid aside' })
    const { api } = sending.server
    const archive = (archived: boolean) =>
      api.call('changeList', { params: { listId: sending.listId }, body: { archived } })
    await archive(true)
    try {
      const params = { audienceId: id }
      for (const call of [
        () => api.call('startTrial', { params, body: { daily: 10, days: 1 } }),
        () => api.call('makeSimilar', { params, body: { country: 'GB', closeness: 3, name: 'Alike' } }),
        () => api.call('changeAudience', { params, body: { refreshDays: 30 } }),
        () => api.call('prepareEdition', { params }),
      ])
        await expect(call()).rejects.toMatchObject({ code: 'list-archived' })
      await expect(api.call('deliverRemovals', { params })).rejects.toMatchObject({ code: 'nothing-to-send' })
    } finally {
      await archive(false)
    }
  })
})

describe('an audience that is taken away', () => {
  it('is not while it is being sent', async () => {
    const { id } = await sending.makeAudience('brassbell', { name: 'Under way' })
    await sending.server.sql("insert into deliveries (audience_id, way) values ($1, 'changes')", [id])
    const remove = () => sending.server.api.call('removeAudience', { params: { audienceId: id } })
    await expect(remove()).rejects.toMatchObject({ code: 'delivery-under-way' })
    await sending.server.sql("update deliveries set state = 'stopped' where audience_id = $1", [id])
    await expect(remove()).resolves.toEqual({})
  })

  it('leaves the network too', async () => {
    const board = await sending.server.api.call('readAudiences', { params: { listId: sending.listId } })
    const one = board.find(({ name }) => name === 'At tallow')
    await sending.server.api.call('removeAudience', { params: { audienceId: one?.id ?? '' } })
    expect(
      sending.standIns
        .network('tallow')
        .books()
        .some(({ name }) => name === 'At tallow'),
    ).toBe(false)
    await expect(sending.read(one?.id ?? '')).rejects.toMatchObject({ status: 404 })
  })
})

describe('a destination', () => {
  const forget = () => sending.server.api.call('removeDestination', { params: { destinationId: 'marlpost' } })
  const keys = async () =>
    (await sending.server.api.call('readDestinationKeys', {})).map(({ destination }) => destination)

  it('is not forgotten while audiences are there, and goes with its key when they are gone', async () => {
    await sending.server.sql("update audiences set removed_at = now() where destination = 'marlpost'")
    const made = [
      await sending.makeAudience('marlpost', { name: 'One there' }),
      await sending.makeAudience('marlpost', { name: 'Another there' }),
    ]
    await expect(forget()).rejects.toMatchObject({ status: 409, code: 'has-audiences' })
    await expect(forget()).rejects.toThrow(/^2 audiences are at Marlpost\. Take them away first/)
    expect(await keys()).toContain('marlpost')
    for (const { id } of made) await sending.server.api.call('removeAudience', { params: { audienceId: id } })
    await forget()
    expect(await keys()).not.toContain('marlpost')
    await expect(forget()).rejects.toMatchObject({ status: 404 })
  })
})
