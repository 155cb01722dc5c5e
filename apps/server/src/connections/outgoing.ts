import { lookup } from 'node:dns/promises'
import { isIP } from 'node:net'
import type { Config } from '../config'

export class OutgoingRefused extends Error {}

/** Private, loopback, link-local and reserved ranges (RFC 1918, 4193, 6890). */
function isPrivate(address: string): boolean {
  if (isIP(address) === 6) return /^(?:::1$|::$|f[cd]|fe[89ab]|::ffff:)/i.test(address)
  const [a = 0, b = 0] = address.split('.').map(Number)
  return (
    a === 0 ||
    a === 10 ||
    a === 127 ||
    a >= 224 ||
    (a === 169 && b === 254) ||
    (a === 172 && b >= 16 && b < 32) ||
    (a === 192 && b === 168) ||
    (a === 100 && b >= 64 && b < 128)
  )
}

/** Refuses addresses inside the house, so that a connection cannot be turned against the machine it runs on. */
export async function checkAddress(url: string, config: Pick<Config, 'allowsPrivateAddresses'>): Promise<void> {
  const { protocol, hostname } = new URL(url)
  if (protocol !== 'https:' && protocol !== 'http:') throw new OutgoingRefused('scheme')
  if (config.allowsPrivateAddresses) return
  const found = isIP(hostname) ? [{ address: hostname }] : await lookup(hostname, { all: true })
  if (found.some(({ address }) => isPrivate(address))) throw new OutgoingRefused('private address')
}
