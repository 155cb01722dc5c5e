import { lookup } from 'node:dns'
import { isIP, type LookupFunction } from 'node:net'
import { Agent, buildConnector } from 'undici'
import type { Config } from '../config'
import { checkedLookup, isPublicAddress, OutgoingRefused } from '../connections/outgoing'

const agents = new WeakMap<Config, Agent>()

/**
 * Connects to sites of the public web alone, whatever other connections may do: names are looked up once for each
 * connection, and what was checked is what is connected to. Names under `.example` lead to the made-up web, where
 * there is one.
 */
export function webAgent(config: Config): Agent {
  const known = agents.get(config)
  if (known) return known
  const rules = { allowsPrivateAddresses: false, allowsPlainHttp: true }
  const connectPublic = buildConnector({ lookup: checkedLookup(rules, lookup) as LookupFunction })
  const connectDirect = buildConnector({})
  const example = config.exampleWeb === null ? null : new URL(config.exampleWeb)
  const agent = new Agent({
    connections: 1,
    connect: (options, callback) => {
      const host = options.hostname.replace(/^\[(.*)\]$/, '$1')
      if (example && host.endsWith('.example'))
        return connectDirect({ ...options, hostname: example.hostname, port: example.port }, callback)
      if (isIP(host) && !isPublicAddress(host)) return callback(new OutgoingRefused('private-address'), null)
      return connectPublic(options, callback)
    },
  })
  agents.set(config, agent)
  return agent
}
