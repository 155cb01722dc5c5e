import { Problem } from '../http/problem'
import type { Services } from '../services'
import { checkAddress, OutgoingRefused } from './outgoing'

/** Throws a problem where nothing may be sent to an address. */
export async function refuseAddress({ config }: Services, address: string): Promise<void> {
  await checkAddress(address, config).catch((cause: unknown) => {
    throw new Problem(422, 'address-refused', whyRefused(cause), { cause })
  })
}

const REFUSED: Record<OutgoingRefused['reason'], string> = {
  scheme: 'An address begins with https://.',
  'plain-http': 'Keys are sent over https only. Addresses with http:// must be allowed in the settings.',
  'private-address': 'This address lies inside a private network. Such addresses must be allowed in the settings.',
  'no-such-name': 'There is no such name on the internet.',
}

const whyRefused = (cause: unknown): string =>
  `${cause instanceof OutgoingRefused ? REFUSED[cause.reason] : 'This is no address.'} Nothing was changed.`

/**
 * A key was given for one address: whoever changes that must know the key, or could have it sent to themselves.
 * @param keptFor the address a key is kept for; null where none is
 */
export function keyStaysWithItsAddress(
  keptFor: string | null,
  { baseUrl, key }: { readonly baseUrl: string; readonly key?: string | undefined },
): void {
  if (key) return
  if (keptFor !== null && new URL(keptFor).origin !== new URL(baseUrl).origin)
    throw new Problem(
      422,
      'key-needed',
      'The key belongs to the address it was given for. Give it again together with the new address.',
    )
}
