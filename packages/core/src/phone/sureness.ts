import { DIGITS, putDigits, START, SWAPPED, textOf, ZERO } from './engine/digits'
import { nameFor } from './engine/places'
import { found, foundLineType, isFoundValid } from './engine/readDigits'
import { callingCodeOf, type RegionRules } from './engine/tables'
import { formatNumber, isFoundWrittenWithZero, isOpenPlan, type PlanNumber, readPlan } from './plan'
import { keepingFound, LOST_ZERO, MOST_OF_NEW, mayBeSwappedZero, TRUNK_ZERO, TWICE } from './readDialled'
import type { Repair } from './types'

/** Area code and subscriber have more digits than these together, but for the oldest. */
const LEAST_IN_USE = 8
const LONG_MOBILE = 10

/**
 * True for a repair that could as well be a slip: whether it is, tells how the digits are written, which takes a closer
 * look. The number is in `found`.
 * @param head digits before the first sign between them
 * @param to where the digits end in the buffer
 */
export function mayBeSlip(repairs: readonly Repair[], head: number, to: number, home: RegionRules | null): boolean {
  if (home === null) return false
  if (repairs === TWICE) return found.code.code !== home.code
  if (repairs === TRUNK_ZERO) {
    if (found.code.code !== home.code) return head !== found.code.text.length
    return isOpenPlan(home) && isTrunkZeroSlip()
  }
  if (repairs !== LOST_ZERO || !isOpenPlan(home)) return false
  return head < to - START || isLikelySlip(home)
}

/** Whether a repair is the only likely reading of a text, and no slip of a key reads as well. */
export function isSure(
  repairs: readonly Repair[],
  text: string,
  number: PlanNumber,
  home: RegionRules | null,
): boolean {
  if (home === null) return true
  if (repairs === TWICE) return number.countryCode === home.code
  if (repairs === TRUNK_ZERO) return isTrunkZeroSure(text, number, home)
  return repairs !== LOST_ZERO || !isOpenPlan(home) || isLostZeroSure(text, number, home)
}

/**
 * A zero behind the code of another country is one that is dialled at home where the code stands by itself or the zero
 * in brackets; behind the own code, unless it has only changed places with the digit behind it.
 */
function isTrunkZeroSure(text: string, { countryCode }: PlanNumber, home: RegionRules): boolean {
  if (/[([]0[)\]]/.test(text)) return true
  const code = callingCodeOf(countryCode)?.text ?? ''
  if (countryCode !== home.code) return /\d+/.exec(text)?.[0] === code
  return !isOpenPlan(home) || !isTrunkZeroSlip()
}

const isTrunkZeroSlip = (): boolean => found.to - found.from < LEAST_IN_USE || mayBeSwappedZero()

/**
 * A spreadsheet that takes zeros leaves no gaps: digits with gaps are grouped as the plan groups them, where a person
 * left the zero out.
 */
function isLostZeroSure(text: string, { e164, lineType }: PlanNumber, home: RegionRules): boolean {
  if (isLikelySlip(home)) return false
  const groups = text.match(/\d+/g) ?? []
  return groups.length < 2 || isGroupedByPlan(`0${groups[0]}`, e164, lineType === 'mobile')
}

/** A zero and one digit are no prefix that people group by. */
const SHORTEST_PREFIX = 2

/** Mobiles are also grouped by the shorter prefix that people know. */
function isGroupedByPlan(written: string, e164: string, isMobile: boolean): boolean {
  const [grouped = ''] = formatNumber(e164, 'national').match(/\d+/) ?? []
  return grouped === written || (isMobile && written.length > SHORTEST_PREFIX && grouped.startsWith(written))
}

/**
 * True for a number in `found` that is too long or too short to be in use, that may be a mobile hurt by a slip where mobiles have no
 * zero (its first digit changed, its first two changed about, or its last one lost), or a number whose zero only changed
 * places with the digit behind it.
 */
function isLikelySlip(home: RegionRules): boolean {
  const { from, to } = found
  const start = DIGITS[from] === ZERO ? from + 1 : from
  if (foundLineType() === 'mobile') return isLongSwappedMobile(start, to, home)
  if (to - from > MOST_OF_NEW || to - from < LEAST_IN_USE) return true
  const isPlaceless = DIGITS[start + 1] === ZERO && startsSubscriberWithZero(start, to)
  return keepingFound(
    () =>
      (hasMobilesWithoutZero(home) && isNearMobile(start, to, home)) ||
      (isPlaceless && isNumber(swapped(start, to), home)),
  )
}

/** A mobile with more digits than most, that is one of usual length with its first two changed about. */
const isLongSwappedMobile = (from: number, to: number, home: RegionRules): boolean =>
  to - from >= LONG_MOBILE && DIGITS[from + 1] === ZERO && keepingFound(() => isNumber(swapped(from, to), home))

/** A zero behind an area code of one digit or two, or behind none: no subscriber's number starts with it. */
function startsSubscriberWithZero(from: number, to: number): boolean {
  const { text } = found.code
  const place = nameFor(textOf(text, from, to))
  if (place === null || place === nameFor(textOf(text, from, from + 1))) return true
  return DIGITS[from + 2] === ZERO && place === nameFor(textOf(text, from, from + 2))
}

/** The digits with their first two changed about; gives back where they end. */
function swapped(from: number, to: number): number {
  for (let i = from; i < to; i++) DIGITS[SWAPPED + i - from] = DIGITS[i] as number
  DIGITS[SWAPPED] = DIGITS[from + 1] as number
  DIGITS[SWAPPED + 1] = DIGITS[from] as number
  return SWAPPED + to - from
}

function isNearMobile(from: number, to: number, home: RegionRules): boolean {
  const end = swapped(from, to)
  if (isMobileWithoutZero(end, home)) return true
  for (let i = from; i < to; i++) DIGITS[SWAPPED + i - from] = DIGITS[i] as number
  DIGITS[end] = ZERO
  if (isMobileWithoutZero(end + 1, home)) return true
  for (let digit = ZERO + 1; digit <= ZERO + 9; digit++) {
    DIGITS[SWAPPED] = digit
    if (isMobileWithoutZero(end, home)) return true
  }
  return false
}

const known = new Map<string, boolean>()

/** Whether a country writes mobiles without the zero it writes before other numbers: looked up once. */
function hasMobilesWithoutZero(home: RegionRules): boolean {
  const found = known.get(home.region) ?? findsMobileWithoutZero(home)
  known.set(home.region, found)
  return found
}

/** Mobiles have many first digits: a part of them tells. */
const EVERY = 7
const ANY_DIGITS = '234567891234567'

function findsMobileWithoutZero(home: RegionRules): boolean {
  for (let prefix = 100; prefix < 1000; prefix += EVERY)
    for (let length = LEAST_IN_USE; length <= MOST_OF_NEW; length++) {
      const digits = `${prefix}${ANY_DIGITS}`.slice(0, length)
      if (isMobileWithoutZero(putDigits(digits, SWAPPED), home)) return true
    }
  return false
}

const isNumber = (end: number, home: RegionRules): boolean => readPlan(SWAPPED, end, false, home) && isFoundValid()

const isMobileWithoutZero = (end: number, home: RegionRules): boolean =>
  isNumber(end, home) && foundLineType() === 'mobile' && !isFoundWrittenWithZero()
