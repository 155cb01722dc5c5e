import type { LineType } from '../types'
import { type CallingCode, callingCodeOf, type Lengths, outcomeOf, type RegionRules, rulesOf } from './tables'

/** What the numbering plan makes of one string, before any repair of ours. */
export interface PlanNumber {
  readonly e164: string
  readonly country: string | null
  readonly countryCode: number
  /** National significant number, Italian leading zeros included. */
  readonly national: string
  readonly extension: string | null
  readonly lineType: LineType
  readonly valid: boolean
  readonly possible: boolean
  readonly length: 'fits' | 'too-short' | 'too-long'
}

/** In the order of the compiled tables. */
const TYPE_ORDER: readonly LineType[] = [
  'premium',
  'toll-free',
  'shared-cost',
  'voip',
  'personal',
  'pager',
  'uan',
  'voicemail',
  'fixed',
  'mobile',
  'fixed-or-mobile',
]
/** Longer numbers are rounded by the reference, whose judgement of them is its own. */
const LONGEST_EXACT = 15

/** A number for which the reference itself must be asked. */
export const ASK_REFERENCE = Symbol('ask the reference')

type LengthTest = 'possible' | 'local-only' | 'too-short' | 'too-long' | 'invalid'

/**
 * Reads digits as the reference's parser does: dialling prefix, calling code, national prefix, then the automaton.
 * @param digits ASCII digits only, at least three
 * @param hasPlus true where a plus stood before them
 * @param country where it is dialled from, or null
 * @returns null where the reference refuses the text as no number
 */
export function readDigits(
  digits: string,
  hasPlus: boolean,
  country: string | null,
): PlanNumber | null | typeof ASK_REFERENCE {
  const home = country === null ? null : rulesOf(country)
  if (!hasPlus && !home) return null
  const abroad = hasPlus ? digits : withoutIdd(digits, home)
  if (abroad === null) return readAtHome(digits, home as RegionRules)
  if (abroad.length <= 2) return null
  const code = codeAtStart(abroad)
  if (!code) return hasPlus ? ASK_REFERENCE : null
  return readNational(abroad.slice(String(code.code).length), code, rulesIn(code, home))
}

/** The digits behind a dialling prefix for abroad; null where there is none. */
function withoutIdd(digits: string, home: RegionRules | null): string | null {
  const length = iddLength(digits, home)
  if (length === 0) return null
  const rest = digits.slice(length)
  // No calling code starts with a zero.
  return rest.startsWith('0') ? null : rest
}

function iddLength(digits: string, home: RegionRules | null): number {
  if (home === null || home.idd === null) return 0
  if (home.plainIdd !== null) return digits.startsWith(home.plainIdd) ? home.plainIdd.length : 0
  return home.idd.exec(digits)?.[0].length ?? 0
}

function codeAtStart(digits: string): CallingCode | undefined {
  if (digits.charCodeAt(0) === 48) return undefined
  let code = 0
  for (let i = 0; i < 3 && i < digits.length; i++) {
    code = code * 10 + digits.charCodeAt(i) - 48
    const found = callingCodeOf(code)
    if (found) return found
  }
  return undefined
}

function readAtHome(digits: string, home: RegionRules): PlanNumber | null | typeof ASK_REFERENCE {
  const code = callingCodeOf(home.code)
  if (!code) return ASK_REFERENCE
  if (digits.startsWith(home.codeText)) {
    const rest = withoutPrefix(digits.slice(home.codeText.length), home, code)
    const isBetter = !isGeneral(digits, home, code) && isGeneral(rest, home, code)
    if (isBetter || testLength(digits, home.lengths) === 'too-long')
      return readNational(rest, code, rulesIn(code, home))
  }
  return readNational(digits, code, home)
}

/** Rules of the main region of a calling code, or of the home region where that is it. */
function rulesIn(code: CallingCode, home: RegionRules | null): RegionRules | null {
  const main = code.regions[0] ?? '001'
  return home && home.region === main ? home : rulesOf(main, code.code)
}

function readNational(
  digits: string,
  code: CallingCode,
  rules: RegionRules | null,
): PlanNumber | null | typeof ASK_REFERENCE {
  if (digits.length < 2) return null
  let national = digits
  if (rules) {
    const stripped = withoutPrefix(digits, rules, code)
    const test = stripped === digits ? 'possible' : testLength(stripped, rules.lengths)
    if (test === 'possible' || test === 'too-long') national = stripped
  }
  if (national.length < 2 || national.length > 17) return null
  if (national.length > LONGEST_EXACT) return ASK_REFERENCE
  return describe(national, code)
}

function describe(national: string, code: CallingCode): PlanNumber {
  const { region, type } = outcomeOf(code, national)
  const e164 = `+${code.code}${national}`
  const place = region === -1 ? null : (code.regions[region] ?? null)
  if (type !== -1) {
    return {
      e164,
      country: place === '001' ? null : place,
      countryCode: code.code,
      national,
      extension: null,
      lineType: TYPE_ORDER[type] ?? 'unknown',
      valid: true,
      possible: true,
      length: 'fits',
    }
  }
  const test = testLength(national, code.main)
  const length = test === 'too-long' ? 'too-long' : test === 'too-short' || test === 'invalid' ? 'too-short' : 'fits'
  return {
    e164,
    country: null,
    countryCode: code.code,
    national,
    extension: null,
    lineType: 'unknown',
    valid: false,
    possible: test === 'possible',
    length,
  }
}

/** The number without its national prefix, where it is a number without it too. Some prefixes are rewritten. */
function withoutPrefix(digits: string, rules: RegionRules, code: CallingCode): string {
  const stripped = prefixTaken(digits, rules)
  if (stripped === digits) return digits
  return isGeneral(digits, rules, code) && !isGeneral(stripped, rules, code) ? digits : stripped
}

function prefixTaken(digits: string, rules: RegionRules): string {
  if (rules.plainPrefix !== null)
    return digits.startsWith(rules.plainPrefix) ? digits.slice(rules.plainPrefix.length) : digits
  const match = digits === '' ? null : rules.prefix?.exec(digits)
  if (!rules.prefix || !match) return digits
  const isRewritten = rules.transform !== null && match.length > 1 && Boolean(match.at(-1))
  return isRewritten ? digits.replace(rules.prefix, rules.transform ?? '') : digits.slice(match[0].length)
}

const isGeneral = (digits: string, rules: RegionRules, code: CallingCode): boolean =>
  outcomeOf(code, digits).general.includes(rules.index)

function testLength(digits: string, { possible, local }: Lengths): LengthTest {
  const length = digits.length
  if (possible[0] === -1) return 'invalid'
  if (local.includes(length)) return 'local-only'
  const least = possible[0] ?? 0
  if (length === least) return 'possible'
  if (length < least) return 'too-short'
  if (length > (possible.at(-1) ?? 0)) return 'too-long'
  return possible.includes(length) ? 'possible' : 'invalid'
}
