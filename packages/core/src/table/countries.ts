/** Common spellings that no locale data has. */
const SPELLINGS: Record<string, string> = {
  uk: 'GB',
  'u k': 'GB',
  'great britain': 'GB',
  britain: 'GB',
  england: 'GB',
  scotland: 'GB',
  wales: 'GB',
  'northern ireland': 'GB',

  grossbritannien: 'GB',
  usa: 'US',
  'u s a': 'US',
  'u s': 'US',
  'united states of america': 'US',
  america: 'US',
  holland: 'NL',
  'the netherlands': 'NL',
  'republic of ireland': 'IE',
  eire: 'IE',
  brd: 'DE',
  czechia: 'CZ',
  'czech republic': 'CZ',
  deutschl: 'DE',
}
const LANGUAGES = ['en', 'de', 'fr', 'es', 'it', 'nl', 'pt', 'sv', 'da', 'nb', 'fi', 'pl', 'cs']
/** Three-letter codes (ISO 3166-1 alpha-3) of the countries lists come from most. */
const ALPHA3 =
  'GBR:GB USA:US DEU:DE FRA:FR AUT:AT CHE:CH IRL:IE NLD:NL BEL:BE ESP:ES ITA:IT PRT:PT SWE:SE DNK:DK NOR:NO FIN:FI POL:PL CZE:CZ CAN:CA AUS:AU NZL:NZ JPN:JP IND:IN BRA:BR MEX:MX LUX:LU'

let names: ReadonlyMap<string, string> | null = null

/** Country of any common spelling as ISO 3166-1 alpha-2; null where it is none that we know. */
export function readCountry(text: string): string | null {
  const key = keyOf(text)
  if (key === '') return null
  names ??= buildNames()
  return names.get(key) ?? null
}

const keyOf = (text: string): string =>
  text
    .trim()
    .toLowerCase()
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replaceAll('ß', 'ss')
    .replace(/[.,;'’-]+/g, ' ')
    .replace(/\s+/g, ' ')
    .trim()

function buildNames(): ReadonlyMap<string, string> {
  const found = new Map<string, string>()
  const english = new Intl.DisplayNames(['en'], { type: 'region', fallback: 'none' })
  const codes = twoLetterCodes().filter((code) => english.of(code) !== undefined && isCurrent(code))
  for (const language of LANGUAGES) {
    const display = new Intl.DisplayNames([language], { type: 'region', fallback: 'none' })
    for (const code of codes) {
      const name = display.of(code)
      if (name && !found.has(keyOf(name))) found.set(keyOf(name), code)
    }
  }
  for (const code of codes) found.set(code.toLowerCase(), code)
  for (const pair of ALPHA3.split(' ')) found.set(pair.slice(0, 3).toLowerCase(), pair.slice(4))
  for (const [spelling, code] of Object.entries(SPELLINGS)) found.set(spelling, code)
  return found
}

/** Codes that locale data names but ISO 3166-1 does not assign. */
const NOT_COUNTRIES = new Set([
  'EU',
  'EZ',
  'UN',
  'UK',
  'QO',
  'ZZ',
  'XA',
  'XB',
  'AC',
  'CP',
  'CQ',
  'DG',
  'EA',
  'IC',
  'TA',
])

/** Codes of countries that are gone (DD, SU, YU) stand for others today. */
const isCurrent = (code: string): boolean => !NOT_COUNTRIES.has(code) && new Intl.Locale(`und-${code}`).region === code

function twoLetterCodes(): string[] {
  const letters = [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ']
  return letters.flatMap((a) => letters.map((b) => a + b))
}
