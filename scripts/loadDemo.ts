import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { type ApiClient, createClient, type NewBatch } from '@upper-field/contract'
import { type DemoFile, scenarioFiles } from '@upper-field/demo'
import { createWeb } from '@upper-field/standins/web'
import { createWorld, worldFor } from '@upper-field/standins/world'
import { bringIn, untilEnded } from './bringIn'
import { makeAudiences } from './demoAudiences'
import { suppressFile } from './suppressFile'

// Loads the demo: connections to the stand-ins, the seven made-up files, and the autumn list partly worked.
const [baseUrl = '', standInsUrl = '', folder = '', keysJson = '{}', rowsText = '6000'] = process.argv.slice(2)
const rows = Number(rowsText)
const keys = JSON.parse(keysJson) as Record<string, string>
const { seed, ...size } = worldFor(rows)
const world = createWorld(seed, size)
const files = scenarioFiles(world, { rows })
// Called only now: a connection that rests while the files are made may be closed just when it is needed.
const api = createClient(baseUrl)
await api.call('enterDemo')
const networks = await api.call('readShippedDestinations', {})
for (const one of networks) {
  await api.call('keepDestination', { params: { destinationId: one.id }, body: one })
  const key = keys[one.id]
  if (key)
    await api.call('keepDestinationKey', { params: { destinationId: one.id }, body: { address: standInsUrl, key } })
}
for (const [provider, key] of Object.entries(keys)) {
  if (networks.some(({ id }) => id === provider)) continue
  await api.call('changeConnection', { params: { provider }, body: { baseUrl: standInsUrl, key } })
}
mkdirSync(folder, { recursive: true })
for (const file of files) {
  writeFileSync(join(folder, file.name), file.bytes)
  writeFileSync(join(folder, file.name.replace(/\.\w+$/, '.truth.json')), JSON.stringify(file.truth))
}
const CHECKED = 'country:FR'
const QUICK = 30
/** Networks take from minutes to a day in life. */
const QUICKEST = 20_000
const SAMPLE = 150
const FILLED = 'country:GB'
const FILL_BUDGET = 40_000_000
const BATCHES: readonly (readonly [file: string, facts: Partial<NewBatch>])[] = [
  [
    'fair-badges.xlsx',
    {
      name: 'Fair badges',
      sourceKind: 'event',
      gatheredOn: '2026-09-18',
      lawfulBasis: 'legitimate-interest',
      note: 'Outdoor living fair, badge scans',
    },
  ],
  [
    'hospitality-directory.csv',
    {
      name: 'Hospitality directory',
      sourceKind: 'bought',
      gatheredOn: '2026-08-01',
      lawfulBasis: 'legitimate-interest',
      price: 480_000_000,
    },
  ],
  [
    'profile-export.csv',
    {
      name: 'Profile export',
      sourceKind: 'public-page',
      gatheredOn: '2026-11-02',
      lawfulBasis: 'legitimate-interest',
    },
  ],
]
if ((await api.call('readLists')).length === 0) {
  // They are read while everything else is made.
  await readPages(api)
  await makeAutumnList(api)
}

/** Three batches in, who is one person looked for, lines of one country checked, a sample and one run behind it. */
async function makeAutumnList(client: ApiClient): Promise<void> {
  const list = await client.call('makeList', { body: { name: 'Autumn terraces' } })
  for (const [name, facts] of BATCHES) {
    const batch = await bringIn(client, list.id, named(name), facts)
    console.log(`Brought in ${batch.rows} rows as "${batch.name}"; ${batch.held} held.`)
  }
  await suppressOptOuts(client)
  const { id } = await client.call('makeSuppressionList', { body: { name: 'Current customers', kind: 'customers' } })
  const added = await suppressFile(client, id, named('customers.txt'), 'buys from us')
  console.log(`${added} numbers and addresses of customers are kept out.`)
  const estimate = await client.call('estimateCheck', { params: { listId: list.id }, query: { filter: CHECKED } })
  const check = await client.call('startCheck', {
    params: { listId: list.id },
    body: { filter: CHECKED, agreed: estimate.most },
  })
  await untilEnded(client, list.id, check.id)
  await pairAll(client, list.id)
  // Nobody who starts the demo need wait as long as these services take in life.
  await setSpeed(QUICK)
  try {
    await sampleAndFill(client, list.id)
    await setSpeed(QUICKEST, 'networks')
    const homeId = await makeHomeList(client)
    await makeAudiences(client, { autumnId: list.id, homeId, customersId: id })
  } finally {
    await setSpeed(Number(process.env.STANDINS_SPEED ?? 1))
    await setSpeed(Number(process.env.STANDINS_NETWORK_SPEED ?? process.env.STANDINS_SPEED ?? 1), 'networks')
  }
}

