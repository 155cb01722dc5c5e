import { MOST_DIGITS, putDigits, START, textOf } from './engine/digits'
import { internationalForm, isWrittenWithZero, nationalForm } from './engine/format'
import { found, type PlanNumber, planNumber, readDigits, setFound } from './engine/readDigits'
import { callingCodeOf, type RegionRules, rulesOf } from './engine/tables'
import { writtenNumber } from './engine/writtenNumber'

export type { PlanNumber } from './engine/readDigits'

const LETTER_A = 65
const LETTERS = 26

/** Rules by the two letters of a country, as they are met: every row asks for them. */
const homes: (RegionRules | null | undefined)[] = Array.from({ length: LETTERS * LETTERS })

/** Rules of a country: ISO 3166-1 alpha-2, or UK; null where the plan does not know it. */
export function homeOf(country: string | null): RegionRules | null {
  if (country === null) return null
  const place = country.length === 2 ? placeOfLetters(country) : -1
  if (place === -1) return findHome(country)
  const home = homes[place]
  if (home !== undefined) return home
  const found = findHome(country)
  homes[place] = found
  return found
}

/** Two capital letters as one number; -1 for anything else. */
function placeOfLetters(text: string): number {
  const first = text.charCodeAt(0) - LETTER_A
  const second = text.charCodeAt(1) - LETTER_A
  return first >= 0 && first < LETTERS && second >= 0 && second < LETTERS ? first * LETTERS + second : -1
}

function findHome(country: string): RegionRules | null {
  const known = country.length === 2 ? rulesOf(country) : null
  if (known !== null) return known
  const code = country.trim().toUpperCase()
  return code === '001' ? null : rulesOf(code === 'UK' ? 'GB' : code)
}

/** Digits with what may stand between them in every reading of the reference: nothing that could mean more. */
const PLAIN = /^[^+\d\uff0b\uff10-\uff19\u0660-\u0669\u06f0-\u06f9]{0,3}(\+*)([\d \-.()[\]/]+)$/
const LEAST_DIGITS = 3

/**
 * Reads one number the way the reference does.
 * @param text one number, with or without a country code
 * @param country ISO 3166-1 alpha-2 of the place it is dialled from
 * @returns null where the reference refuses the text as no number at all
 */
export function readByPlan(text: string, country: string | null): PlanNumber | null {
  const plain = PLAIN.exec(text)
  const digits = plain?.[2]?.replace(/\D/g, '') ?? ''
  if (digits.length < LEAST_DIGITS) return readWritten(text, country)
  return readWhole(digits, plain?.[1] !== '', country) ? planNumber() : null
}

/** A text that holds more than digits and plain punctuation. */
function readWritten(text: string, country: string | null): PlanNumber | null {
  const written = writtenNumber(text)
  if (written === null || !readWhole(written.digits, written.hasPlus, country)) return null
  return { ...planNumber(), extension: written.extension }
}

const readWhole = (digits: string, hasPlus: boolean, country: string | null): boolean =>
  digits.length <= MOST_DIGITS &&
  readDigits(START, putDigits(digits, START), hasPlus, country === null ? null : rulesOf(country))

/**
 * Reads digits of the buffer the way the reference does; the number is left in `found`.
 * @param hasPlus true where a plus stood before them
 * @returns false where they are no number at all
 */
export const readPlan = (from: number, to: number, hasPlus: boolean, home: RegionRules | null): boolean =>
  to - from >= 2 && readDigits(from, to, hasPlus, home)

/** Leaves a number in `found` that was read in another way. */
export function leaveInBuffer({ countryCode, national }: PlanNumber): boolean {
  const code = callingCodeOf(countryCode)
  if (code) setFound(code, national)
  return code !== undefined
}

/** True for a number in E.164 that the plan calls valid. Says nothing of placeholders. */
export const isValidE164 = (e164: string): boolean => readByPlan(e164, null)?.valid ?? false

/** The number as its own country writes it, or as others do; the E.164 text itself where it cannot be read. */
export function formatNumber(e164: string, form: 'national' | 'international' = 'international'): string {
  const number = readByPlan(e164, null)
  const code = number && callingCodeOf(number.countryCode)
  if (!number || !code) return e164
  return form === 'national' ? nationalForm(code, number.national) : internationalForm(code, number.national)
}

/** True where the country writes the number in `found` with a leading trunk zero inside the country. */
export const isFoundWrittenWithZero = (): boolean =>
  found.code.trunk === '0' && isWrittenWithZero(found.code, textOf('', found.from, found.to))

/** How many more digits the longest numbers of a plan may have than its shortest, before it takes almost any digits. */
const OPEN_BY = 3

/** True for a country whose plan takes numbers of many lengths: a wrong digit hardly ever makes one invalid there. */
export const isOpenPlan = (home: RegionRules | null): boolean =>
  home !== null && home.lengths.most - home.lengths.least > OPEN_BY
