import { callingCode, isWrittenWithTrunkZero, type PlanNumber, planOf } from './plan'
import type { Repair } from './types'

export interface Found {
  readonly plan: PlanNumber
  readonly repairs: readonly Repair[]
}

/**
 * Reads digits as they are dialled: as they stand first, then with the dialling prefix mended.
 * @param digits ASCII digits only
 * @param hasPlus true where a plus stood before them
 * @param asItStands what the plan makes of the text they come from
 * @returns a valid number, else what the digits are as they stand; null where they are no number at all
 */
export function readDialled(
  digits: string,
  hasPlus: boolean,
  country: string | null,
  asItStands: PlanNumber | null = planOf(digits, hasPlus, country),
): Found | null {
  if (asItStands?.valid) return asWritten(asItStands, digits, hasPlus, country)
  for (const [repairs, attempt, isAbroad] of mendedForms(digits, hasPlus, country)) {
    const plan = planOf(attempt, isAbroad, country)
    if (plan?.valid) return { plan, repairs }
  }
  return asItStands && { plan: asItStands, repairs: NO_REPAIRS }
}

/** A valid number, with the repairs that were made in silence to read it. */
function asWritten(asItStands: PlanNumber, digits: string, hasPlus: boolean, country: string | null): Found {
  if (withCode(asItStands, digits, hasPlus)) {
    const plan = planOf(digits, true, country)
    if (plan?.valid) return { plan, repairs: ['country-code-without-plus'] }
  }
  return { plan: asItStands, repairs: nameRepairs(asItStands, digits, hasPlus, country) }
}

/**
 * Long digits that start with the country's own code, in a country that writes national numbers with a zero: read
 * as international first, though a generous plan (Germany's) would take them for a national number without it.
 */
function withCode(plan: PlanNumber, digits: string, hasPlus: boolean): boolean {
  if (hasPlus || digits.length < 11 || digits !== plan.national) return false
  return digits.startsWith(String(plan.countryCode)) && isWrittenWithTrunkZero(plan)
}

const NO_REPAIRS: readonly Repair[] = []
const LOST_ZERO: readonly Repair[] = ['lost-zero']

/** Which repair the reference made in silence: told by comparing the digits written with the number read. */
function nameRepairs(plan: PlanNumber, digits: string, hasPlus: boolean, country: string | null): readonly Repair[] {
  const { national } = plan
  const more = digits.length - national.length
  if (more === 1 && !hasPlus && digits.charCodeAt(0) === ZERO) return NO_REPAIRS
  if (more === 0 && !hasPlus) return digits === national && isWrittenWithTrunkZero(plan) ? LOST_ZERO : NO_REPAIRS
  const code = String(plan.countryCode)
  if (hasPlus && more === code.length) return NO_REPAIRS
  const international = [code + national, `${code}0${national}`]
  const written = international.find((form) => digits.endsWith(form))
  if (written === undefined) return NO_REPAIRS
  const repairs: Repair[] = []
  const before = digits.slice(0, digits.length - written.length)
  if (!hasPlus && before.length >= 2) repairs.push('international-prefix')
  else if (!hasPlus && before === '' && country !== null && code !== '1') repairs.push('country-code-without-plus')
  if (hasPlus && before !== '') repairs.push('country-code-twice')
  if (written === international[1]) repairs.push('trunk-zero')
  return repairs
}

const ZERO = 48

type Form = readonly [repairs: readonly Repair[], digits: string, hasPlus: boolean]

/** Other ways to read the digits, in the order in which they are believed. */
function* mendedForms(digits: string, hasPlus: boolean, country: string | null): Generator<Form> {
  if (!hasPlus && digits.startsWith('00')) yield [['international-prefix'], digits.slice(2), true]
  else if (!hasPlus && digits.startsWith('011')) yield [['international-prefix'], digits.slice(3), true]
  const code = country === null ? '' : String(callingCode(country))
  if (code !== '' && code !== '0') {
    const once = withoutRepeatedCode(digits, code)
    if (once !== null) yield [['country-code-twice'], once, true]
    if (!hasPlus && digits.startsWith(code)) yield [['country-code-without-plus'], digits, true]
    if (!hasPlus && digits.startsWith(`${code}0`)) {
      yield [['country-code-without-plus', 'trunk-zero'], code + digits.slice(code.length + 1), true]
    }
    if (!hasPlus && !digits.startsWith('0')) yield [LOST_ZERO, `0${digits}`, false]
  }
  if (hasPlus) {
    const stated = [1, 2, 3].map((length) => withoutRepeatedCode(digits, digits.slice(0, length)))
    for (const once of stated) if (once !== null) yield [['country-code-twice'], once, true]
    const trunk = /^(\d{1,3}?)0(\d+)$/.exec(digits)
    if (trunk) yield [['trunk-zero'], `${trunk[1]}${trunk[2]}`, true]
  }
}

/** `49 0049 …` and `44 44 …` with the code once; null where it stands once already. */
function withoutRepeatedCode(digits: string, code: string): string | null {
  const start = digits.startsWith('00') && digits.startsWith(code, 2) ? 2 : 0
  if (!digits.startsWith(code, start)) return null
  const behind = start + code.length
  const again = digits.startsWith('00', behind) && digits.startsWith(code, behind + 2) ? behind + 2 : behind
  return digits.startsWith(code, again) && digits.length > again + code.length ? digits.slice(again) : null
}
