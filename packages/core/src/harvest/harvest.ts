import { readCountry } from '../table'
import { type Business, businessOf } from './business'
import { findEmails } from './findEmails'
import { type Finding, findNumbers } from './findNumbers'
import { type Page, readPage } from './page'

export interface Harvest {
  readonly findings: readonly Finding[]
  readonly business: Pick<Business, 'name' | 'address' | 'openingHours'> | null
  /** The country its numbers are dialled from, ISO 3166-1 alpha-2; null where neither the caller nor the page tells. */
  readonly country: string | null
}

export interface HarvestOptions {
  /** Where the page stands. */
  readonly url: string
  /** ISO 3166-1 alpha-2, where it is known; the page is asked else. */
  readonly country?: string | null
}

/** From this confidence on a finding is taken by itself. */
export const TAKEN_FROM = 0.5

/**
 * Numbers and addresses on a page: links to dial, structured data, cells and text beside words for telephone, text
 * alone. What looks alike (orders, taxes, dates, coordinates, accounts, prices, fax lines) is left out. Each value once,
 * as it was found best.
 */
export function harvest(html: string, { url, country = null }: HarvestOptions): Harvest {
  const page = readPage(html)
  const business = businessOf(page)
  const dialled = country ?? countryOf(page, business, url)
  const all = [...findNumbers(page, business, dialled), ...findEmails(page, business)]
  return {
    findings: bestOfEach(all),
    business: business && business.name !== '' ? shown(business) : null,
    country: dialled,
  }
}

const shown = ({ name, address, openingHours }: Business): NonNullable<Harvest['business']> => ({
  name,
  address,
  openingHours,
})

/** Each value once, as it was found best, in the order of their first finding; surer by being found in several ways. */
function bestOfEach(all: readonly Finding[]): readonly Finding[] {
  const best = new Map<string, Finding>()
  const ways = new Map<string, Set<string>>()
  for (const one of all) {
    const key = `${one.kind} ${one.value}`
    ways.set(key, (ways.get(key) ?? new Set()).add(one.how))
    const known = best.get(key)
    if (!known || one.confidence > known.confidence) best.set(key, one)
  }
  return [...best].map(([key, one]) =>
    (ways.get(key)?.size ?? 1) > 1 ? { ...one, confidence: Math.max(one.confidence, surer(one.confidence)) } : one,
  )
}

const surer = (confidence: number): number => Math.round((1 - (1 - confidence) / 2) * 100) / 100

/** Endings of domains that are no country's, or another one's than their letters say. */
const ENDINGS: Readonly<Record<string, string>> = { uk: 'GB' }
const NO_COUNTRY: ReadonlySet<string> = new Set(['io', 'co', 'me', 'tv', 'ai', 'app', 'eu', 'cc', 'fm', 'ly', 'to'])
/** Languages that are spoken in one country above all, where nothing else tells. */
const HOME: Readonly<Record<string, string>> = {
  de: 'DE',
  fr: 'FR',
  it: 'IT',
  nl: 'NL',
  da: 'DK',
  sv: 'SE',
  nb: 'NO',
  no: 'NO',
  fi: 'FI',
  pl: 'PL',
  cs: 'CZ',
  ja: 'JP',
}

/** The country a page is of: by its address, the region of its language, the ending of its domain, its language. */
function countryOf({ language }: Page, business: Business | null, url: string): string | null {
  const told = business && business.country !== '' ? readCountry(business.country) : null
  if (told) return told
  const region = /^[a-z]{2,3}[-_]([A-Za-z]{2})\b/.exec(language)?.[1]?.toUpperCase()
  const ending = endingOf(url)
  return ending ?? region ?? HOME[language.slice(0, 2).toLowerCase()] ?? null
}

function endingOf(url: string): string | null {
  const host = /^[a-z]+:\/\/([^/:?#]+)/i.exec(url)?.[1]?.toLowerCase() ?? ''
  const ending = host.split('.').at(-1) ?? ''
  if (ENDINGS[ending]) return ENDINGS[ending]
  return /^[a-z]{2}$/.test(ending) && !NO_COUNTRY.has(ending) ? readCountry(ending) : null
}
