import { COMPOSED, composeWithout, DIGITS, endsWith, START, startsWith, textOf, ZERO } from './engine/digits'
import { found, isFoundValid } from './engine/readDigits'
import { callingCodeOf, type RegionRules } from './engine/tables'
import { isFoundWrittenWithZero, readPlan } from './plan'
import type { Repair } from './types'

const NONE: readonly Repair[] = []
const LOST_ZERO: readonly Repair[] = ['lost-zero']
const PREFIX: readonly Repair[] = ['international-prefix']
const NO_PLUS: readonly Repair[] = ['country-code-without-plus']
const TWICE: readonly Repair[] = ['country-code-twice']
const TRUNK_ZERO: readonly Repair[] = ['trunk-zero']
const NO_PLUS_TRUNK_ZERO: readonly Repair[] = ['country-code-without-plus', 'trunk-zero']

/** Two repairs that compete: the code stands without its plus, or a zero was lost before a number that looks like it. */
export const COMPETING: readonly Repair[] = ['country-code-without-plus', 'lost-zero']

/**
 * Reads digits as they are dialled: as they stand first, then with the dialling prefix mended. A valid number is left
 * in `found`.
 * @param to where the digits end in the buffer; they begin at its start
 * @param hasPlus true where a plus stood before them
 * @param home rules of the country where they are dialled, or null
 * @param stands whether they are a number as they stand, which is then in `found`
 * @returns what was mended; `COMPETING` where the number stands with its code, as found, or as it is; null where no way of reading gives a valid number
 */
export function readDialled(
  to: number,
  hasPlus: boolean,
  home: RegionRules | null,
  stands = readPlan(START, to, hasPlus, home),
): readonly Repair[] | null {
  return stands && isFoundValid() ? asWritten(to, hasPlus, home) : mended(to, hasPlus, home)
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
const MOST_OF_NEW = 11
/** Fewer digits than these are too few for a code and a number. */
const LEAST_WITH_CODE = 10

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

/** Other ways to read the digits, in the order in which they are believed. */
function mended(to: number, hasPlus: boolean, home: RegionRules | null): readonly Repair[] | null {
  if (!hasPlus) {
    const prefix = startsWith(START, to, '00') ? 2 : startsWith(START, to, '011') ? 3 : 0
    if (prefix > 0 && isValid(START + prefix, to, true, home)) return PREFIX
  }
  const code = home && callingCodeOf(home.code)
  const repairs = code ? mendedAtHome(to, hasPlus, home, code.text) : null
  return repairs ?? (hasPlus ? mendedBehindPlus(to, home) : null)
}

function mendedAtHome(to: number, hasPlus: boolean, home: RegionRules | null, code: string): readonly Repair[] | null {
  const once = behindRepeatedCode(to, code)
  if (once !== -1 && isValid(once, to, true, home)) return TWICE
  if (hasPlus) return null
  if (startsWith(START, to, code)) {
    if (isValid(START, to, true, home)) return NO_PLUS
    const zero = START + code.length
    if (zero < to && DIGITS[zero] === ZERO && isValid(COMPOSED, composeWithout(START, to, zero), true, home))
      return NO_PLUS_TRUNK_ZERO
  }
  // The place before the digits holds a zero.
  return DIGITS[START] !== ZERO && isValid(START - 1, to, false, home) ? LOST_ZERO : null
}

function mendedBehindPlus(to: number, home: RegionRules | null): readonly Repair[] | null {
  for (let length = 1; length <= 3 && length < to - START; length++) {
    const once = behindRepeatedCode(to, textOf('', START, START + length))
    if (once !== -1 && isValid(once, to, true, home)) return TWICE
  }
  let zero = START + 1
  while (zero <= START + 3 && DIGITS[zero] !== ZERO) zero++
  if (zero > START + 3 || zero >= to - 1) return null
  return isValid(COMPOSED, composeWithout(START, to, zero), true, home) ? TRUNK_ZERO : null
}

/** Where `49 0049 …` and `44 44 …` go on with the code once; -1 where it stands once already. */
function behindRepeatedCode(to: number, code: string): number {
  const start = startsWith(START, to, '00') && startsWith(START + 2, to, code) ? START + 2 : START
  if (!startsWith(start, to, code)) return -1
  const behind = start + code.length
  const again = startsWith(behind, to, '00') && startsWith(behind + 2, to, code) ? behind + 2 : behind
  return startsWith(again, to, code) && to > again + code.length ? again : -1
}
