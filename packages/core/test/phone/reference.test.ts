import { describe, expect, it } from '@jest/globals'
import libphonenumber from 'google-libphonenumber'
import { formatNumber, type LineType, readPhoneCell } from '../../src/phone'

const { PhoneNumberFormat, PhoneNumberType, PhoneNumberUtil } = libphonenumber
const util = PhoneNumberUtil.getInstance()
const TYPES: [number, LineType][] = [
  [PhoneNumberType.MOBILE, 'mobile'],
  [PhoneNumberType.FIXED_LINE, 'fixed'],
  [PhoneNumberType.TOLL_FREE, 'toll-free'],
  [PhoneNumberType.PREMIUM_RATE, 'premium'],
  [PhoneNumberType.SHARED_COST, 'shared-cost'],
  [PhoneNumberType.VOIP, 'voip'],
  [PhoneNumberType.PERSONAL_NUMBER, 'personal'],
  [PhoneNumberType.PAGER, 'pager'],
  [PhoneNumberType.UAN, 'uan'],
  [PhoneNumberType.VOICEMAIL, 'voicemail'],
]

/** The reference's own example of every kind of line of every country. */
const examples = util.getSupportedRegions().flatMap((region) =>
  TYPES.flatMap(([type, lineType]) => {
    const number = util.getExampleNumberForType(region, type)
    return number && util.isValidNumber(number) ? [{ region: region as string, lineType, number }] : []
  }),
)

describe('agreement with the reference', () => {
  it('has examples to compare', () => expect(examples.length).toBeGreaterThan(800))

  it('judges every example number as the reference does, written internationally', () => {
    const different = examples.filter(({ number }) => {
      // A few numbers cannot be dialled from abroad, and the reference writes them without their code.
      if (!util.format(number, PhoneNumberFormat.INTERNATIONAL).startsWith('+')) return false
      const [read] = readPhoneCell(util.format(number, PhoneNumberFormat.INTERNATIONAL)).numbers
      const isPlaceholder = readPhoneCell(util.format(number, PhoneNumberFormat.E164)).verdict === 'placeholder'
      if (isPlaceholder) return false
      return (
        read?.e164 !== util.format(number, PhoneNumberFormat.E164) ||
        read.country !== (util.getRegionCodeForNumber(number) ?? null) ||
        read.lineType !== lineTypeOf(util.getNumberType(number))
      )
    })
    expect(different.map(({ number }) => util.format(number, PhoneNumberFormat.E164))).toEqual([])
  })

  it('formats as the reference does', () => {
    expect(formatNumber('+447911204481')).toBe('+44 7911 204481')
    expect(formatNumber('+447911204481', 'national')).toBe('07911 204481')
    expect(formatNumber('no number')).toBe('no number')
  })
})

function lineTypeOf(type: number): LineType {
  if (type === PhoneNumberType.FIXED_LINE_OR_MOBILE) return 'fixed-or-mobile'
  return TYPES.find(([known]) => known === type)?.[1] ?? 'unknown'
}
