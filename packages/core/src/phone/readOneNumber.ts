import { digitsOf } from './characters'
import { MOST_DIGITS, putDigits, START } from './engine/digits'
import { planNumber } from './engine/readDigits'
import { isCardNumber, recogniseOtherThing } from './otherThings'
import { isFictionNumber, isLocalFiction, isPlaceholderRun } from './placeholders'
import { homeOf, leaveInBuffer, type PlanNumber, readByPlan } from './plan'
import { COMPETING, readDialled } from './readDialled'
import { readKeypadLetters, readLookalikes } from './spreadsheetDamage'
import type { Problem, ReadNumber, Repair } from './types'
import { takeOffExtension, takeOffLabel } from './words'

/** One written number: what it is, or why it is none. */
export type OneNumber =
  | {
      readonly status: 'read'
      readonly number: ReadNumber
      /** What the text may be as well, where two repairs compete. */
      readonly rival: ReadNumber | null
      readonly repairs: readonly Repair[]
      readonly problem: Problem | null
    }
  | { readonly status: 'placeholder' }
  | { readonly status: 'unread'; readonly problem: Problem }

/** What the plan makes of a text, and what had to be mended for it. */
interface Found {
  readonly plan: PlanNumber
  readonly repairs: readonly Repair[]
  /** What another repair makes of the text, where neither is likelier. */
  readonly rival?: PlanNumber | null
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
  if (isMadeUp(digits, country)) return { status: 'placeholder' }
  const found = findNumber(extended.text.trim(), country)
  if (!found) return { status: 'unread', problem: whyUnread(extended.text, country) }
  if (isMadeUpNumber(found.plan)) return { status: 'placeholder' }
  if (!found.plan.possible) {
    const problem = isCardNumber(text) ? 'card' : lengthProblem(found.plan)
    return { status: 'unread', problem }
  }
  const labelRepairs: readonly Repair[] = labelled.text === uri ? [] : ['label-taken-off']
  const numberOf = (plan: PlanNumber): ReadNumber => ({
    e164: plan.e164,
    country: plan.country,
    lineType: plan.lineType,
    extension: extended.extension ?? plan.extension,
    label: labelled.label,
    valid: plan.valid,
    possible: plan.possible,
  })
  return {
    status: 'read',
    number: numberOf(found.plan),
    rival: found.rival ? numberOf(found.rival) : null,
    repairs: [...labelRepairs, ...found.repairs],
    problem: found.rival ? 'two-readings' : found.plan.valid ? null : 'not-in-plan',
  }
}

/** Digits nobody was given, as they stand. */
function isMadeUp(digits: string, country: string | null): boolean {
  if (digits.length > MOST_DIGITS) return false
  const to = putDigits(digits, START)
  return isPlaceholderRun(START, to) || isLocalFiction(START, to, country)
}

function isMadeUpNumber({ countryCode, national }: PlanNumber): boolean {
  const to = putDigits(national, START)
  return isFictionNumber(countryCode, START, to) || isPlaceholderRun(START, to)
}

const lengthProblem = (plan: PlanNumber): Problem =>
  plan.length === 'too-long' ? 'too-long' : plan.length === 'too-short' ? 'too-short' : 'not-in-plan'

/** The first way of reading that gives a valid number, else what the text is as it stands. */
function findNumber(text: string, country: string | null): Found | null {
  const hasLetters = /[a-z]/i.test(text)
  const plain = hasLetters ? null : readPlain(text, country)
  if (plain?.plan.valid) return plain
  const letters = [lookalikesWay, keypadWay].map((way) => way(text, country)).filter(isValid)
  const [first, second] = letters
  if (first && second && first.plan.e164 !== second.plan.e164)
    return { plan: first.plan, repairs: [...first.repairs, ...second.repairs], rival: second.plan }
  if (first) return first
  const among = amongWordsWay(text, country)
  return isValid(among) ? among : plain
}

const isValid = (found: Found | null): found is Found => found?.plan.valid ?? false

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
  return found && { ...found, repairs: [repair, ...found.repairs] }
}

/** Digits and punctuation, which the plan may take in its own way. */
function readPlain(text: string, country: string | null): Found | null {
  const asItStands = readByPlan(text, country)
  const digits = digitsOf(text)
  if (digits.length > MOST_DIGITS) return asItStands && { plan: asItStands, repairs: [] }
  const stands = asItStands !== null && leaveInBuffer(asItStands)
  const repairs = readDialled(putDigits(digits, START), /^\W*\+/.test(text), homeOf(country), stands)
  if (repairs === null) return asItStands && { plan: asItStands, repairs: [] }
  // What the plan read in its own way may hold an extension.
  const plan = { ...planNumber(), extension: asItStands?.valid ? asItStands.extension : null }
  return { plan, repairs, rival: repairs === COMPETING ? asItStands : null }
}

function whyUnread(text: string, country: string | null): Problem {
  if (isCardNumber(text)) return 'card'
  if (/[a-z]/i.test(text)) return 'reference-number'
  const digits = digitsOf(text)
  if (digits.length > 15) return 'too-long'
  if (digits.length < 5) return 'too-short'
  return country === null ? 'no-country' : 'not-in-plan'
}
