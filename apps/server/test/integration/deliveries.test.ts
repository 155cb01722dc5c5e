import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import type { Audience, AudienceDetail, BodyOf, Delivery } from '@upper-field/contract'
import type { StandIns } from '@upper-field/standins'
import { createWorld } from '@upper-field/standins/world'
import { untilEnded } from '../../../../scripts/bringIn'
import { bringText, connectNetworks, newList, startTestServer, type TestServer } from './harness'
import { untilIs } from './until'

const WORLD = { seed: 'deliveries', people: 400, consumers: 1000 }
const world = createWorld(WORLD.seed, WORLD)
let server: TestServer
let standIns: StandIns
let listId = ''

const csv = (from: number, to: number): string =>
  [
    'first name,last name,phone,mail,country,zip',
    ...world.consumers
      .slice(from, to)
      .map(({ given, family, mobile, personalEmail, place, postalCode }) =>
        [given, family, mobile.e164, personalEmail, place.country, postalCode].join(','),
      ),
  ].join('\n')

beforeAll(async () => {
  server = await startTestServer()
  standIns = await connectNetworks(server, WORLD)
  listId = await newList(server.api, 'Home owners')
  await bringText(server.api, listId, csv(0, 800))
})
afterAll(async () => {
  await standIns.stop()
  await server.stop()
})

const ACCOUNTS = {
  brassbell: { id: 'bb-4410', name: 'Wrenfold UK' },
  northpin: { id: '70-221', name: 'Wrenfold UK' },
  tallow: { id: 't.wren', name: 'Wrenfold UK' },
  marlpost: { id: '5090', name: 'Wrenfold EU' },
} as const
type Network = keyof typeof ACCOUNTS

const makeAudience = (network: Network, more: Partial<BodyOf<'makeAudience'>> = {}): Promise<Audience> =>
  server.api.call('makeAudience', {
    params: { listId },
    body: { name: `At ${network}`, destination: network, account: ACCOUNTS[network], isWholeList: true, ...more },
  })
const read = (audienceId: string): Promise<AudienceDetail> =>
  server.api.call('readAudience', { params: { audienceId } })

async function prepare(audienceId: string): Promise<AudienceDetail> {
  const edition = await server.api.call('prepareEdition', { params: { audienceId } })
  expect(await untilEnded(server.api, listId, edition.jobId)).toMatchObject({ state: 'done' })
  return read(audienceId)
}

async function send(audienceId: string): Promise<Delivery> {
  const { difference, account } = await read(audienceId)
  const delivery = await server.api.call('deliverEdition', {
    params: { audienceId },
    body: { editionId: difference?.editionId ?? '', account: account.id },
  })
  await untilEnded(server.api, listId, delivery.jobId ?? '')
  const sent = (await read(audienceId)).deliveries.find(({ id }) => id === delivery.id)
  if (!sent) throw new Error('the delivery is gone')
  return sent
}

const settled = (audienceId: string): Promise<AudienceDetail> =>
  untilIs(
    () => read(audienceId),
    ({ state }) => !['received', 'matching'].includes(state),
  )

/** What the network holds by its own books. */
function booksOf(network: Network, name: string) {
  const held = standIns
    .network(network)
    .books()
    .find((one) => one.name === name)
  if (!held) throw new Error(`${network} holds no "${name}"`)
  return held
}

describe('a network', () => {
  it('tells its accounts, and what each lacks with what to do about it', async () => {
    const accounts = await server.api.call('readAccounts', { params: { destinationId: 'northpin' } })
    expect(accounts.map(({ name, lacks }) => [name, lacks.map(({ code, stops }) => `${code} ${stops}`)])).toEqual([
      ['Wrenfold UK', []],
      ['Wrenfold DACH', ['exclude-only aiming']],
      ['Wrenfold trials', ['too-new everything']],
    ])
    expect(accounts[2]?.lacks[0]).toMatchObject({ takes: 'about two weeks' })
  })

  it('without a key, or with one it refuses, says so', async () => {
    const params = { destinationId: 'tallow' }
    const put = (key: string) => server.api.call('keepDestinationKey', { params, body: { address: standIns.url, key } })
    await put('another')
    await expect(server.api.call('readAccounts', { params })).rejects.toMatchObject({ code: 'key-refused' })
    await server.api.call('removeDestinationKey', { params })
    await expect(server.api.call('readAccounts', { params })).rejects.toMatchObject({ code: 'no-connection' })
    await put('key-tallow')
    expect(await server.api.call('readAccounts', { params })).toHaveLength(2)
  })
})

