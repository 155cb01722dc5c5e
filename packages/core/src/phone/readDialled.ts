import {
  COMPOSED,
  composeWithout,
  DIGITS,
  endsWith,
  putDigits,
  REWRITTEN,
  START,
  SWAPPED,
  startsWith,
  ZERO,
} from './engine/digits'
import { codeAtStart, found, foundLineType, isFoundValid } from './engine/readDigits'
import { type CallingCode, callingCodeOf, type RegionRules } from './engine/tables'
import { isFoundWrittenWithZero, isOpenPlan, readPlan } from './plan'
import type { Repair } from './types'

const NONE: readonly Repair[] = []
/** Before the digits a zero was lost. */
export const LOST_ZERO: readonly Repair[] = ['lost-zero']
const PREFIX: readonly Repair[] = ['international-prefix']
const NO_PLUS: readonly Repair[] = ['country-code-without-plus']
/** The calling code stands twice. */
export const TWICE: readonly Repair[] = ['country-code-twice']
/** Behind the calling code stands the zero that is dialled at home. */
export const TRUNK_ZERO: readonly Repair[] = ['trunk-zero']
const NO_PLUS_TRUNK_ZERO: readonly Repair[] = ['country-code-without-plus', 'trunk-zero']

/**
 * Two readings that compete, by what was mended for the one that is found.
 * `COMPETING`: the code stands without its plus, or a zero was lost before a number that looks like it.
 */
const COMPETING: readonly Repair[] = ['country-code-without-plus', 'lost-zero']
/** A zero was lost, or a number from abroad stands without its plus. */
export const LOST_OR_ABROAD: readonly Repair[] = ['lost-zero', 'country-code-without-plus']
/** Two zeros dial abroad, or the one of a number at home was hit twice. */
export const ABROAD_OR_TWICE: readonly Repair[] = ['international-prefix']

/** True where a person has to choose: `leaveRival` finds the other reading. */
export const isTwofold = (repairs: readonly Repair[]): boolean =>
  repairs === COMPETING || repairs === LOST_OR_ABROAD || repairs === ABROAD_OR_TWICE

/** Leaves the other of two readings in `found`, after the first one was taken. */
export function leaveRival(repairs: readonly Repair[], to: number, home: RegionRules | null): boolean {
  if (repairs === LOST_OR_ABROAD) return isValid(START, to, true, home)
  return isValid(repairs === ABROAD_OR_TWICE ? START + 1 : START, to, false, home)
}

/**
 * Reads digits as they are dialled: as they stand first, then with the dialling prefix mended. A valid number is left
 * in `found`.
 * @param to where the digits end in the buffer; they begin at its start
 * @param hasPlus true where a plus stood before them
 * @param home rules of the country where they are dialled, or null
 * @param stands whether they are a number as they stand, which is then in `found`
 * @returns what was mended; one of the lists of `isTwofold` where another reading is as likely; null where no way of reading gives a valid number
 */
export function readDialled(
  to: number,
  hasPlus: boolean,
  home: RegionRules | null,
  stands = readPlan(START, to, hasPlus, home),
): readonly Repair[] | null {
  const repairs = stands && isFoundValid() ? asWritten(to, hasPlus, home) : mended(to, hasPlus, home)
  if (repairs === null || repairs.length === 0 || home === null || hasPlus) return repairs
  if (repairs === LOST_ZERO && mayBeAbroad(to, home)) return LOST_OR_ABROAD
  if (repairs === PREFIX && mayBeAtHome(to, home)) return ABROAD_OR_TWICE
  return repairs
}

/** A number at home that is no mobile, and any number abroad behind a plus. */
function mayBeAbroad(to: number, home: RegionRules): boolean {
  if (to - START < LEAST_WITH_CODE || foundLineType() === 'mobile') return false
  return keepingFound(() => isValid(START, to, true, home) && found.code.code !== home.code)
}

