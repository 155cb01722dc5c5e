import { contradictsZero, type PlaceAround } from './postalZeros'

/** Countries whose codes are digits only, and how many. A spreadsheet takes their leading zeros for nothing. */
const DIGITS: Record<string, number> = {
  US: 5,
  DE: 5,
  FR: 5,
  IT: 5,
  ES: 5,
  FI: 5,
  EE: 5,
  AT: 4,
  CH: 4,
  BE: 4,
  DK: 4,
  NO: 4,
  HU: 4,
  LU: 4,
  AU: 4,
}

export interface PostalCode {
  readonly code: string
  /** Nothing, another way of writing, or zeros put back. */
  readonly repair: null | 'form' | 'zero'
  /** What it would be with a zero in front that state or town contradict; empty where there is no such doubt. */
  readonly doubted: string
  /** The part behind the dash of a longer American code. */
  readonly extension: string
}

/**
 * A postal code in the form of its country: always text, leading zeros put back where exactly one is missing or where
 * the country's codes can begin with two; but not where state or town say that none is missing.
 */
export function tidyPostalCode(
  written: string,
  country: string,
  around: PlaceAround = { region: '', town: '' },
): PostalCode {
  const text = written.trim().toUpperCase()
  const bare = text.replace(/^(?:[A-Z]{1,2}-)(?=\d{4,5}$)/, '').replace(/\.0$/, '')
  const length = DIGITS[country]
  if (country === 'US') {
    const long = /^(\d{5})[- ]?(\d{4})$/.exec(bare)
    if (long) return { code: long[1] ?? '', repair: 'form', extension: long[2] ?? '', doubted: '' }
  }
  if (length !== undefined && /^\d+$/.test(bare)) {
    const missing = length - bare.length
    // Codes of these countries begin with one zero, American ones (Puerto Rico) with two.
    if (missing > 0 && missing <= (country === 'US' ? 2 : 1) && canLackZero(country))
      return contradictsZero(country, around)
        ? { ...asForm(written, written), doubted: '0'.repeat(missing) + bare }
        : { code: '0'.repeat(missing) + bare, repair: 'zero', extension: '', doubted: '' }
    return asForm(written, bare)
  }
  if (country === 'GB') return asForm(written, spaced(text, /^([A-Z]{1,2}\d[A-Z\d]?)(\d[A-Z]{2})$/))
  if (country === 'NL') return asForm(written, spaced(text, /^(\d{4})([A-Z]{2})$/))
  if (country === 'CA') return asForm(written, spaced(text, /^([A-Z]\d[A-Z])(\d[A-Z]\d)$/))
  if (country === 'SE') return asForm(written, spaced(text, /^(\d{3})(\d{2})$/))
  return asForm(written, text === written.trim().toUpperCase() && /\d/.test(text) ? text : written.trim())
}

const canLackZero = (country: string): boolean =>
  ['US', 'DE', 'FR', 'IT', 'ES', 'FI', 'NO', 'AU', 'DK'].includes(country)

function spaced(text: string, shape: RegExp): string {
  const match = shape.exec(text.replace(/\s/g, ''))
  return match ? `${match[1]} ${match[2]}` : text
}

const asForm = (written: string, code: string): PostalCode => ({
  code,
  repair: code === written ? null : 'form',
  extension: '',
  doubted: '',
})