describe('an audience', () => {
  it.each(['brassbell', 'northpin', 'tallow'] as const)(
    'is prepared, sent and becomes usable at %s, and the network holds exactly its lines',
    async (network) => {
      const { id } = await makeAudience(network)
      const { difference } = await prepare(id)
      expect(difference).toMatchObject({ comes: 800, leaves: 0, stays: 0, way: 'changes' })
      expect(await send(id)).toMatchObject({ state: 'done', added: 800, removed: 0, refusedParts: 0 })
      const told = await settled(id)
      expect(told).toMatchObject({ state: 'usable', people: 800 })
      expect(booksOf(network, `At ${network}`)).toMatchObject({ lines: 800, odd: 0 })
    },
    60_000,
  )

  it('moves whoever came into it to the lane of a rule that asks for that', async () => {
    const name = 'Some at northpin'
    const keep = (rules: BodyOf<'keepLaneRules'>['rules']) =>
      server.api.call('keepLaneRules', { params: { listId }, body: { rules } })
    const inLane = async () => {
      const { lane } = await server.api.call('readPiles', { params: { listId }, query: { filter: 'lane:reached' } })
      return lane.reached ?? 0
    }
    await keep([
      { lane: 'reached', name: 'Reached', use: 'ads', filter: `audience:"${name}"` },
      { lane: 'ads-only', name: 'Ads only', use: 'ads', filter: '' },
    ])
    expect(await inLane()).toBe(0)
    const { id } = await makeAudience('northpin', { name, filter: 'country:GB', isWholeList: false })
    await prepare(id)
    const { added } = await send(id)
    expect(added).toBeGreaterThan(0)
    expect(await inLane()).toBe(added)
    await keep(null)
  })

  it('of companies is replaced whole, and people are kept inside it', async () => {
    const companies = await newList(server.api, 'Companies')
    const rows = world.people
      .slice(0, 400)
      .map(({ company, workEmail }) => [company.name, company.domain, workEmail, company.place.country].join(','))
    await bringText(server.api, companies, ['company,web,mail,country', ...rows].join('\n'), {})
    const before = listId
    listId = companies
    try {
      const body = { name: 'Garden centres', takes: 'companies' as const }
      const outer = await makeAudience('marlpost', body)
      const inner = await makeAudience('marlpost', { name: 'Buyers', within: outer.id })
      await prepare(inner.id)
      expect(await send(inner.id)).toMatchObject({ state: 'refused', refusal: { code: 'outer-audience-not-sent' } })
      const { difference } = await prepare(outer.id)
      expect(difference?.way).toBe('whole')
      await send(outer.id)
      expect(await settled(outer.id)).toMatchObject({ people: difference?.people })
      expect(booksOf('marlpost', 'Garden centres').lines).toBe(difference?.people)
      await prepare(inner.id)
      expect(await send(inner.id)).toMatchObject({ state: 'done' })
      expect(await settled(inner.id)).toMatchObject({ state: 'usable' })
    } finally {
      listId = before
    }
  })

  it('is refused for an account that lacks something before anything is sent', async () => {
    const account = { id: 'bb-1002', name: 'Wrenfold before 2024' }
    const { id } = await makeAudience('brassbell', { name: 'Unpaid', account })
    const { difference } = await prepare(id)
    const body = { editionId: difference?.editionId ?? '', account: account.id }
    await expect(server.api.call('deliverEdition', { params: { audienceId: id }, body })).rejects.toMatchObject({
      code: 'account-lacks',
      message: expect.stringContaining('no way to pay'),
    })
    await expect(
      server.api.call('deliverEdition', { params: { audienceId: id }, body: { ...body, account: 'bb-4410' } }),
    ).rejects.toMatchObject({ code: 'other-account' })
    expect(
      standIns
        .network('brassbell')
        .books()
        .some(({ name }) => name === 'Unpaid'),
    ).toBe(false)
  })

  it('may exclude where its account may not aim', async () => {
    const account = { id: '70-305', name: 'Wrenfold DACH' }
    const aims = await makeAudience('northpin', { name: 'Aims', account })
    const { difference } = await prepare(aims.id)
    const body = { editionId: difference?.editionId ?? '', account: account.id }
    await expect(server.api.call('deliverEdition', { params: { audienceId: aims.id }, body })).rejects.toMatchObject({
      code: 'account-lacks',
    })
    const excludes = await makeAudience('northpin', { name: 'Excludes', account, purpose: 'exclude' })
    await prepare(excludes.id)
    expect(await send(excludes.id)).toMatchObject({ state: 'done' })
  })

  it('that would choose everybody has to be meant', async () => {
    const asked = makeAudience('brassbell', { name: 'Slip', isWholeList: false })
    await expect(asked).rejects.toMatchObject({ code: 'whole-list' })
    await expect(makeAudience('brassbell', { filter: 'country:XX', isWholeList: false })).resolves.toBeTruthy()
  })

  it('below the minimum that is matched is refused there, in its words, with what to do', async () => {
    const { id } = await makeAudience('tallow', { name: 'Few', filter: 'country:GB', isWholeList: false })
    await prepare(id)
    await send(id)
    expect(await settled(id)).toMatchObject({
      state: 'refused',
      refusal: { code: 'too-few-matched', says: 'Fewer people were matched than it wants.' },
    })
  })
})

