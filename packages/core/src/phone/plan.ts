import libphonenumber from 'google-libphonenumber'
import { MOST_DIGITS, putDigits, START, textOf } from './engine/digits'
import { internationalForm, isWrittenWithZero, nationalForm } from './engine/format'
import { found, type PlanNumber, planNumber, readDigits, setFound } from './engine/readDigits'
import { callingCodeOf, type RegionRules, rulesOf } from './engine/tables'
import type { LineType } from './types'

export type { PlanNumber } from './engine/readDigits'

const { PhoneNumberType, PhoneNumberUtil } = libphonenumber
const util = PhoneNumberUtil.getInstance()

const LINE_TYPE: Record<number, LineType> = {
  [PhoneNumberType.MOBILE]: 'mobile',
  [PhoneNumberType.FIXED_LINE]: 'fixed',
  [PhoneNumberType.FIXED_LINE_OR_MOBILE]: 'fixed-or-mobile',
  [PhoneNumberType.VOIP]: 'voip',
  [PhoneNumberType.TOLL_FREE]: 'toll-free',
  [PhoneNumberType.PREMIUM_RATE]: 'premium',
  [PhoneNumberType.SHARED_COST]: 'shared-cost',
  [PhoneNumberType.PERSONAL_NUMBER]: 'personal',
  [PhoneNumberType.PAGER]: 'pager',
  [PhoneNumberType.UAN]: 'uan',
  [PhoneNumberType.VOICEMAIL]: 'voicemail',
}

/** Rules of a country: ISO 3166-1 alpha-2, or UK; null where the plan does not know it. */
export function homeOf(country: string | null): RegionRules | null {
  if (country === null) return null
  const known = country.length === 2 ? rulesOf(country) : null
  if (known !== null) return known
  const code = country.trim().toUpperCase()
  return code === '001' ? null : rulesOf(code === 'UK' ? 'GB' : code)
}

/** True for countries the numbering plan knows. */
export const isPlanCountry = (country: string): boolean => country !== '001' && rulesOf(country) !== null

/** Calling code of a country, or 0 where the plan does not know it. */
export const callingCode = (country: string): number => rulesOf(country)?.code ?? 0

/** Digits with what may stand between them in every reading of the reference: nothing that could mean more. */
const PLAIN = /^[^+\d]{0,3}(\+*)([\d \-.()[\]/]+)$/
const LEAST_DIGITS = 3

/**
 * Reads one number the way the reference does: by the compiled plan, or by the reference itself where the text holds
 * more than digits and punctuation.
 * @param text one number, with or without a country code
 * @param country ISO 3166-1 alpha-2 of the place it is dialled from
 * @returns null where the reference refuses the text as no number at all
 */
export function readByPlan(text: string, country: string | null): PlanNumber | null {
  if (text.length > 250) return null
  const plain = PLAIN.exec(text)
  const digits = plain?.[2]?.replace(/\D/g, '') ?? ''
  if (digits.length < LEAST_DIGITS || digits.length > MOST_DIGITS) return askReference(text, country)
  const hasPlus = plain?.[1] !== ''
  const status = readDigits(START, putDigits(digits, START), hasPlus, country === null ? null : rulesOf(country))
  return status === 'ask' ? askReference(text, country) : status === 'number' ? planNumber() : null
}

/**
 * Reads digits of the buffer the way the reference does; the number is left in `found`.
 * @param hasPlus true where a plus stood before them
 * @returns false where they are no number at all
 */
export function readPlan(from: number, to: number, hasPlus: boolean, home: RegionRules | null): boolean {
  const status = to - from < LEAST_DIGITS ? 'ask' : readDigits(from, to, hasPlus, home)
  if (status !== 'ask') return status === 'number'
  const answer = askReference(textOf(hasPlus ? '+' : '', from, to), home?.region ?? null)
  return answer !== null && leaveInBuffer(answer)
}

/** Leaves a number in `found` that was read in another way. */
export function leaveInBuffer({ countryCode, national }: PlanNumber): boolean {
  const code = callingCodeOf(countryCode)
  if (code) setFound(code, national)
  return code !== undefined
}

const ANSWERS = 5000
const answers = new Map<string, PlanNumber | null>()

/** The reference's own reading; answers are kept, since odd cells come in numbers. */
function askReference(text: string, country: string | null): PlanNumber | null {
  const key = `${country}|${text}`
  const known = answers.get(key)
  if (known !== undefined) return known
  if (answers.size >= ANSWERS) answers.clear()
  const answer = readByReference(text, country)
  answers.set(key, answer)
  return answer
}

/** True for a number in E.164 that the plan calls valid. Says nothing of placeholders. */
export const isValidE164 = (e164: string): boolean => readByPlan(e164, null)?.valid ?? false

/** What the reference itself makes of a text; the compiled plan is tested against it. */
export function readByReference(text: string, country: string | null): PlanNumber | null {
  try {
    return describe(util.parse(text, country ?? undefined))
  } catch {
    return null
  }
}

type Parsed = ReturnType<typeof util.parse>

/**
 * The reference calls a number valid exactly where its type is known, and every valid number is possible: asking for
 * the type alone saves half of its work.
 */
function describe(number: Parsed): PlanNumber {
  const type = util.getNumberType(number)
  const valid = type !== PhoneNumberType.UNKNOWN
  const national = util.getNationalSignificantNumber(number)
  const countryCode = number.getCountryCodeOrDefault()
  return {
    e164: `+${countryCode}${national}`,
    country: valid ? regionOf(util.getRegionCodeForNumber(number)) : null,
    countryCode,
    national,
    extension: number.getExtension() || null,
    lineType: LINE_TYPE[type] ?? 'unknown',
    valid,
    ...(valid ? FITS : lengthOf(number)),
  }
}

const FITS = { possible: true, length: 'fits' } as const

function lengthOf(number: Parsed): Pick<PlanNumber, 'possible' | 'length'> {
  const { IS_POSSIBLE, TOO_SHORT, TOO_LONG, INVALID_LENGTH } = PhoneNumberUtil.ValidationResult
  const reason = util.isPossibleNumberWithReason(number)
  const isShort = reason === TOO_SHORT || reason === INVALID_LENGTH
  return { possible: reason === IS_POSSIBLE, length: reason === TOO_LONG ? 'too-long' : isShort ? 'too-short' : 'fits' }
}

/** 001 stands for the calling codes that belong to no country. */
function regionOf(region: string | undefined): string | null {
  return region && region !== '001' ? region : null
}

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
