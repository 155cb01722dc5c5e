import { iso31662 } from 'iso-3166'
import { callingDigitsOf, countOfPlan, planCountries, readPhoneCell } from '../phone'
import { readCountry } from './countries'
import { fold } from './fold'
import { fieldOfHeading } from './headingWords'
import type { InferredColumn } from './inferCountry'
import { isPostalCodeOf, POSTAL_COUNTRIES } from './postalShapes'
import { TOWNS_OF } from './towns'

export type EvidenceKind = 'numbers' | 'codes' | 'postal' | 'regions' | 'towns' | 'domains' | 'language' | 'currency'

/** A number without a country code, and where the plan takes it as it stands. */
interface NationalNumber {
  /** How likely it is in each country that takes it, in powers of ten. */
  readonly chances: ReadonlyMap<string, number>
  readonly validIn: ReadonlySet<string>
  /** Where it is valid after a repair: a leading zero that a spreadsheet took, a code without its plus. */
  readonly mendedIn: ReadonlySet<string>
}

export interface CountryEvidence {
  /** How much likelier the list is of each country than of any, in powers of ten. */
  readonly scores: ReadonlyMap<string, number>
  /** What speaks for a country, in words, by kind. */
  readonly said: ReadonlyMap<string, ReadonlyMap<EvidenceKind, string>>
  readonly national: readonly NationalNumber[]
  /** Countries of the numbers that have a code. */
  readonly coded: readonly string[]
  /** How many rows name each country, where a column does so. */
  readonly rowsSay: ReadonlyMap<string, number> | null
}

/** Cells of one kind that are looked at: a handful is enough, more only takes time. */
const SAMPLE = 40

/** Where lists come from: elsewhere is a tenth as likely before anything is known. */
const USUAL = new Set(
  'US GB DE FR ES IT NL BE AT CH IE PT DK SE NO FI PL CZ SK HU RO BG GR HR SI EE LT LV LU TR UA RU CA AU NZ ZA IN JP CN HK SG KR TH MY PH ID VN MX BR AR CL CO PE AE SA EG IL MA NG KE'.split(
    ' ',
  ),
)
const UNUSUAL = -1.2
/** Many lists are of these: what they share with a small country is likelier theirs. */
const FREQUENT = new Set('US GB DE FR ES IT NL IN BR'.split(' '))
const OFTEN = 0.5
/** Islands whose numbers lie within the plan of another country; whoever writes such a list means that one. */
const WITHIN: Readonly<Record<string, string>> = {
  GG: 'GB',
  JE: 'GB',
  IM: 'GB',
  AX: 'FI',
  SJ: 'NO',
  BL: 'GP',
  MF: 'GP',
}

class Ledger {
  readonly scores = new Map<string, number>()
  readonly said = new Map<string, Map<EvidenceKind, string>>()
  constructor() {
    for (const country of planCountries())
      this.scores.set(country, FREQUENT.has(country) ? OFTEN : USUAL.has(country) ? 0 : UNUSUAL)
  }
  add(country: string, points: number): void {
    this.scores.set(country, (this.scores.get(country) ?? UNUSUAL) + points)
  }
  say(country: string, kind: EvidenceKind, words: string): void {
    const mine = this.said.get(country) ?? new Map<EvidenceKind, string>()
    mine.set(kind, words)
    this.said.set(country, mine)
  }
}

/** Weighs everything in some columns that tells a country. Blank cells are left out before. */
export function evidenceIn(
  columns: readonly InferredColumn[],
  languages: ReadonlyMap<string, number>,
): CountryEvidence {
  const ledger = new Ledger()
  const { national, coded } = weighNumbers(ledger, columns)
  weighPostalCodes(ledger, columns)
  weighRegions(ledger, columns)
  weighTowns(ledger, columns)
  weighDomains(ledger, columns)
  weighLanguages(ledger, languages)
  weighCurrency(ledger, columns)
  return { scores: evened(ledger.scores), said: ledger.said, national, coded, rowsSay: countriesOfRows(columns) }
}

/** Held against a country of which nothing was told: above zero only what the list itself has told. */
function evened(scores: ReadonlyMap<string, number>): Map<string, number> {
  const sorted = [...scores.values()].sort((a, b) => a - b)
  const middle = sorted[Math.floor(sorted.length / 2)] ?? 0
  return new Map([...scores].map(([country, score]) => [country, score - middle + UNUSUAL]))
}