describe('a later edition', () => {
  it('sends only who came and who left, and is refused where nothing has changed', async () => {
    const own = await newList(server.api, 'Growing')
    const before = listId
    listId = own
    try {
      await bringText(server.api, own, csv(0, 50))
      const { id } = await makeAudience('brassbell', { name: 'Growing' })
      await prepare(id)
      await send(id)
      await prepare(id)
      await expect(send(id)).rejects.toMatchObject({ code: 'nothing-to-send' })
      await bringText(server.api, own, csv(50, 60), { name: 'more' })
      expect(await read(id)).toMatchObject({ cameSince: 10, leftSince: 0 })
      expect((await prepare(id)).difference).toMatchObject({ comes: 10, leaves: 0, stays: 50, changed: 0 })
      expect(await send(id)).toMatchObject({ added: 10, removed: 0 })
      expect(booksOf('brassbell', 'Growing')).toMatchObject({ lines: 60, odd: 0 })
      // Somebody gets another name: the line that was goes out, and the new one in.
      const { contacts } = await server.api.call('readContacts', { params: { listId: own }, query: { limit: 1 } })
      const edits = [{ contactId: contacts[0]?.id ?? 0, column: 'family-name', value: 'Elsewise' }]
      await server.api.call('makeEdits', { params: { listId: own }, body: { edits } })
      expect((await prepare(id)).difference).toMatchObject({ comes: 1, leaves: 1, changed: 1, stays: 59 })
      expect(await send(id)).toMatchObject({ added: 1, removed: 1 })
      expect(booksOf('brassbell', 'Growing')).toMatchObject({ lines: 60, odd: 0 })
    } finally {
      listId = before
    }
  })

  it('leaves out whoever said no after it was prepared; whoever is in it leaves by a delivery of removals', async () => {
    const own = await newList(server.api, 'Saying no')
    const before = listId
    listId = own
    try {
      await bringText(server.api, own, csv(800, 860))
      const { id } = await makeAudience('brassbell', { name: 'Saying no' })
      await prepare(id)
      const no = await server.api.call('makeSuppressionList', { body: { name: 'No', kind: 'opt-outs' } })
      const say = (at: number) =>
        server.api.call('addSuppressionEntries', {
          params: { suppressionListId: no.id },
          body: { text: world.consumers[at]?.personalEmail ?? '', reason: 'said so' },
        })
      await say(800)
      expect((await read(id)).difference).toMatchObject({ people: 60, suppressedSince: 1 })
      expect(await send(id)).toMatchObject({ added: 59 })
      await say(801)
      await say(802)
      const [told] = await server.api.call('readAudiences', { params: { listId } })
      expect(told).toMatchObject({ people: 59, owedRemovals: 2 })
      const removal = await server.api.call('deliverRemovals', { params: { audienceId: id } })
      await untilEnded(server.api, listId, removal.jobId ?? '')
      expect(await read(id)).toMatchObject({ people: 57, owedRemovals: 0, latest: { way: 'removals', removed: 2 } })
      expect(booksOf('brassbell', 'Saying no')).toMatchObject({ lines: 57, odd: 0 })
      await expect(server.api.call('deliverRemovals', { params: { audienceId: id } })).rejects.toMatchObject({
        code: 'nothing-to-send',
      })
    } finally {
      listId = before
    }
  })
})

