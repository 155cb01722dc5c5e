import { promises as dns, type LookupAddress, lookup as lookupName } from 'node:dns'
import { isIP, type LookupFunction } from 'node:net'
import ipaddr from 'ipaddr.js'
import { Agent } from 'undici'
import type { Config } from '../config'

type Rules = Pick<Config, 'allowsPrivateAddresses' | 'allowsPlainHttp'>

export class OutgoingRefused extends Error {
  constructor(readonly reason: 'scheme' | 'plain-http' | 'private-address' | 'no-such-name') {
    super(reason)
  }
}

/**
 * True for an address of the public internet: no private, loopback, link-local, shared, benchmarking, documentation or
 * otherwise reserved range (IANA's special-purpose registries, RFC 6890), also where it is written within IPv6.
 */
export function isPublicAddress(address: string): boolean {
  if (!ipaddr.isValid(address)) return false
  const parsed = ipaddr.process(address)
  if (parsed.range() !== 'unicast') return false
  return parsed.kind() === 'ipv6' || !SPECIAL_V4.some((range) => (parsed as ipaddr.IPv4).match(range))
}

/** Special ranges of IPv4 that the library counts among the public ones. */
const SPECIAL_V4 = ['192.0.0.0/24', '192.88.99.0/24', '198.18.0.0/15', '240.0.0.0/4'].map((range) =>
  ipaddr.IPv4.parseCIDR(range),
)

/** Host of an address on the web as a name or a bare IP, without the brackets of IPv6. */
const hostOf = (url: URL): string => url.hostname.replace(/^\[(.*)\]$/, '$1')

/** Refuses addresses inside the house, so that a connection cannot be turned against the machine it runs on. */
export async function checkAddress(url: string, rules: Rules): Promise<void> {
  const parsed = new URL(url)
  if (parsed.protocol !== 'https:' && parsed.protocol !== 'http:') throw new OutgoingRefused('scheme')
  if (parsed.protocol === 'http:' && !rules.allowsPlainHttp) throw new OutgoingRefused('plain-http')
  if (rules.allowsPrivateAddresses) return
  const host = hostOf(parsed)
  const found = isIP(host)
    ? [{ address: host }]
    : await dns.lookup(host, { all: true }).catch(() => {
        throw new OutgoingRefused('no-such-name')
      })
  if (found.length === 0 || found.some(({ address }) => !isPublicAddress(address)))
    throw new OutgoingRefused('private-address')
}

/**
 * Connects only to addresses that may be called: the name is looked up once for each connection, and what was checked
 * is what is connected to, so that a name cannot lead elsewhere a moment later.
 */
export const outgoingAgent = (rules: Rules, lookup: typeof lookupName = lookupName): Agent =>
  new Agent({ connect: { lookup: checkedLookup(rules, lookup) as LookupFunction } })

/** Looks a name up, and refuses it where it leads inside the house. */
export function checkedLookup({ allowsPrivateAddresses }: Rules, lookup: typeof lookupName): LookupFunction {
  return (hostname, options, callback) => {
    lookup(hostname, { ...options, all: true }, (error, addresses) => {
      const found = addresses as unknown as LookupAddress[]
      if (error) return callback(error, '', 0)
      if (!allowsPrivateAddresses && found.some(({ address }) => !isPublicAddress(address)))
        return callback(new OutgoingRefused('private-address') as NodeJS.ErrnoException, '', 0)
      const [first] = found
      if (options.all) return (callback as (error: null, all: LookupAddress[]) => void)(null, found)
      return callback(null, first?.address ?? '', first?.family ?? 4)
    })
  }
}
