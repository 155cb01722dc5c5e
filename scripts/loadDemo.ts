import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { createClient } from '@upper-field/contract'
import { fairBadges, quotationRequests } from '@upper-field/demo'
import { createWorld, DEMO_WORLD } from '@upper-field/standins/world'
import { bringIn } from './bringIn'

// Loads the demo: connections to the stand-ins, the made-up files, and the autumn list with its first batch.
const [baseUrl = '', standInsUrl = '', folder = '', keysJson = '{}'] = process.argv.slice(2)
const keys = JSON.parse(keysJson) as Record<string, string>
const api = createClient(baseUrl)
await api.call('enterDemo')
for (const [provider, key] of Object.entries(keys)) {
  await api.call('changeConnection', { params: { provider }, body: { baseUrl: standInsUrl, key } })
}
const world = createWorld(DEMO_WORLD.seed, DEMO_WORLD)
const badges = fairBadges(world, { rows: 800 })
const quotations = quotationRequests(world, { rows: 140 })
mkdirSync(folder, { recursive: true })
for (const file of [badges, quotations]) {
  writeFileSync(join(folder, file.name), file.bytes)
  writeFileSync(join(folder, file.name.replace('.csv', '.truth.json')), JSON.stringify(file.truth))
}
if ((await api.call('readLists')).length === 0) {
  const list = await api.call('makeList', { body: { name: 'Autumn terraces' } })
  const batch = await bringIn(api, list.id, badges, {
    name: 'Fair badges',
    sourceKind: 'event',
    gatheredOn: '2026-09-18',
    lawfulBasis: 'legitimate-interest',
    note: 'Outdoor living fair, badge scans',
  })
  console.log(`Brought in ${batch.rows} rows as "Autumn terraces"; ${batch.held} held.`)
}