describe('what a network does wrong', () => {
  it('a part it refuses is told, and is all that the next delivery sends', async () => {
    const { id } = await makeAudience('northpin', { name: 'Half' })
    await server.sql(
      `update destinations set document = jsonb_set(document, '{network,part,most}', '100') where id = 'northpin'`,
    )
    await prepare(id)
    standIns.toggle('northpin', 'half-refused')
    const sent = await send(id)
    standIns.toggle('northpin', 'half-refused')
    expect(sent).toMatchObject({ state: 'done', refusedParts: 4, refusedLines: 400, added: 400 })
    expect(sent.refusal).toMatchObject({ says: 'It could not read a part.' })
    expect(await prepare(id)).toMatchObject({ people: 400, difference: { comes: 400, stays: 400 } })
    expect(await send(id)).toMatchObject({ added: 400, refusedParts: 0 })
    expect(booksOf('northpin', 'Half').lines).toBe(800)
  })

  it('an audience it forgets is sent whole the next time', async () => {
    const { id } = await makeAudience('tallow', { name: 'Forgotten' })
    await prepare(id)
    await send(id)
    standIns.toggle('tallow', 'forgetful')
    const forgot = await server.api.call('lookAtAudience', { params: { audienceId: id } })
    standIns.toggle('tallow', 'forgetful')
    expect(forgot).toMatchObject({ state: 'refused', refusal: { code: 'no-such-audience' }, people: 0 })
    expect((await prepare(id)).difference).toMatchObject({ comes: 800 })
    expect(await send(id)).toMatchObject({ state: 'done', added: 800 })
  })

  it('that it is away fails the delivery with its reason, and nothing is counted as sent', async () => {
    const { id } = await makeAudience('brassbell', { name: 'Away' })
    const { difference } = await prepare(id)
    standIns.toggle('brassbell', 'nonsense')
    const body = { editionId: difference?.editionId ?? '', account: 'bb-4410' }
    await expect(server.api.call('deliverEdition', { params: { audienceId: id }, body })).rejects.toMatchObject({
      code: 'odd-answer',
    })
    standIns.toggle('brassbell', 'nonsense')
    expect(await read(id)).toMatchObject({ people: 0, state: 'not-sent' })
  })
})

describe('two deliveries of one audience at once', () => {
  it('are one: the other is told who began', async () => {
    const { id } = await makeAudience('brassbell', { name: 'Twice' })
    const { difference } = await prepare(id)
    const body = { editionId: difference?.editionId ?? '', account: 'bb-4410' }
    const both = await Promise.allSettled([
      server.api.call('deliverEdition', { params: { audienceId: id }, body }),
      server.api.call('deliverEdition', { params: { audienceId: id }, body }),
    ])
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
    await untilIs(
      () => read(id),
      ({ latest }) => latest?.state === 'done',
    )
    expect(booksOf('brassbell', 'Twice')).toMatchObject({ lines: 800, odd: 0 })
  })
})

describe('a trial', () => {
  it('tells how many were matched, by its reach', async () => {
    const { id } = await makeAudience('northpin', { name: 'Tried' })
    await expect(
      server.api.call('startTrial', { params: { audienceId: id }, body: { daily: 10, days: 1 } }),
    ).rejects.toMatchObject({ code: 'not-usable' })
    await prepare(id)
    await send(id)
    await settled(id)
    await server.api.call('startTrial', { params: { audienceId: id }, body: { daily: 10, days: 1 } })
    const told = await untilIs(
      () => read(id),
      ({ trials }) => trials[0]?.state === 'over',
    )
    const truly = booksOf('northpin', 'Tried').matched
    const inferred = told.trials[0]?.inferred
    expect(inferred?.low).toBeLessThanOrEqual(truly)
    expect(inferred?.high).toBeGreaterThanOrEqual(truly)
  })
})

describe('similar people', () => {
  it('are an audience of their own that the network makes', async () => {
    const board = await server.api.call('readAudiences', { params: { listId } })
    const seed = board.find(({ name, state }) => name === 'At brassbell' && state === 'usable')
    const similar = await server.api.call('makeSimilar', {
      params: { audienceId: seed?.id ?? '' },
      body: { country: 'GB', closeness: 3, name: 'Like home owners' },
    })
    expect(similar).toMatchObject({ similarTo: { audienceId: seed?.id, country: 'GB', closeness: 3 } })
    await expect(server.api.call('prepareEdition', { params: { audienceId: similar.id } })).rejects.toMatchObject({
      code: 'made-there',
    })
    expect(await settled(similar.id)).toMatchObject({ state: 'usable' })
  })
})

describe('an audience that is taken away', () => {
  it('is not while it is being sent', async () => {
    const { id } = await makeAudience('brassbell', { name: 'Under way' })
    await server.sql("insert into deliveries (audience_id, way) values ($1, 'changes')", [id])
    const remove = () => server.api.call('removeAudience', { params: { audienceId: id } })
    await expect(remove()).rejects.toMatchObject({ code: 'delivery-under-way' })
    await server.sql("update deliveries set state = 'stopped' where audience_id = $1", [id])
    await expect(remove()).resolves.toEqual({})
  })

  it('leaves the network too', async () => {
    const board = await server.api.call('readAudiences', { params: { listId } })
    const one = board.find(({ name }) => name === 'At tallow')
    await server.api.call('removeAudience', { params: { audienceId: one?.id ?? '' } })
    expect(
      standIns
        .network('tallow')
        .books()
        .some(({ name }) => name === 'At tallow'),
    ).toBe(false)
    await expect(read(one?.id ?? '')).rejects.toMatchObject({ status: 404 })
  })
})