const PHONE_SHAPE = /^(?:\D{0,12}[\s:])?[+(]?[\d\s()./\-–]{6,26}(?:\s?(?:x|ext\.?|#)\s?\d{1,5})?$/i
const CODED = /^\s*(?:\+|00(?=[1-9]))/

function weighNumbers(ledger: Ledger, columns: readonly InferredColumn[]) {
  const cells = columns.filter(mayHoldNumbers).flatMap((column) => column.cells.slice(0, SAMPLE))
  const coded = cells
    .filter((cell) => CODED.test(cell))
    .flatMap((cell) => {
      const [number] = readPhoneCell(cell, { country: null }).numbers
      return number?.valid && number.country ? [WITHIN[number.country] ?? number.country] : []
    })
  const plain = cells.filter((cell) => !CODED.test(cell)).slice(0, SAMPLE)
  const national = plain.flatMap((cell) => readNational(cell, ledger.scores.keys()) ?? [])
  for (const country of ledger.scores.keys()) ledger.add(country, weightOfNumbers(national, country))
  for (const country of new Set(coded)) {
    const n = coded.filter((one) => one === country).length
    // Whoever writes codes may write to anywhere: a hint, and a weighty one where all are alike.
    ledger.add(country, Math.min(4, (2.5 * n) / coded.length + Math.min(1.5, n / 6)))
    ledger.say(country, 'codes', `${n} of ${coded.length} numbers with a code are of there`)
  }
  sayValid(ledger, national)
  return { national, coded }
}

/** A column whose cells can be numbers: by its heading, or by most of its cells. */
function mayHoldNumbers({ heading, cells }: InferredColumn): boolean {
  const named = fieldOfHeading(heading)?.field
  if (cells.length === 0 || (named !== undefined && named !== 'number' && named !== 'none')) return false
  const shaped = cells.filter((cell) => {
    const digits = cell.replace(/\D/g, '').length
    return PHONE_SHAPE.test(cell.trim()) && digits >= 7 && digits <= 15
  }).length
  if (named === 'number') return shaped > 0
  return named === undefined && shaped / cells.length > 0.6 && !isOtherDigits(cells)
}

/** Digits that are something else: dates, and counters or keys that rise by one. */
function isOtherDigits(cells: readonly string[]): boolean {
  const dates = cells.filter((cell) => /^\d{1,4}[./-]\d{1,2}[./-]\d{1,4}/.test(cell.trim())).length
  if (dates / cells.length > 0.5) return true
  const numbers = cells.map((cell) => Number(cell.trim()))
  return cells.length > 2 && numbers.every((n, i) => i === 0 || n - (numbers[i - 1] ?? 0) === 1)
}

/** How likely a number that no plan takes is, as one of a list of that country: a slip, or one from abroad. */
const INVALID = -13
/** Lengths of numbers that a plan gives out side by side. */
const LENGTHS_IN_USE = [7, 8, 9, 10, 11]

/**
 * A number tells of a country by how few there are like it: where the plan takes it, one of so many; where it takes
 * none such, hardly possible. What is read only after a repair counts less. Null where no plan takes it.
 */
function readNational(cell: string, countries: Iterable<string>): NationalNumber | null {
  const chances = new Map<string, number>()
  const validIn = new Set<string>()
  const mendedIn = new Set<string>()
  for (const country of countries) {
    const reading = readPhoneCell(cell, { country })
    const [number] = reading.numbers
    if (!number?.valid || !number.country || (number.country !== country && WITHIN[number.country] !== country))
      continue
    const isHurt = reading.repairs.some((repair) => repair !== 'label-taken-off' && repair !== 'several-numbers')
    chances.set(country, Math.max(INVALID, chanceOf(country, number.e164) - (isHurt ? 1.5 : 0)))
    const takes = isHurt ? mendedIn : validIn
    takes.add(country)
  }
  return chances.size === 0 ? null : { chances, validIn, mendedIn }
}

/** Numbers of one list are alike: how few there are like them is told by so many, and more tell nothing new. */
const MOST_TELLING = 8
/** One cell may be wrong: it does not settle alone what many say. */
const OF_ONE_CELL = 0.8

/** What all numbers say of a country: how likely those are that its plan takes, and that it does not take the others. */
function weightOfNumbers(national: readonly NationalNumber[], country: string): number {
  const chances = national.flatMap(({ chances }) => chances.get(country) ?? [])
  const mean = chances.length > 0 ? chances.reduce((sum, one) => sum + one, 0) / chances.length : INVALID
  const others = national.length - chances.length
  return OF_ONE_CELL * (mean * Math.min(national.length, MOST_TELLING) + others * (INVALID - mean))
}

/** The chance of one number among all its plan gives out, in powers of ten. */
function chanceOf(country: string, e164: string): number {
  const national = e164.length - 1 - callingDigitsOf(country).length
  const lengths = LENGTHS_IN_USE.filter((length) => countOfPlan(country, length) > 1e5).length
  return -Math.log10(Math.max(1, countOfPlan(country, national)) * Math.max(1, lengths))
}

function sayValid(ledger: Ledger, national: readonly NationalNumber[]): void {
  if (national.length === 0) return
  for (const country of ledger.scores.keys()) {
    const n = national.filter(({ validIn }) => validIn.has(country)).length
    if (n === 0) continue
    const elsewhere = [...ledger.scores.keys()].some(
      (other) =>
        other !== country && USUAL.has(other) && national.filter(({ validIn }) => validIn.has(other)).length >= n,
    )
    ledger.say(
      country,
      'numbers',
      `${n} of ${national.length} numbers are valid there${elsewhere ? '' : ' and nowhere else so well'}`,
    )
  }
}

function weighPostalCodes(ledger: Ledger, columns: readonly InferredColumn[]): void {
  const cells = columns.filter(mayHoldPostalCodes).flatMap((column) => column.cells.slice(0, SAMPLE))
  if (cells.length === 0) return
  for (const country of ledger.scores.keys()) {
    if (!POSTAL_COUNTRIES.includes(country)) {
      ledger.add(country, -0.5)
      continue
    }
    const fits = cells.filter((cell) => isPostalCodeOf(cell, country) || lacksZero(cell, country)).length
    ledger.add(country, fits / cells.length > 0.8 ? 0.5 : -Math.min(4, 4 * (1 - fits / cells.length)))
    if (fits / cells.length > 0.8) ledger.say(country, 'postal', 'the postal codes fit')
  }
}

/** Codes of a form that little else has: letters among the digits, or a dash. */
export const TELLING_POSTAL =
  /^(?:\d{2}-\d{3}|\d{4}-\d{3}|\d{5}-\d{3}|[A-Z]{1,2}\d[A-Z\d]? ?\d[A-Z]{2}|[A-Z]\d[A-Z] ?\d[A-Z]\d|\d{4} ?[A-Z]{2}|〒\d{3}-\d{4})$/i

function mayHoldPostalCodes({ heading, cells }: InferredColumn): boolean {
  const named = fieldOfHeading(heading)?.field
  if (cells.length === 0) return false
  return named === 'postal-code' || (named === undefined && cells.every((cell) => TELLING_POSTAL.test(cell.trim())))
}

/** A spreadsheet takes a leading zero for nothing. */
const lacksZero = (cell: string, country: string): boolean =>
  /^\d{3,4}$/.test(cell.trim()) && isPostalCodeOf(`0${cell.trim()}`, country) === true

let regions: ReadonlyMap<string, ReadonlySet<string>> | null = null

/** Countries by the folded names and codes of their subdivisions (ISO 3166-2). */
function regionsOf(): ReadonlyMap<string, ReadonlySet<string>> {
  if (regions) return regions
  const found = new Map<string, Set<string>>()
  const put = (key: string, country: string) => {
    const countries = found.get(key) ?? new Set<string>()
    countries.add(country)
    found.set(key, countries)
  }
  for (const { code, name } of iso31662) {
    const country = code.slice(0, 2)
    if (/^[A-Z]{2,3}$/.test(code.slice(3))) put(code.slice(3).toLowerCase(), country)
    put(fold(name.replace(/\s*[([,].*$/, '')), country)
  }
  regions = found
  return found
}

function weighRegions(ledger: Ledger, columns: readonly InferredColumn[]): void {
  for (const { heading, cells } of columns) {
    const named = fieldOfHeading(heading)?.field
    if (named !== 'region' && named !== undefined) continue
    const sample = cells.slice(0, SAMPLE)
    const found = sample.map((cell) => regionsOf().get(fold(cell.trim()).replace(/\./g, '')))
    const known = found.filter((countries) => countries !== undefined)
    if (known.length === 0 || (named === undefined && (known.length / sample.length < 0.8 || sample.length < 3)))
      continue
    for (const country of ledger.scores.keys()) {
      const n = known.filter((countries) => countries.has(country)).length
      if (n === 0) continue
      ledger.add(country, Math.min(4, n * 1.2) - (known.length - n) * 0.8)
      if (n / known.length > 0.5)
        ledger.say(country, 'regions', `regions such as ${examples(sample, (cell) => isRegionOf(cell, country))}`)
    }
  }
}

const isRegionOf = (cell: string, country: string): boolean =>
  regionsOf().get(fold(cell.trim()).replace(/\./g, ''))?.has(country) ?? false

function weighTowns(ledger: Ledger, columns: readonly InferredColumn[]): void {
  const cells = columns
    .filter(({ heading }) => ['city', undefined].includes(fieldOfHeading(heading)?.field))
    .flatMap((column) => column.cells.slice(0, SAMPLE))
    .map((cell) => cell.trim().replace(/\s*[(,/].*$/, ''))
  const folded = new Map(cells.map((cell) => [cell, fold(cell)]))
  for (const [country, towns] of TOWNS_OF) {
    const isOf = (cell: string) => towns.has(folded.get(cell) ?? '')
    const found = cells.filter(isOf)
    if (found.length === 0) continue
    ledger.add(country, Math.min(4, found.length * 1.3))
    ledger.say(country, 'towns', `towns such as ${examples(cells, isOf)}`)
  }
}

function examples(cells: readonly string[], fits: (cell: string) => boolean): string {
  return [...new Set(cells.filter(fits).map((cell) => cell.trim()))].slice(0, 3).join(', ')
}

/** Endings of countries that everybody uses. */
const ANYBODYS = new Set('io ai co me tv cc fm gg ly to ws vc la nu st im sh ac'.split(' '))
/** The country of a domain's ending; null for those that are no country's alone. */
export function countryOfEnding(ending: string): string | null {
  const small = ending.toLowerCase()
  if (small.length !== 2 || ANYBODYS.has(small)) return null
  return small === 'uk' ? 'GB' : small.toUpperCase()
}

const ENDING = /(?:@|\/\/|www\.)[\w.-]+\.([a-z]{2})(?:[/?#:>\s]|$)|^[\w-]+(?:\.[\w-]+)+\.([a-z]{2})(?:\/|$)/i

function weighDomains(ledger: Ledger, columns: readonly InferredColumn[]): void {
  const endings = columns
    .flatMap((column) => column.cells.slice(0, SAMPLE))
    .flatMap((cell) => {
      const match = ENDING.exec(cell.trim())
      return [countryOfEnding(match?.[1] ?? match?.[2] ?? '')].flatMap((country) => country ?? [])
    })
  for (const country of new Set(endings)) {
    if (!ledger.scores.has(country)) continue
    const n = endings.filter((one) => one === country).length
    ledger.add(country, Math.min(3.5, n * 0.9))
    ledger.say(
      country,
      'domains',
      `${n === 1 ? 'an address ends' : `${n} addresses end`} in .${country === 'GB' ? 'uk' : country.toLowerCase()}`,
    )
  }
}

function weighLanguages(ledger: Ledger, languages: ReadonlyMap<string, number>): void {
  for (const [language, share] of languages)
    for (const [i, country] of (COUNTRIES_OF[language] ?? []).entries()) {
      ledger.add(country, (language === 'en' ? 0.6 : i === 0 ? 2 : 1.7) * Math.min(1, share * 2))
      if (language !== 'en') ledger.say(country, 'language', `the headings are ${LANGUAGE_NAMES[language] ?? language}`)
    }
}

/** Where the headings of a language are written, the likeliest first. */
const COUNTRIES_OF: Readonly<Record<string, readonly string[]>> = {
  // English headings stand over lists of any country: a hint, and nothing that is said.
  en: ['US', 'GB', 'CA', 'AU', 'IE', 'NZ', 'IN', 'ZA', 'SG'],
  de: ['DE', 'AT', 'CH', 'LI', 'LU'],
  fr: ['FR', 'BE', 'CH', 'CA', 'LU', 'MA', 'TN'],
  es: ['ES', 'MX', 'AR', 'CO', 'CL', 'PE', 'EC', 'UY'],
  it: ['IT', 'CH', 'SM'],
  nl: ['NL', 'BE'],
  pt: ['PT', 'BR'],
  pl: ['PL'],
  cs: ['CZ'],
  sk: ['SK'],
  hu: ['HU'],
  ro: ['RO', 'MD'],
  sv: ['SE', 'FI'],
  da: ['DK'],
  nb: ['NO'],
  fi: ['FI'],
  tr: ['TR'],
  el: ['GR', 'CY'],
  ru: ['RU', 'BY', 'KZ'],
  uk: ['UA'],
  ar: ['SA', 'AE', 'EG', 'MA', 'JO', 'KW'],
  he: ['IL'],
  ja: ['JP'],
  zh: ['CN', 'TW', 'HK', 'SG'],
  ko: ['KR'],
}

const LANGUAGE_NAMES: Readonly<Record<string, string>> = {
  de: 'German',
  fr: 'French',
  es: 'Spanish',
  it: 'Italian',
  nl: 'Dutch',
  pt: 'Portuguese',
  pl: 'Polish',
  cs: 'Czech',
  sk: 'Slovak',
  hu: 'Hungarian',
  ro: 'Romanian',
  sv: 'Swedish',
  da: 'Danish',
  nb: 'Norwegian',
  fi: 'Finnish',
  tr: 'Turkish',
  el: 'Greek',
  ru: 'Russian',
  uk: 'Ukrainian',
  ar: 'Arabic',
  he: 'Hebrew',
  ja: 'Japanese',
  zh: 'Chinese',
  ko: 'Korean',
}

const CURRENCIES: readonly (readonly [RegExp, readonly string[]])[] = [
  [/£\s?\d|\d\s?GBP|\bGBP\b/, ['GB']],
  [/\bCHF\b|\bSFr\.?/, ['CH', 'LI']],
  [/\d\s?zł|\bPLN\b/, ['PL']],
  [/\d\s?Kč|\bCZK\b/, ['CZ']],
  [/\bSEK\b/, ['SE']],
  [/\bNOK\b/, ['NO']],
  [/\bDKK\b/, ['DK']],
  [/₹|\bINR\b/, ['IN']],
  [/R\$\s?\d|\bBRL\b/, ['BR']],
  [/₺|\bTRY\b/, ['TR']],
  [/₽|\bRUB\b/, ['RU']],
  [/¥|\bJPY\b/, ['JP']],
  [/\bMXN\b/, ['MX']],
  [/\bAUD\b|A\$\s?\d/, ['AU']],
  [/\bCAD\b|C\$\s?\d/, ['CA']],
  [/\bUSD\b/, ['US']],
]

function weighCurrency(ledger: Ledger, columns: readonly InferredColumn[]): void {
  const texts = columns.flatMap(({ heading, cells }) => [heading, ...cells.slice(0, 8)])
  for (const [pattern, countries] of CURRENCIES) {
    if (!texts.some((text) => pattern.test(text))) continue
    for (const country of countries) {
      ledger.add(country, 1)
      ledger.say(country, 'currency', 'amounts are in its money')
    }
  }
}

/** A column that names the country of most rows. */
function countriesOfRows(columns: readonly InferredColumn[]): ReadonlyMap<string, number> | null {
  for (const { heading, cells } of columns) {
    if (fieldOfHeading(heading)?.field !== 'country' || cells.length === 0) continue
    const found = cells.flatMap((cell) => readCountry(cell) ?? [])
    if (found.length / cells.length < 0.6) continue
    const rows = new Map<string, number>()
    for (const country of found) rows.set(country, (rows.get(country) ?? 0) + 1)
    return rows
  }
  return null
}