/** People at home who asked for a quotation. */
async function makeHomeList(client: ApiClient): Promise<string> {
  const list = await client.call('makeList', { body: { name: 'Home owners who asked' } })
  await bringIn(client, list.id, named('quotation-requests.csv'), {
    name: 'Quotation requests',
    sourceKind: 'asked-us',
    gatheredOn: '2026-11-16',
    lawfulBasis: 'consent',
  })
  return list.id
}

/** The sites an association of campsites lists. Whether to bring them in is left to whoever opens the demo. */
async function readPages(client: ApiClient): Promise<void> {
  const list = await client.call('makeList', { body: { name: 'Campsites on the web' } })
  await client.call('startHarvest', {
    params: { listId: list.id },
    body: {
      name: 'Members of the campsite association',
      source: { from: 'addresses', addresses: [...createWeb(world, { speed: 1 }).hosts] },
      follow: 'contact',
      pagesPerSite: 4,
      country: null,
    },
  })
  await fetchBusinesses(client, list.id)
}

/** Campsites of a country from the directory that is connected, for the same list. */
async function fetchBusinesses(client: ApiClient, listId: string): Promise<void> {
  const directory = (await client.call('readConnections')).find(({ role }) => role === 'directory')
  if (!directory) return
  const { provider } = directory
  const lookUp = async (what: 'trades' | 'places', search: string) => {
    const [found] = await client.call('lookUpInDirectory', { params: { provider, what }, query: { search } })
    if (!found) throw new Error(`the directory knows no ${search}`)
    return found
  }
  const question = { provider, trade: await lookUp('trades', 'camp'), place: await lookUp('places', 'united k') }
  const { most } = await client.call('planDirectorySearch', { params: { listId }, body: question })
  const name = `${question.trade.name}, ${question.place.name}`
  await client.call('startDirectorySearch', { params: { listId }, body: { ...question, name, budget: most } })
}

/** How much quicker than life the services answer from now on. */
async function setSpeed(times: number, of: 'services' | 'networks' = 'services'): Promise<void> {
  await fetch(`${standInsUrl}/world/speed/${of}/${times}`, { method: 'POST', redirect: 'manual' })
}

async function pairAll(client: ApiClient, listId: string): Promise<void> {
  const { thresholds } = await client.call('readPairing', { params: { listId } })
  const pairing = await client.call('runPairing', { params: { listId }, body: { thresholds } })
  await untilEnded(client, listId, pairing.id)
}

/** Everybody is asked about the same 150, and those of one country are filled by the order that teaches. */
async function sampleAndFill(client: ApiClient, listId: string): Promise<void> {
  const connected = await client.call('readConnections', {})
  const everybody = connected.flatMap(({ provider, role, hasKey }) => (role === 'provider' && hasKey ? provider : []))
  const plan = { checksLines: true, budget: 150_000_000 }
  const asked = await client.call('startFill', {
    params: { listId },
    body: { ...plan, order: everybody, asking: 'everybody', sample: SAMPLE },
  })
  await untilEnded(client, listId, asked.id)
  const sample = await client.call('readFillSample', { params: { listId }, query: { order: everybody.join(',') } })
  const order = sample?.cheapest.order ?? everybody
  const run = await client.call('startFill', {
    params: { listId },
    body: { ...plan, budget: FILL_BUDGET, order: [...order], filter: FILLED },
  })
  const { result } = await untilEnded(client, listId, run.id)
  console.log(`${result.found} contacts of one country were filled for €${(Number(result.spent) / 1e6).toFixed(2)}.`)
}

/** Who said no to Wrenfold before: their numbers, and their addresses as hashes only. */
async function suppressOptOuts(client: ApiClient): Promise<void> {
  const { id } = await client.call('makeSuppressionList', { body: { name: 'Opt-outs', kind: 'opt-outs' } })
  const said = JSON.parse(new TextDecoder().decode(named('opt-outs.json').bytes)) as {
    person: { phone: string | null }
    email: string | null
  }[]
  const params = { suppressionListId: id }
  const phones = said.flatMap(({ person }) => person.phone ?? []).join('\n')
  const addresses = said.flatMap(({ email }) => email ?? []).join('\n')
  const byText = await client.call('addSuppressionEntries', {
    params,
    body: { text: phones, reason: 'answered a text' },
  })
  const byMail = await client.call('addSuppressionEntries', {
    params,
    body: { text: addresses, reason: 'unsubscribed from letters', asHashes: true },
  })
  console.log(`${byText.added + byMail.added} opt-outs mark ${byText.marked + byMail.marked} contacts.`)
}

function named(name: string): DemoFile {
  const file = files.find((one) => one.name === name)
  if (!file) throw new Error(`There is no ${name}.`)
  return file
}
