import { readdirSync } from 'node:fs'
import { join } from 'node:path'
import { ROOT } from './run.mjs'

const idsIn = (folder) =>
  readdirSync(join(ROOT, 'apps', 'server', folder))
    .filter((name) => name.endsWith('.json'))
    .map((name) => name.slice(0, -'.json'.length))

/** Ids of the services and networks whose declarations ship: each of them has a stand-in. */
export const shippedServices = () => [...idsIn('connectors'), ...idsIn('destinations')]
