import { readCountry } from '../table'
import type { Business } from './business'
import type { Block, Page } from './page'

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

/**
 * The country a page is of: by the address it gives, its tax number or account, the ending of its domain, the region of
 * its language, its language. Null where nothing tells.
 */
export function countryOf({ language, blocks }: Page, business: Business | null, url: string): string | null {
  const told = business && business.country !== '' ? readCountry(business.country) : null
  const written = told ?? countryOfAddress(blocks) ?? countryOfAccounts(blocks)
  if (written) return written
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

/** Longer than this no address is, and shorter than this no name of a country in one. */
const LONGEST_ADDRESS = 160
const SHORTEST_NAME = 4

/** The name of a country at the end of an address: behind a comma, a dot or on a line of its own. */
function countryOfAddress(blocks: readonly Block[]): string | null {
  for (const { text } of blocks) {
    if (text.length > LONGEST_ADDRESS || !/\d/.test(text)) continue
    const parts = text.split(/[,·|\n–]/).map((part) => part.trim())
    const country = parts
      .slice(1)
      .filter((part) => part.length >= SHORTEST_NAME && !/\d/.test(part))
      .map((part) => readCountry(part))
      .find((found) => found !== null)
    if (country) return country
  }
  return null
}

/** A tax number of the European Union, or an IBAN (ISO 13616), begins with the letters of its country. */
const ACCOUNT =
  /(?:\b(?:vat|ust|uid|tva|btw|iva|nif|mwst|moms|tax)\b[^\n]{0,24}?|\biban\b[^a-z0-9\n]{0,4})\b([a-z]{2})(?:\d{2}[ \da-z]{6,}|u?\d{8,12})/iu
/** Greece has other letters in its tax numbers. */
const TAX_LETTERS: Readonly<Record<string, string>> = { EL: 'GR' }

function countryOfAccounts(blocks: readonly Block[]): string | null {
  for (const { text } of blocks) {
    const letters = ACCOUNT.exec(text)?.[1]?.toUpperCase()
    const country = letters ? readCountry(TAX_LETTERS[letters] ?? letters) : null
    if (country) return country
  }
  return null
}
