import { digitsOf } from './characters'
import { isCardNumber, recogniseOtherThing } from './otherThings'
import { isFictionNumber, isLocalFiction, isPlaceholderRun } from './placeholders'
import { callingCode, isWrittenWithTrunkZero, type PlanNumber, readByPlan } from './plan'
import { readKeypadLetters, readLookalikes } from './spreadsheetDamage'
import type { Problem, ReadNumber, Repair } from './types'
import { takeOffExtension, takeOffLabel } from './words'

/** One written number: what it is, or why it is none. */
export type OneNumber =
  | {
      readonly status: 'read'
      readonly number: ReadNumber
      readonly repairs: readonly Repair[]
      readonly problem: Problem | null
    }
  | { readonly status: 'placeholder' }
  | { readonly status: 'unread'; readonly problem: Problem }

export interface Found {
  readonly plan: PlanNumber
  readonly repairs: readonly Repair[]
}

/** Reads the text of one number (several have been split before). */
export function readOneNumber(text: string, country: string | null): OneNumber {
  const other = recogniseOtherThing(text)
  if (other) return { status: 'unread', problem: other }
  const uri = /^tel:\S/i.test(text) ? text.replace(/^tel:/i, '').replace(/;phone-context=(\+\d+)/i, '') : text
  const labelled = takeOffLabel(uri)
  const extended = takeOffExtension(labelled.text)
  const digits = digitsOf(extended.text)
  if (digits === '' && !readKeypadLetters(extended.text)) return { status: 'unread', problem: 'no-digits' }
  if (isPlaceholderRun(digits) || isLocalFiction(digits, country)) return { status: 'placeholder' }
  const found = findNumber(extended.text.trim(), country)
  if (!found) return { status: 'unread', problem: whyUnread(extended.text, country) }
  if (isFictionNumber(found.plan.e164) || isPlaceholderRun(found.plan.national)) return { status: 'placeholder' }
  if (!found.plan.possible) {
    const problem = isCardNumber(text) ? 'card' : lengthProblem(found.plan)
    return { status: 'unread', problem }
  }
  const labelRepairs: readonly Repair[] = labelled.text === uri ? [] : ['label-taken-off']
  return {
    status: 'read',
    number: {
      e164: found.plan.e164,
      country: found.plan.country,
      lineType: found.plan.lineType,
      extension: extended.extension ?? found.plan.extension,
      label: labelled.label,
      valid: found.plan.valid,
      possible: found.plan.possible,
    },
    repairs: [...labelRepairs, ...found.repairs],
    problem: found.plan.valid ? null : 'not-in-plan',
  }
}

const lengthProblem = (plan: PlanNumber): Problem =>
  plan.length === 'too-long' ? 'too-long' : plan.length === 'too-short' ? 'too-short' : 'not-in-plan'

/** The first way of reading that gives a valid number, else what the text is as it stands. */
function findNumber(text: string, country: string | null): Found | null {
  const hasLetters = /[a-z]/i.test(text)
  const plain = hasLetters ? null : readPlain(text, country)
  if (plain?.plan.valid) return plain
  for (const way of [lookalikesWay, keypadWay, amongWordsWay]) {
    const found = way(text, country)
    if (found?.plan.valid) return found
  }
  return plain
}

function lookalikesWay(text: string, country: string | null): Found | null {
  return withRepair('letters-for-digits', readLookalikes(text), country)
}

function keypadWay(text: string, country: string | null): Found | null {
  return withRepair('keypad-letters', readKeypadLetters(text), country)
}

/**
 * A number among words: only one that starts like a dialled number and stands apart from the letters, where the
 * other digits of the cell are too few to be part of it ("after 5 pm").
 */
