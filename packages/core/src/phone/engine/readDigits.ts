import type { LineType } from '../types'
import { DIGITS, putDigits, REWRITTEN, startsWith, textOf, ZERO } from './digits'
import {
  type CallingCode,
  callingCodeOf,
  type Lengths,
  LONGEST_LENGTH,
  mainRulesOf,
  NOTHING,
  type Outcome,
  outcomeOf,
  type RegionRules,
} from './tables'

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
/** Longer digits are no number for the reference. From 16 digits on it rounds what it keeps; here nothing is. */
const LONGEST = 17

type LengthTest = 'possible' | 'local-only' | 'too-short' | 'too-long' | 'invalid'

const NO_CODE: CallingCode = {
  code: 0,
  text: '',
  plus: '+',
  start: 0,
  regions: [],
  main: { possible: 0, local: 0, least: 0, most: 0 },
  trunk: '',
  formats: [],
  formatsAbroad: [],
}

/** The number that was read last: its national digits stand in the buffer. */
export const found = { code: NO_CODE, from: 0, to: 0, outcome: NOTHING as Outcome }

/** True where the number that was read last is valid by the plan. */
export const isFoundValid = (): boolean => found.outcome.type !== -1

/**
 * Reads digits as the reference's parser does: dialling prefix, calling code, national prefix, then the automaton.
 * The number is left in `found`.
 * @param from where the digits start in the buffer; two at least
 * @param hasPlus true where a plus stood before them
 * @param home rules of the country where it is dialled from, or null
 * @returns false where the reference refuses the digits as no number
 */
export function readDigits(from: number, to: number, hasPlus: boolean, home: RegionRules | null): boolean {
  if (!hasPlus && !home) return false
  const abroad = hasPlus ? from : behindIdd(from, to, home)
  if (abroad === -1) return readAtHome(from, to, home as RegionRules)
  if (to - abroad <= 2) return false
  const code = codeAtStart(abroad, to)
  if (code) return readNational(abroad + code.text.length, to, code, mainRulesOf(code))
  return hasPlus && home !== null && readWithoutPlus(from, to, home)
}

/** Digits behind a plus that begin with no calling code: the plus counts for nothing where one follows all the same. */
function readWithoutPlus(from: number, to: number, home: RegionRules): boolean {
  const abroad = behindIdd(from, to, home)
  if (abroad === -1) return readWithOwnCode(from, to, home) ?? false
  const code = to - abroad > 2 ? codeAtStart(abroad, to) : undefined
  return code !== undefined && readNational(abroad + code.text.length, to, code, mainRulesOf(code))
}

/** Leaves a number in `found` that is known from elsewhere; the national digits are put behind the others. */
export function setFound(code: CallingCode, national: string): void {
  settle(REWRITTEN, putDigits(national, REWRITTEN), code)
}

/** Where the digits start behind a dialling prefix for abroad; -1 where there is none. */
function behindIdd(from: number, to: number, home: RegionRules | null): number {
  const length = iddLength(from, to, home)
  // No calling code starts with a zero.
  return length === 0 || DIGITS[from + length] === ZERO ? -1 : from + length
}

function iddLength(from: number, to: number, home: RegionRules | null): number {
  if (home === null || home.idd === null) return 0
  if (home.plainIdds !== null) return lengthAtStart(from, to, home.plainIdds)
  return home.idd.exec(textOf('', from, to))?.[0].length ?? 0
}

/** Length of the first of these that the digits start with. */
function lengthAtStart(from: number, to: number, alternatives: readonly string[]): number {
  for (let i = 0; i < alternatives.length; i++) {
    const digits = alternatives[i] as string
    if (startsWith(from, to, digits)) return digits.length
  }
  return 0
}

/** The calling code that the digits begin with; undefined where they begin with none. */
export function codeAtStart(from: number, to: number): CallingCode | undefined {
  if (DIGITS[from] === ZERO) return undefined
  let code = 0
  for (let i = from; i < from + 3 && i < to; i++) {
    code = code * 10 + (DIGITS[i] as number) - ZERO
    const known = callingCodeOf(code)
    if (known) return known
  }
  return undefined
}

