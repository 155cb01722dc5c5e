import { afterAll, beforeAll, describe, expect, it } from '@jest/globals'
import {
  forecastMatch,
  IDENTIFYING_FIELDS,
  type IdentifierKind,
  identifiersAt,
  kindsTaken,
  type MatchHistory,
  mixKey,
  shapeOf,
} from '@upper-field/core/send'
import { scenarioFiles } from '@upper-field/demo'
import type { StandIns } from '@upper-field/standins'
import { createRandom, createWorld, DEMO_WORLD, type Random } from '@upper-field/standins/world'
import { bringIn, untilEnded } from '../../../../scripts/bringIn'
import { sendablePage, wantedBy } from '../../src/send/members'
import { connectNetworks, newList, startTestServer, type TestServer } from './harness'

const FILES = ['fair-badges.xlsx', 'hospitality-directory.csv', 'profile-export.csv', 'quotation-requests.csv']
const NETWORKS = ['brassbell', 'northpin', 'tallow'] as const
const ACCOUNTS = { brassbell: 'bb-4410', northpin: '70-221', tallow: 't.wren' } as const
const AUDIENCES = 100
const FEWEST = 60

let server: TestServer
let standIns: StandIns
let listId = ''

beforeAll(async () => {
  server = await startTestServer()
  standIns = await connectNetworks(server, DEMO_WORLD)
  listId = await newList(server.api, 'Everybody')
  const files = scenarioFiles(createWorld(DEMO_WORLD.seed, DEMO_WORLD), { rows: 2000 })
  for (const file of files.filter(({ name }) => FILES.includes(name))) await bringIn(server.api, listId, file)
})
afterAll(async () => {
  await standIns.stop()
  await server.stop()
})

interface Member {
  readonly contactId: number
  readonly country: string
  readonly batchId: string
  readonly kinds: ReadonlySet<IdentifierKind>
  /** Whether the network has an account for the line, by its own comparing. */
  readonly account: string | null
}

/** Everybody as a network sees them: what each may be matched by, and which account truly is. */
async function membersAt(network: (typeof NETWORKS)[number]): Promise<readonly Member[]> {
  const audience = await server.api.call('makeAudience', {
    params: { listId },
    body: {
      name: network,
      destination: network,
      account: { id: ACCOUNTS[network], name: 'Wrenfold UK' },
      isWholeList: true,
    },
  })
  const { id, jobId } = await server.api.call('prepareEdition', { params: { audienceId: audience.id } })
  await untilEnded(server.api, listId, jobId)
  const sent = await server.api.call('deliverEdition', {
    params: { audienceId: audience.id },
    body: { editionId: id, account: ACCOUNTS[network] },
  })
  await untilEnded(server.api, listId, sent.jobId ?? '')
  const lines = await server.sql<{ contact_id: string; cells: string[] }>(
    'select contact_id, cells from edition_lines where edition_id = $1',
    [id],
  )
  const cells = new Map(lines.map((line) => [Number(line.contact_id), line.cells]))
  const { services } = server
  const destination = (await server.api.call('readDestinations', {})).find((one) => one.id === network)
  const shape = destination && shapeOf(destination, 'people')
  if (!shape) throw new Error(`${network} takes no people`)
  const taken = kindsTaken(shape)
  const page = await sendablePage(
    services.db,
    {
      listId,
      filter: '',
      isForPeople: false,
      wanted: wantedBy(shape, { fields: IDENTIFYING_FIELDS, columns: ['batch_id'] }),
    },
    0,
  )
  if (page === null) throw new Error('nobody may be sent')
  const { ids, columns, kindsAt, toldAt } = page
  return ids.flatMap((contactId, at) => {
    const line = cells.get(contactId)
    if (!line) return []
    return [
      {
        contactId,
        country: columns.countries[at] ?? '',
        batchId: toldAt('batch_id', at),
        kinds: identifiersAt(columns, at, kindsAt(at), taken),
        account: standIns.network(network).accountOfLine(line) ?? null,
      },
    ]
  })
}

/** A part of a list as somebody might choose it: some countries, some files, or so many of all. */
function chooseSome(members: readonly Member[], random: Random): readonly Member[] {
  const countries = [...new Set(members.map(({ country }) => country))]
  const batches = [...new Set(members.map(({ batchId }) => batchId))]
  const some = <T>(all: readonly T[]): ReadonlySet<T> => new Set(all.filter(() => random.chance(0.5)))
  const [inCountries, inBatches, share] = [some(countries), some(batches), 0.3 + 0.7 * random.next()]
  const way = random.below(3)
  return members.filter(({ country, batchId }) =>
    way === 0 ? inCountries.has(country) : way === 1 ? inBatches.has(batchId) : random.chance(share),
  )
}

function mixOf(members: readonly Member[]): Record<string, number> {
  const mix: Record<string, number> = {}
  for (const { kinds } of members) mix[mixKey(kinds)] = (mix[mixKey(kinds)] ?? 0) + 1
  return mix
}

describe('forecasts of a hundred audiences', () => {
  it('hold the true match in the interval of nine in ten at least 85 times', async () => {
    const random = createRandom('audiences')
    const told = { inside: 0, all: 0, first: 0, firsts: 0 }
    const members = new Map<string, readonly Member[]>()
    for (const network of NETWORKS) members.set(network, await membersAt(network))
    const histories = new Map<string, MatchHistory[]>(NETWORKS.map((network) => [network, []]))
    while (told.all < AUDIENCES) {
      const network = random.pick(NETWORKS)
      const chosen = chooseSome(members.get(network) ?? [], random)
      if (chosen.length < FEWEST) continue
      const history = histories.get(network) ?? []
      const mix = mixOf(chosen)
      const matched = new Set(chosen.flatMap(({ account }) => account ?? [])).size
      const isInside = (known: readonly MatchHistory[]) => {
        const { low, high } = forecastMatch(mix, known)
        return matched >= low && matched <= high
      }
      told.all++
      if (isInside(history)) told.inside++
      if (isInside([])) told.first++
      history.push({ mix, matched })
    }
    console.log(`inside the interval: ${told.inside} of ${told.all}; with nothing learnt ${told.first}`)
    expect(told.inside).toBeGreaterThanOrEqual(85)
  })
})