/** Behind two zeros, and as valid at home behind one; in a plan that takes almost any digits only a mobile counts. */
function mayBeAtHome(to: number, home: RegionRules): boolean {
  if (found.code.code === home.code || !startsWith(START, to, '00')) return false
  return keepingFound(() => isValid(START + 1, to, false, home) && (!isOpenPlan(home) || foundLineType() === 'mobile'))
}

/** Looks at another reading, and leaves the one that was found as it was. */
export function keepingFound(look: () => boolean): boolean {
  const { code, from, to, outcome } = found
  // What a rule has rewritten stands where the look may write.
  const rewritten = from >= REWRITTEN ? DIGITS.slice(from, to) : null
  const answer = look()
  if (rewritten) DIGITS.set(rewritten, from)
  found.code = code
  found.from = from
  found.to = to
  found.outcome = outcome
  return answer
}

/** True where the zero behind the code may have changed places with the digit behind it: a mobile then. */
export function mayBeSwappedZero(): boolean {
  const { code, from, to } = found
  let at = putDigits(code.text, SWAPPED)
  DIGITS[at++] = DIGITS[from] as number
  DIGITS[at++] = ZERO
  for (let i = from + 1; i < to; i++) DIGITS[at++] = DIGITS[i] as number
  return keepingFound(() => isValid(SWAPPED, at, true, null) && foundLineType() === 'mobile')
}

function isValid(from: number, to: number, hasPlus: boolean, home: RegionRules | null): boolean {
  return readPlan(from, to, hasPlus, home) && isFoundValid()
}

/** A valid number, with the repairs that were made in silence to read it. */
function asWritten(to: number, hasPlus: boolean, home: RegionRules | null): readonly Repair[] {
  if (!hasPlus && startsWithOwnCode(to)) {
    const { code, outcome } = found
    if (isValid(START, to, true, home)) return to - START > MOST_OF_NEW ? NO_PLUS : COMPETING
    found.code = code
    found.outcome = outcome
    found.from = START
    found.to = to
  }
  return nameRepairs(to, hasPlus, home)
}

/**
 * Countries with generous plans (Germany, Austria) keep numbers of up to 13 digits, but have long given out none of
 * more than 11: the German regulator's plan for geographic numbers, ITU-T E.164 national communications.
 */
export const MOST_OF_NEW = 11
/** Fewer digits than these are too few for a code and a number. */
export const LEAST_WITH_CODE = 10
const LEAST_WHOLE = 7

/**
 * Long digits that start with the country's own code, in a country that writes national numbers with a zero: read
 * as international first, though a generous plan (Germany's) would take them for a national number without it.
 */
function startsWithOwnCode(to: number): boolean {
  const { code, from } = found
  if (to - START < LEAST_WITH_CODE || to - START !== found.to - from) return false
  return startsWith(START, to, code.text) && endsWith(START, to, from, found.to) && isFoundWrittenWithZero()
}

/** Which repair the reference made in silence: told by comparing the digits written with the number read. */
function nameRepairs(to: number, hasPlus: boolean, home: RegionRules | null): readonly Repair[] {
  const { code, from } = found
  const more = to - START - (found.to - from)
  if (more === 1 && !hasPlus && DIGITS[START] === ZERO) return NONE
  if (more === 0 && !hasPlus) return endsWith(START, to, from, found.to) && isFoundWrittenWithZero() ? LOST_ZERO : NONE
  const length = code.text.length
  if ((hasPlus && more === length) || !endsWith(START, to, from, found.to)) return NONE
  const trunk = more > length && DIGITS[START + more - 1] === ZERO ? 1 : 0
  // The code stands right before the number, or before a zero in front of it.
  const isDirect = more >= length && startsWith(START + more - length, to, code.text)
  const before = more - length - (isDirect ? 0 : trunk)
  if (!isDirect && (trunk === 0 || !startsWith(START + before, to, code.text))) return NONE
  return silentRepairs(before, !isDirect, hasPlus, home !== null && code.code !== 1)
}