function amongWordsWay(text: string, country: string | null): Found | null {
  const run = /(?<![\p{L}\d-])(?:\+|\(?0)[\d\s()./-]{6,}\d(?![\p{L}\d./-])/u.exec(text)?.[0]
  if (run === undefined || run === text || digitsOf(text).length - digitsOf(run).length > 2) return null
  return withRepair('label-taken-off', run, country)
}

function withRepair(repair: Repair, text: string | null, country: string | null): Found | null {
  const found = text === null ? null : readPlain(text, country)
  return found && { plan: found.plan, repairs: [repair, ...found.repairs] }
}

/** Digits and punctuation only: as it stands first, then with the dialling prefix mended. */
function readPlain(text: string, country: string | null): Found | null {
  const digits = digitsOf(text)
  const hasPlus = /^\W*\+/.test(text)
  const asItStands = readByPlan(text, country)
  if (asItStands?.valid) return asWritten(asItStands, digits, hasPlus, country)
  for (const [repairs, attempt] of mendedForms(digits, hasPlus, country)) {
    const plan = readByPlan(attempt, country)
    if (plan?.valid) return { plan, repairs }
  }
  return asItStands && { plan: asItStands, repairs: [] }
}

/** A valid number, with the repairs that were made in silence to read it. */
export function asWritten(asItStands: PlanNumber, digits: string, hasPlus: boolean, country: string | null): Found {
  if (withCode(asItStands, digits, hasPlus)) {
    const plan = readByPlan(`+${digits}`, country)
    if (plan?.valid) return { plan, repairs: ['country-code-without-plus'] }
  }
  return { plan: asItStands, repairs: nameRepairs(asItStands, digits, hasPlus, country) }
}

/**
 * Long digits that start with the country's own code, in a country that writes national numbers with a zero: read
 * as international first, though a generous plan (Germany's) would take them for a national number without it.
 */
function withCode(plan: PlanNumber, digits: string, hasPlus: boolean): boolean {
  if (hasPlus || digits !== plan.national || digits.length < 11) return false
  return digits.startsWith(String(plan.countryCode)) && isWrittenWithTrunkZero(plan)
}

const NO_REPAIRS: readonly Repair[] = []

/** Which repair the reference made in silence: told by comparing the digits written with the number read. */
function nameRepairs(plan: PlanNumber, digits: string, hasPlus: boolean, country: string | null): readonly Repair[] {
  const code = String(plan.countryCode)
  if (hasPlus && digits.length === code.length + plan.national.length) return NO_REPAIRS
  const international = [code + plan.national, `${code}0${plan.national}`]
  const written = international.find((form) => digits.endsWith(form))
  if (written === undefined) return digits === plan.national && isWrittenWithTrunkZero(plan) ? ['lost-zero'] : []
  const repairs: Repair[] = []
  const before = digits.slice(0, digits.length - written.length)
  if (!hasPlus && before.length >= 2) repairs.push('international-prefix')
  else if (!hasPlus && before === '' && country !== null && code !== '1') repairs.push('country-code-without-plus')
  if (hasPlus && before !== '') repairs.push('country-code-twice')
  if (written === international[1]) repairs.push('trunk-zero')
  return repairs
}

/** Other ways to read the digits, in the order in which they are believed. */
function* mendedForms(
  digits: string,
  hasPlus: boolean,
  country: string | null,
): Generator<readonly [readonly Repair[], string]> {
  if (!hasPlus && digits.startsWith('00')) {
    yield [['international-prefix'], `+${digits.slice(2)}`]
  } else if (!hasPlus && digits.startsWith('011')) {
    yield [['international-prefix'], `+${digits.slice(3)}`]
  }
  const code = country === null ? '' : String(callingCode(country))
  if (code !== '' && code !== '0') {
    const once = withoutRepeatedCode(digits, code)
    if (once !== null) yield [['country-code-twice'], `+${once}`]
    if (!hasPlus && digits.startsWith(code)) yield [['country-code-without-plus'], `+${digits}`]
    if (!hasPlus && digits.startsWith(`${code}0`)) {
      yield [['country-code-without-plus', 'trunk-zero'], `+${code}${digits.slice(code.length + 1)}`]
    }
    if (!hasPlus && !digits.startsWith('0')) yield [['lost-zero'], `0${digits}`]
  }
  if (hasPlus) {
    const stated = [1, 2, 3].map((length) => withoutRepeatedCode(digits, digits.slice(0, length)))
    for (const once of stated) if (once !== null) yield [['country-code-twice'], `+${once}`]
    const trunk = /^(\d{1,3}?)0(\d+)$/.exec(digits)
    if (trunk) yield [['trunk-zero'], `+${trunk[1]}${trunk[2]}`]
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

function whyUnread(text: string, country: string | null): Problem {
  if (isCardNumber(text)) return 'card'
  if (/[a-z]/i.test(text)) return 'reference-number'
  const digits = digitsOf(text)
  if (digits.length > 15) return 'too-long'
  if (digits.length < 5) return 'too-short'
  return country === null ? 'no-country' : 'not-in-plan'
}
