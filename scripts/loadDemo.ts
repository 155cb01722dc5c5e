import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { type ApiClient, createClient, type NewBatch } from '@upper-field/contract'
import { type DemoFile, scenarioFiles } from '@upper-field/demo'
import { createWorld, worldFor } from '@upper-field/standins/world'
import { bringIn, leaveWaiting, untilEnded } from './bringIn'
import { suppressFile } from './suppressFile'

// Loads the demo: connections to the stand-ins, the seven made-up files, and the autumn list partly worked.
const [baseUrl = '', standInsUrl = '', folder = '', keysJson = '{}', rowsText = '6000'] = process.argv.slice(2)
const rows = Number(rowsText)
const keys = JSON.parse(keysJson) as Record<string, string>
const { seed, ...size } = worldFor(rows)
const files = scenarioFiles(createWorld(seed, size), { rows })
// Called only now: a connection that rests while the files are made may be closed just when it is needed.
const api = createClient(baseUrl)
await api.call('enterDemo')
for (const [provider, key] of Object.entries(keys)) {
  await api.call('changeConnection', { params: { provider }, body: { baseUrl: standInsUrl, key } })
}
mkdirSync(folder, { recursive: true })
for (const file of files) {
  writeFileSync(join(folder, file.name), file.bytes)
  writeFileSync(join(folder, file.name.replace(/\.\w+$/, '.truth.json')), JSON.stringify(file.truth))
}
const CHECKED = 'country:FR'
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
]
if ((await api.call('readLists')).length === 0) await makeAutumnList(api)

/** Two batches in, the lines of one country checked, and a third batch waiting to be brought in. */
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
  await leaveWaiting(client, list.id, named('profile-export.csv'), {
    name: 'Profile export',
    sourceKind: 'public-page',
    gatheredOn: '2026-11-02',
    lawfulBasis: 'legitimate-interest',
  })
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
