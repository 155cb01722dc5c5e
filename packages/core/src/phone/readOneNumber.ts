import { digitsOf } from './characters'
import { MOST_DIGITS, putDigits, START } from './engine/digits'
import { isFoundValid, planNumber } from './engine/readDigits'
import type { RegionRules } from './engine/tables'
import { newForms } from './oldForms'
import { isCardNumber } from './otherThings'
import { isFictionNumber, isLocalFiction, isPlaceholderRun } from './placeholders'
import { homeOf, leaveInBuffer, type PlanNumber, readByPlan, readPlan } from './plan'
import {
  isTwofold,
  joinRepairs,
  LEAST_WITH_CODE,
  LOST_OR_ABROAD,
  LOST_ZERO,
  leaveRival,
  readDialled,
} from './readDialled'
import { readKeypadLetters, readLookalikes } from './spreadsheetDamage'
import { isSure } from './sureness'
import type { Problem, ReadNumber, Repair } from './types'

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
export interface Found {
  readonly plan: PlanNumber
  readonly repairs: readonly Repair[]
  /** What another repair makes of the text, where neither is likelier; null where the one repair is not sure enough. */
  readonly rival?: PlanNumber | null
}

/** Reads the text of one number: several have been parted, and the words beside it taken off. */
export function readOneNumber(text: string, country: string | null): OneNumber {
  const digits = digitsOf(text)
  if (digits === '') return { status: 'unread', problem: 'no-digits' }
  if (isMadeUp(digits, country)) return { status: 'placeholder' }
  const found = findNumber(text, country)
  if (!found) return { status: 'unread', problem: whyUnread(text, country) }
  if (isMadeUpNumber(found.plan)) return { status: 'placeholder' }
  if (!found.plan.possible) {
    const problem = isCardNumber(text) ? 'card' : lengthProblem(found.plan)
    return { status: 'unread', problem }
  }
  return {
    status: 'read',
    number: numberOf(found.plan),
    rival: found.rival ? numberOf(found.rival) : null,
    repairs: found.repairs,
    problem: problemOf(found),
  }
}

function problemOf({ plan, rival, repairs }: Found): Problem | null {
  if (rival) return 'two-readings'
  if (rival === null) return repairs.includes('country-code-without-plus') ? 'plus-missing' : 'unsure-repair'
  return plan.valid ? null : 'not-in-plan'
}

const numberOf = (plan: PlanNumber): ReadNumber => ({
  e164: plan.e164,
  country: plan.country,
  lineType: plan.lineType,
  extension: plan.extension,
  label: null,
  valid: plan.valid,
  possible: plan.possible,
})

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
  if (/[a-z]/i.test(text)) return readLetters(text, country)
  // A plus that stands elsewhere than in front counts there, and is never left out.
  if (/\d.*\+/.test(text)) return readOddPlus(text, country)
  const plain = readPlain(text, country)
  if (plain?.plan.valid) return plain
  const mended = text.includes('+') ? readPlusZero(text, country) : null
  return mended ?? readOldForm(text, country) ?? readAbroad(text, country) ?? plain
}

/** Letters among the digits: as the digits they look like, or as keys; both where neither is likelier. */
function readLetters(text: string, country: string | null): Found | null {
  const lookalikes = withRepair('letters-for-digits', readLookalikes(text), country, true)
  const keys = readByKeypad(text, country)
  if (lookalikes === null) return keys && isDialledByWord(keys.plan) ? keys : null
  if (keys === null || keys.plan.e164 === lookalikes.plan.e164) return lookalikes
  return { ...lookalikes, repairs: [...lookalikes.repairs, ...keys.repairs], rival: keys.plan }
}

/** A word of the keypad; longer than the plan allows it is cut, as dialling would cut it. */
function readByKeypad(text: string, country: string | null): Found | null {
  let keys = readKeypadLetters(text)
  for (let cut = lettersToCut(text); keys !== null; cut--) {
    const found = withRepair('keypad-letters', keys, country, true)
    if (found) return found
    keys = cut > 0 ? keys.slice(0, -1) : null
  }
  return null
}

/** How many letters at the end may be cut: three keys of the word are dialled at least. */
function lettersToCut(text: string): number {
  const word = /[A-Za-z][A-Za-z\s-]*$/.exec(text)?.[0] ?? ''
  return Math.max(0, word.replace(/[^A-Za-z]/g, '').length - 3)
}

const BY_WORD: ReadonlySet<string> = new Set(['toll-free', 'shared-cost', 'premium', 'uan'])

/** Words are dialled at services, and in North America anywhere. */
const isDialledByWord = ({ lineType, countryCode }: PlanNumber): boolean => countryCode === 1 || BY_WORD.has(lineType)

