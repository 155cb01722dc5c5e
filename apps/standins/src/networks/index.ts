import type { Hono } from 'hono'
import type { StandInOptions } from '../http'
import type { World } from '../world'
import type { NetworkRules } from './audience'
import * as brassbell from './brassbell'
import * as marlpost from './marlpost'
import { createMatcher, type KnownBy } from './matching'
import { Network } from './network'
import * as northpin from './northpin'
import * as tallow from './tallow'

interface Made {
  readonly rules: NetworkRules
  readonly knownBy: KnownBy
  readonly face: (network: Network, key: string) => Hono
}

/** The ad networks of the outside world, each below its own name. */
export const NETWORKS = {
  brassbell: { rules: brassbell.RULES, knownBy: brassbell.KNOWN_BY, face: brassbell.brassbell },
  marlpost: { rules: marlpost.RULES, knownBy: marlpost.KNOWN_BY, face: marlpost.marlpost },
  northpin: { rules: northpin.RULES, knownBy: northpin.KNOWN_BY, face: northpin.northpin },
  tallow: { rules: tallow.RULES, knownBy: tallow.KNOWN_BY, face: tallow.tallow },
} satisfies Record<string, Made>
export type NetworkName = keyof typeof NETWORKS
export const NETWORK_NAMES = Object.keys(NETWORKS) as readonly NetworkName[]

/** A network with the accounts of the world, and the service by which it is called. */
export function openNetwork(
  world: World,
  name: NetworkName,
  key: string,
  { pace, faults, book }: StandInOptions,
): { readonly network: Network; readonly app: Hono } {
  const { rules, knownBy, face } = NETWORKS[name]
  const network = new Network(name, rules, createMatcher(world, name, knownBy), {
    pace,
    ...(faults ? { faults } : {}),
    book,
  })
  return { network, app: face(network, key) }
}

export { deviceOf } from './matching'
export { Network } from './network'