function readAtHome(from: number, to: number, home: RegionRules): boolean {
  const code = callingCodeOf(home.code)
  return code !== undefined && (readWithOwnCode(from, to, home) ?? readNational(from, to, code, home))
}

/** Digits that begin with the country's own code, where they are a number only behind it; null where they are not. */
function readWithOwnCode(from: number, to: number, home: RegionRules): boolean | null {
  const code = callingCodeOf(home.code)
  if (!code || !startsWith(from, to, code.text)) return null
  const isBetter = !isGeneral(from, to, home, code)
  withoutPrefix(from + code.text.length, to, home, code)
  const { start, end } = stripped
  if ((isBetter && isGeneral(start, end, home, code)) || testLength(to - from, home.lengths) === 'too-long')
    return readNational(start, end, code, mainRulesOf(code))
  return null
}

function readNational(from: number, to: number, code: CallingCode, rules: RegionRules | null): boolean {
  if (to - from < 2) return false
  let start = from
  let end = to
  if (rules) {
    withoutPrefix(from, to, rules, code)
    const isSame = stripped.start === from && stripped.end === to
    const test = isSame ? 'possible' : testLength(stripped.end - stripped.start, rules.lengths)
    if (test === 'possible' || test === 'too-long') {
      start = stripped.start
      end = stripped.end
    }
  }
  const length = end - start
  if (length < 2 || length > LONGEST) return false
  settle(start, end, code)
  return true
}

function settle(from: number, to: number, code: CallingCode): void {
  found.code = code
  found.from = from
  found.to = to
  found.outcome = outcomeOf(code, from, to)
}

/** Country of the number that was read last; null where it is not valid or belongs to no country. */
export function foundCountry(): string | null {
  const place = found.code.regions[found.outcome.region]
  return place === undefined || place === '001' ? null : place
}

/** Line type of the number that was read last. */
export const foundLineType = (): LineType => TYPE_ORDER[found.outcome.type] ?? 'unknown'

/** The number that was read last, in full. */
export function planNumber(): PlanNumber {
  const { code, from, to } = found
  const valid = isFoundValid()
  const test = valid ? 'possible' : testLength(to - from, code.main)
  return {
    e164: textOf(code.plus, from, to),
    country: foundCountry(),
    countryCode: code.code,
    national: textOf('', from, to),
    extension: null,
    lineType: foundLineType(),
    valid,
    possible: test === 'possible',
    length: test === 'too-long' ? 'too-long' : test === 'too-short' || test === 'invalid' ? 'too-short' : 'fits',
  }
}

/** What is left of digits when their national prefix is off. */
const stripped = { start: 0, end: 0 }

/** Takes the national prefix off where the rest is a number too. Some prefixes are rewritten. */
function withoutPrefix(from: number, to: number, rules: RegionRules, code: CallingCode): void {
  takePrefix(from, to, rules)
  if (stripped.start === from && stripped.end === to) return
  if (isGeneral(from, to, rules, code) && !isGeneral(stripped.start, stripped.end, rules, code)) {
    stripped.start = from
    stripped.end = to
  }
}

function takePrefix(from: number, to: number, rules: RegionRules): void {
  stripped.start = from
  stripped.end = to
  if (rules.plainPrefixes !== null) {
    stripped.start = from + lengthAtStart(from, to, rules.plainPrefixes)
    return
  }
  if (!rules.prefix || to === from) return
  const digits = textOf('', from, to)
  const match = rules.prefix.exec(digits)
  if (!match) return
  if (rules.transform !== null && match.length > 1 && match.at(-1)) {
    stripped.start = REWRITTEN
    stripped.end = putDigits(digits.replace(rules.prefix, rules.transform), REWRITTEN)
  } else stripped.start = from + match[0].length
}

const isGeneral = (from: number, to: number, rules: RegionRules, code: CallingCode): boolean =>
  ((outcomeOf(code, from, to).general >>> rules.index) & 1) === 1

function testLength(length: number, { possible, local, least, most }: Lengths): LengthTest {
  if (least === -1) return 'invalid'
  if (length <= LONGEST_LENGTH && (local >>> length) & 1) return 'local-only'
  if (length < least) return 'too-short'
  if (length > most) return 'too-long'
  return (possible >>> length) & 1 ? 'possible' : 'invalid'
}
