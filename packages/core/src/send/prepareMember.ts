import { harmlessCell } from '../table'
import type { ColumnSource, Destination } from './destinations'

/** What is sent about one person, before it is brought into the destination's form. */
export interface AudienceMember {
  readonly givenName: string
  readonly familyName: string
  readonly postalCode: string
  /** ISO 3166-1 alpha-2, or empty. */
  readonly country: string
  readonly emails: readonly string[]
  readonly numbers: readonly { readonly e164: string; readonly country: string | null }[]
}

export type LeftOutReason = 'no-country' | 'no-identifier'
export type Mend = 'country-from-number'

export type PreparedMember =
  | { readonly status: 'ready'; readonly cells: readonly string[]; readonly mends: readonly Mend[] }
  | { readonly status: 'left-out'; readonly reason: LeftOutReason }

export interface PrepareOptions {
  /** SHA-256 of a text in UTF-8 as lower-case hex; null for a plain file. */
  readonly hash: ((text: string) => string) | null
}

/**
 * Brings one person into a destination's form. Blank values stay blank: they are never hashed, and no country code
 * is put before an empty number.
 */
export function prepareMember(
  member: AudienceMember,
  destination: Destination,
  { hash }: PrepareOptions,
): PreparedMember {
  if (member.emails.length === 0 && member.numbers.length === 0) return { status: 'left-out', reason: 'no-identifier' }
  const fromNumber = member.country === '' ? (member.numbers.find(({ country }) => country)?.country ?? '') : ''
  const country = member.country || fromNumber
  if (destination.needsCountry && country === '') return { status: 'left-out', reason: 'no-country' }
  const values = normalForms(member, country)
  const cells = destination.columns.flatMap(({ source, repeats, isHashed }) =>
    Array.from({ length: repeats }, (_, i) => {
      const value = values[source][i] ?? ''
      if (value !== '' && isHashed && hash) return hash(value)
      // A plain file is opened by people too. Numbers in E.164 stay as the network compares them: they compute nothing.
      return harmlessCell(value)
    }),
  )
  return { status: 'ready', cells, mends: fromNumber ? ['country-from-number'] : [] }
}

/** Normal forms: e-mails and names in lower case without outer spaces, numbers in E.164, countries in two capitals. */
function normalForms(member: AudienceMember, country: string): Record<ColumnSource, readonly string[]> {
  return {
    email: distinct(member.emails.map((email) => email.trim().toLowerCase())),
    number: distinct(member.numbers.map(({ e164 }) => e164)),
    'given-name': [normalName(member.givenName)],
    'family-name': [normalName(member.familyName)],
    'postal-code': [member.postalCode.replace(/\s+/g, '').toUpperCase()],
    country: [country.toUpperCase()],
  }
}

const normalName = (name: string): string => name.normalize('NFC').replace(/\s+/g, ' ').trim().toLowerCase()

const distinct = (values: readonly string[]): string[] => [...new Set(values.filter((value) => value !== ''))]
