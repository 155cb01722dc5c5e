import type { Page } from './page'

/** What a page says of the business it is about (schema.org). */
export interface Business {
  readonly name: string
  readonly address: string
  /** ISO 3166-1 alpha-2, or the name of a country as it stands; empty where none is told. */
  readonly country: string
  readonly telephones: readonly string[]
  readonly emails: readonly string[]
  readonly openingHours: readonly string[]
}

/** Deeper than this no data of a page is nested. */
const DEEPEST = 12
const MOST_THINGS = 2000

type Thing = Readonly<Record<string, unknown>>

/** All things in the data of a page, however they are nested. */
function thingsIn(data: unknown): readonly Thing[] {
  const things: Thing[] = []
  const look = (value: unknown, depth: number): void => {
    if (depth > DEEPEST || things.length > MOST_THINGS || value === null || typeof value !== 'object') return
    if (Array.isArray(value)) {
      for (const one of value) look(one, depth + 1)
      return
    }
    things.push(value as Thing)
    for (const one of Object.values(value)) look(one, depth + 1)
  }
  look(data, 0)
  return things
}

const texts = (value: unknown): readonly string[] => {
  if (typeof value === 'string' || typeof value === 'number') return [String(value).trim()].filter(Boolean)
  return Array.isArray(value) ? value.flatMap(texts) : []
}

/** The businesses, and whoever else has a telephone, in the data of a page: fax numbers are not theirs to be called by. */
export function businessOf({ data, marked }: Page): Business | null {
  const things = data.flatMap(thingsIn)
  const withPhone = things.filter((thing) => texts(thing.telephone).length > 0 || texts(thing.email).length > 0)
  const named = withPhone.find((thing) => texts(thing.name).length > 0) ?? things.find(isBusiness)
  const micro = (what: string) => marked.flatMap((one) => (one.what === what ? one.value : []))
  const telephones = [...withPhone.flatMap((thing) => texts(thing.telephone)), ...micro('telephone')]
  const emails = [...withPhone.flatMap((thing) => texts(thing.email)), ...micro('email')]
  const name = (named && texts(named.name)[0]) ?? micro('name')[0] ?? ''
  const address = named ? addressOf(named.address) : { text: '', country: '' }
  const openingHours = [...(named ? texts(named.openingHours) : []), ...micro('openingHours')]
  if (name === '' && telephones.length + emails.length === 0) return null
  return {
    name,
    address: address.text || microAddress(micro),
    country: address.country || (micro('addressCountry')[0] ?? ''),
    telephones: [...new Set(telephones)],
    emails: [...new Set(emails.map((one) => one.replace(/^mailto:/i, '')))],
    openingHours,
  }
}

const BUSINESS = /(?:Business|Organization|Restaurant|Hotel|Store|Lodging|Campground|Cafe|Corporation|Place)/i
const isBusiness = (thing: Thing): boolean =>
  texts(thing['@type']).some((type) => BUSINESS.test(type)) && texts(thing.name).length > 0

const PARTS = ['streetAddress', 'postalCode', 'addressLocality', 'addressRegion'] as const

function addressOf(address: unknown): { readonly text: string; readonly country: string } {
  const first = Array.isArray(address) ? address[0] : address
  if (typeof first === 'string') return { text: first.trim(), country: '' }
  if (first === null || typeof first !== 'object') return { text: '', country: '' }
  const thing = first as Thing
  const { addressCountry } = thing
  const country =
    addressCountry !== null && typeof addressCountry === 'object' && !Array.isArray(addressCountry)
      ? texts((addressCountry as Thing).name)[0]
      : texts(addressCountry)[0]
  const text = [...PARTS.flatMap((part) => texts(thing[part])), country ?? ''].filter(Boolean).join(', ')
  return { text, country: country ?? '' }
}

const microAddress = (micro: (what: string) => readonly string[]): string =>
  [...PARTS, 'addressCountry'].flatMap((part) => micro(part)[0] ?? []).join(', ')
