import libphonenumber from 'google-libphonenumber'

const { PhoneNumberFormat, PhoneNumberUtil } = libphonenumber
const util = PhoneNumberUtil.getInstance()

/** What the reference library is asked for one cell: parse, valid, region, type, E.164. */
export function callReference({ raw, country }: { raw: string; country: string }): unknown {
  try {
    const number = util.parse(raw, country)
    return [
      util.isValidNumber(number),
      util.getRegionCodeForNumber(number),
      util.getNumberType(number),
      util.format(number, PhoneNumberFormat.E164),
    ]
  } catch {
    return null
  }
}