function silentRepairs(before: number, hasTrunkZero: boolean, hasPlus: boolean, isNamed: boolean): readonly Repair[] {
  const first = hasPlus ? (before > 0 ? TWICE : NONE) : before >= 2 ? PREFIX : before === 0 && isNamed ? NO_PLUS : NONE
  return hasTrunkZero ? joinRepairs(first, TRUNK_ZERO) : first
}

/** Repairs one after another, none twice. */
export const joinRepairs = (before: readonly Repair[], then: readonly Repair[]): readonly Repair[] =>
  before.length === 0
    ? then
    : then.length === 0
      ? before
      : [...before, ...then.filter((repair) => !before.includes(repair))]

/** Calling code of the North American plan, whose countries dial abroad with 011. */
const NORTH_AMERICA = 1

/** Other ways to read the digits, in the order in which they are believed. */
function mended(to: number, hasPlus: boolean, home: RegionRules | null): readonly Repair[] | null {
  if (hasPlus) return mendedBehindPlus(to, home)
  const prefix = foreignPrefix(to, home)
  if (prefix > 0 && isValid(START + prefix, to, true, home)) return PREFIX
  const code = home && callingCodeOf(home.code)
  return code ? mendedAtHome(to, home, code.text) : null
}

/** Length of what was dialled for abroad: 00 in most of the world, 011 only where it is. */
function foreignPrefix(to: number, home: RegionRules | null): number {
  if (startsWith(START, to, '00')) return 2
  return (home === null || home.code === NORTH_AMERICA) && startsWith(START, to, '011') ? 3 : 0
}

function mendedAtHome(to: number, home: RegionRules, code: string): readonly Repair[] | null {
  const once = behindRepeatedCode(to, code)
  if (once !== -1 && isValid(once, to, true, home) && isWhole(home)) return TWICE
  if (startsWith(START, to, code)) {
    if (isValid(START, to, true, home) && isWhole(home)) return NO_PLUS
    const zero = START + code.length
    if (zero < to && DIGITS[zero] === ZERO && isValid(COMPOSED, composeWithout(START, to, zero), true, home))
      return NO_PLUS_TRUNK_ZERO
  }
  // The place before the digits holds a zero.
  return DIGITS[START] !== ZERO && isValid(START - 1, to, false, home) ? LOST_ZERO : null
}

/** Short numbers of services are never written with their country's code. */
const isWhole = (home: RegionRules | null): boolean =>
  found.to - found.from >= Math.min(LEAST_WHOLE, home?.lengths.most ?? LEAST_WHOLE)

/** Behind a plus only what is a calling code counts: nothing is taken out where none ends. */
function mendedBehindPlus(to: number, home: RegionRules | null): readonly Repair[] | null {
  const code = codeAtStart(START, to)
  if (code === undefined) return null
  const once = behindRepeatedCode(to, code.text)
  if (once !== -1 && isValid(once, to, true, home) && isWhole(home)) return TWICE
  return withoutTrunkZero(to, home, code) ? TRUNK_ZERO : null
}

/** A zero right behind the calling code, of a country that dials one at home. */
function withoutTrunkZero(to: number, home: RegionRules | null, code: CallingCode): boolean {
  const zero = START + code.text.length
  if (code.trunk !== '0' || zero >= to - 1 || DIGITS[zero] !== ZERO) return false
  return isValid(COMPOSED, composeWithout(START, to, zero), true, home)
}

/** Where `49 0049 …` and `44 44 …` go on with the code once; -1 where it stands once already. */
function behindRepeatedCode(to: number, code: string): number {
  const start = startsWith(START, to, '00') && startsWith(START + 2, to, code) ? START + 2 : START
  if (!startsWith(start, to, code)) return -1
  const behind = start + code.length
  const again = startsWith(behind, to, '00') && startsWith(behind + 2, to, code) ? behind + 2 : behind
  return startsWith(again, to, code) && to > again + code.length ? again : -1
}
