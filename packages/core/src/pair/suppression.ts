import { readPhoneCell } from '../phone'

/** What a suppression list is for. */
export const SUPPRESSION_KINDS = ['opt-outs', 'register', 'customers', 'competitors'] as const
export type SuppressionKind = (typeof SUPPRESSION_KINDS)[number]

export const SUPPRESSION_KEYS = ['number', 'email', 'domain', 'hash'] as const

/** Somebody who must not be contacted, by one thing that tells them: in its one form, or as a SHA-256 hash of that. */
export interface SuppressionKey {
  readonly kind: (typeof SUPPRESSION_KEYS)[number]
  /** E.164, an address or a domain in small letters, or 64 hexadecimal digits. */
  readonly key: string
}

/** A row of a suppression file: its cells, by what their columns hold. */
export interface SuppressionRow {
  readonly numbers: readonly string[]
  readonly emails: readonly string[]
  readonly domains: readonly string[]
  readonly hashes: readonly string[]
}

const HASH = /^[0-9a-f]{64}$/i
const EMAIL = /^[^\s@]{1,64}@[^\s@.]+(?:\.[^\s@.]+)+$/
const DOMAIN = /^(?:https?:\/\/)?(?:www\.)?((?:[\p{L}\p{N}](?:[\p{L}\p{N}-]*[\p{L}\p{N}])?\.)+\p{L}{2,})(?:[/?#].*)?$/iu

/**
 * The key in a line of a suppression list: a hash, an e-mail address, a domain or a telephone number.
 * @param country ISO 3166-1 alpha-2 for numbers without a country code
 * @returns null where the line holds none: it cannot suppress anybody
 */
export function suppressionKey(text: string, country: string | null): SuppressionKey | null {
  const bare = text.trim().replace(/^[<"']+|[>"']+$/g, '')
  if (HASH.test(bare)) return { kind: 'hash', key: bare.toLowerCase() }
  const address = bare.replace(/^mailto:/i, '').toLowerCase()
  if (address.includes('@')) return EMAIL.test(address) ? { kind: 'email', key: address } : null
  const domain = DOMAIN.exec(bare)?.[1]?.toLowerCase()
  if (domain !== undefined) return { kind: 'domain', key: domain }
  const { numbers, problem } = readPhoneCell(bare, { country })
  const [number] = numbers
  return number?.valid && problem !== 'two-readings' && numbers.length === 1
    ? { kind: 'number', key: number.e164 }
    : null
}

/**
 * The keys in a row of a suppression file. A cell may hold several; what cannot be read is left out.
 * @param country ISO 3166-1 alpha-2 for numbers without a country code
 */
export function suppressionRowKeys(row: SuppressionRow, country: string | null): readonly SuppressionKey[] {
  const found = [
    ...row.numbers.flatMap((cell) => numbersIn(cell, country)),
    ...row.emails.flatMap((cell) => partsOf(cell).flatMap((part) => keyOfKind('email', part))),
    ...row.domains.flatMap((cell) => partsOf(cell).flatMap((part) => keyOfKind('domain', part))),
    ...row.hashes.flatMap((cell) => partsOf(cell).flatMap((part) => keyOfKind('hash', part))),
  ]
  return [...new Map(found.map((one) => [`${one.kind} ${one.key}`, one])).values()]
}

/** Of two readings that compete neither is taken: somebody else would be kept out. */
function numbersIn(cell: string, country: string | null): readonly SuppressionKey[] {
  const { numbers, problem } = readPhoneCell(cell, { country })
  if (problem === 'two-readings') return []
  return numbers.filter(({ valid }) => valid).map(({ e164 }) => ({ kind: 'number', key: e164 }))
}

const partsOf = (cell: string): readonly string[] => cell.split(/[\s;,|]+/).filter((part) => part !== '')

function keyOfKind(kind: SuppressionKey['kind'], text: string): readonly SuppressionKey[] {
  const key = suppressionKey(text, null)
  return key?.kind === kind ? [key] : []
}

/** Everything a contact can be suppressed by: its numbers, addresses and domains, those above them too. */
export function suppressibleKeys(contact: {
  readonly e164s: readonly string[]
  readonly addresses: readonly string[]
  readonly domain: string
}): readonly string[] {
  const hosts = contact.addresses.map((address) => address.slice(address.lastIndexOf('@') + 1))
  const domains = contact.domain === '' ? hosts : [contact.domain, ...hosts]
  return [...new Set([...contact.e164s, ...contact.addresses, ...domains.flatMap(domainAndAbove)])]
}

/** The same for a contact as it is projected. */
export const suppressibleKeysOf = ({
  values,
  numbers,
  emails,
}: {
  readonly values: { readonly domain: string }
  readonly numbers: readonly { readonly e164: string }[]
  readonly emails: readonly { readonly address: string }[]
}): readonly string[] =>
  suppressibleKeys({
    e164s: numbers.map(({ e164 }) => e164),
    addresses: emails.map(({ address }) => address),
    domain: values.domain,
  })

function domainAndAbove(domain: string): readonly string[] {
  const labels = domain.split('.')
  return labels.length < 3 ? [domain] : labels.slice(0, -1).map((_, i) => labels.slice(i).join('.'))
}
