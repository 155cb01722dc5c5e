import { type Ledger, SAMPLE } from './countryLedger'
import type { InferredColumn } from './inferCountry'

/** Endings of countries that everybody uses. */
const ANYBODYS = new Set('io ai co me tv cc fm gg ly to ws vc la nu st im sh ac'.split(' '))
/** The country of a domain's ending; null for those that are no country's alone. */
export function countryOfEnding(ending: string): string | null {
  const small = ending.toLowerCase()
  if (small.length !== 2 || ANYBODYS.has(small)) return null
  return small === 'uk' ? 'GB' : small.toUpperCase()
}

const ENDING = /(?:@|\/\/|www\.)[\w.-]+\.([a-z]{2})(?:[/?#:>\s]|$)|^[\w-]+(?:\.[\w-]+)+\.([a-z]{2})(?:\/|$)/i

export function weighDomains(ledger: Ledger, columns: readonly InferredColumn[]): void {
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

export function weighLanguages(ledger: Ledger, languages: ReadonlyMap<string, number>): void {
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

export function weighCurrency(ledger: Ledger, columns: readonly InferredColumn[]): void {
  const texts = columns.flatMap(({ heading, cells }) => [heading, ...cells.slice(0, 8)])
  for (const [pattern, countries] of CURRENCIES) {
    if (!texts.some((text) => pattern.test(text))) continue
    for (const country of countries) {
      ledger.add(country, 1)
      ledger.say(country, 'currency', 'amounts are in its money')
    }
  }
}
