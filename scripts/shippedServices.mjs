import { readdirSync } from 'node:fs'
import { join } from 'node:path'
import { ROOT } from './run.mjs'

/** Ids of the services whose connectors ship: each of them has a stand-in. */
export const shippedServices = () =>
  readdirSync(join(ROOT, 'apps', 'server', 'connectors'))
    .filter((name) => name.endsWith('.json'))
    .map((name) => name.slice(0, -'.json'.length))
