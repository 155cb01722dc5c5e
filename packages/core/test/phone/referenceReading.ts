import libphonenumber from 'google-libphonenumber'
import type { LineType } from '../../src/phone'
import type { PlanNumber } from '../../src/phone/plan'

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