/** Where a plus may stand instead of in front, each with what it means: behind zeros, behind the code, twice, at the end. */
const ODD_PLUSES: readonly (readonly [RegExp, string])[] = [
  [/^\W*0{1,3}\s*\(?\+\)?([^+]*)$/, '+$1'],
  [/^\W*\+?\s*(\d{1,3})\s*\+\s*(\1[^+]*)$/, '+$2'],
  [/^\W*(\d{1,3})\s*\+\s*([^+]*)$/, '+$1$2'],
  [/^\W*(\d[^+]*)\+\W*$/, '+$1'],
]

function readOddPlus(text: string, country: string | null): Found | null {
  for (const [written, meant] of ODD_PLUSES) {
    const found = written.test(text) && withRepair('odd-plus', text.replace(written, meant), country, true)
    if (found) return found
  }
  return null
}

/** `+049…`: the zero is too much, or the plus is. Silent only for a number of the own country that nothing else can be. */
function readPlusZero(text: string, country: string | null): Found | null {
  const behindZero = /^\W*\+\W*0(?=\s*[1-9])(.*)$/.exec(text)?.[1]
  if (behindZero === undefined) return null
  const abroad = withRepair('odd-plus', `+${behindZero}`, country, true)
  const home = withRepair('odd-plus', text.replace(/\+/g, ''), country, true)
  if (abroad && home && abroad.plan.e164 !== home.plan.e164) return { ...abroad, rival: home.plan }
  if (!abroad) return home && { ...home, rival: null }
  return abroad.plan.country === country ? abroad : { ...abroad, rival: null }
}

/** A number of another country without its plus, where the digits are none at home: never in silence. */
function readAbroad(text: string, country: string | null): Found | null {
  const digits = digitsOf(text)
  if (country === null || digits.length < LEAST_WITH_CODE || /^\W*(?:\+|0)/.test(text)) return null
  const found = withRepair('country-code-without-plus', `+${digits}`, country, true)
  return found && { ...found, rival: null }
}

/** A form of dialling that has gone, or that leaves the carrier to the reader. */
function readOldForm(text: string, country: string | null): Found | null {
  for (const form of newForms(text, country)) {
    const found = withRepair('old-form', form, country, true)
    if (found && found.plan.country === country) return found
  }
  return readBracketedZero(text, country)
}

/** `(0)` behind a calling code whose country dials no zero: a habit of writers elsewhere. */
function readBracketedZero(text: string, country: string | null): Found | null {
  if (!text.includes('0)') && !text.includes('0]')) return null
  const without = text.replace(/^(\W*\+\W*\d{1,3}\W*)[([]0[)\]]/, '$1')
  return without === text ? null : withRepair('trunk-zero', without, country, true)
}

function withRepair(repair: Repair, text: string | null, country: string | null, mustBeValid = false): Found | null {
  const found = text === null ? null : readPlain(text, country)
  if (!found || (mustBeValid && !found.plan.valid)) return null
  return { ...found, repairs: joinRepairs([repair], found.repairs) }
}

/** Digits and punctuation, which the plan may take in its own way. */
function readPlain(text: string, country: string | null): Found | null {
  const asItStands = readByPlan(text, country)
  const digits = digitsOf(text)
  if (digits.length > MOST_DIGITS) return asItStands && { plan: asItStands, repairs: [] }
  const home = homeOf(country)
  const to = putDigits(digits, START)
  const hasPlus = /^\W*\+/.test(text)
  const whole = isWholeValid(asItStands, to, hasPlus, home)
  const repairs = readDialled(to, hasPlus, home, whole || (asItStands?.valid === true && leaveInBuffer(asItStands)))
  if (repairs === null) return asItStands && { plan: asItStands, repairs: [] }
  // What the plan read in its own way may hold an extension.
  const plan = { ...planNumber(), extension: !whole && asItStands?.valid ? asItStands.extension : null }
  if (!isTwofold(repairs) && isSure(repairs, text, plan, home)) return { plan, repairs }
  const way = repairs === LOST_ZERO ? LOST_OR_ABROAD : repairs
  const hasRival = isTwofold(way) && leaveRival(way, putDigits(digits, START), home)
  return { plan, repairs, rival: hasRival ? planNumber() : null }
}

/** Whether all digits are a valid number together: a comma may stand before an extension, or among them. */
function isWholeValid(asItStands: PlanNumber | null, to: number, hasPlus: boolean, home: RegionRules | null): boolean {
  if (asItStands?.valid && asItStands.extension === null) return false
  return readPlan(START, to, hasPlus, home) && isFoundValid()
}

function whyUnread(text: string, country: string | null): Problem {
  if (isCardNumber(text)) return 'card'
  if (/[a-z]/i.test(text)) return 'reference-number'
  const digits = digitsOf(text)
  if (digits.length > 15) return 'too-long'
  if (digits.length < 5) return 'too-short'
  return country === null ? 'no-country' : 'not-in-plan'
}
