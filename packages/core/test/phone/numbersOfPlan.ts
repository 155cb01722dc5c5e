import libphonenumber from 'google-libphonenumber'
import { formatNumber, isValidE164 } from '../../src/phone'

const { PhoneNumberFormat, PhoneNumberType, PhoneNumberUtil } = libphonenumber
const util = PhoneNumberUtil.getInstance()

/** Forty countries of every kind of plan: open and closed, with a trunk zero, an eight, or none, generous and strict. */
export const COUNTRIES =
  `GB DE FR US CA IT ES PT NL BE CH AT SE NO DK FI PL CZ HU RO GR TR RU UA IE AU NZ IN JP CN KR SG
  MX BR AR CL ZA NG AE IL`.split(/\s+/)

export interface KnownNumber {
  readonly country: string
  readonly e164: string
}

/** Digits at random that are the same every time. */
export function below(seed: number): (n: number) => number {
  let state = seed
  return (n) => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0
    return Math.floor((state / 0x1_0000_0000) * n)
  }
}

/** Valid numbers of a country, fixed and mobile: its examples with other digits at the end. */
export function numbersOf(country: string, count: number, random: (n: number) => number): readonly KnownNumber[] {
  const found = new Set<string>()
  const examples = [PhoneNumberType.MOBILE, PhoneNumberType.FIXED_LINE].flatMap((type) => {
    const number = util.getExampleNumberForType(country, type)
    return number ? [util.format(number, PhoneNumberFormat.E164)] : []
  })
  for (let tries = 0; found.size < count && tries < count * 50; tries++) {
    const example = examples[tries % examples.length] ?? ''
    const tail = 4 + random(4)
    const e164 = example.slice(0, -tail) + Array.from({ length: tail }, () => random(10)).join('')
    if (isValidE164(e164)) found.add(e164)
  }
  return [...found].map((e164) => ({ country, e164 }))
}

/** How a person writes it: as it is dialled from abroad or at home, with and without gaps. */
export const writtenForms = (e164: string): readonly string[] => [
  e164,
  formatNumber(e164),
  formatNumber(e164, 'national'),
  formatNumber(e164, 'national').replace(/\D/g, ''),
]

/** A slip of one key: a digit lost, doubled, swapped with the next, or another one in its place. */
export function slip(text: string, random: (n: number) => number): string {
  const places = [...text].flatMap((char, at) => (/\d/.test(char) ? [at] : []))
  const at = places[random(places.length)] ?? 0
  const digit = text[at] ?? ''
  switch (random(4)) {
    case 0:
      return text.slice(0, at) + text.slice(at + 1)
    case 1:
      return text.slice(0, at) + digit + text.slice(at)
    case 2: {
      const next = places[places.indexOf(at) + 1]
      if (next === undefined) return text
      return text.slice(0, at) + text[next] + text.slice(at + 1, next) + digit + text.slice(next + 1)
    }
    default:
      return text.slice(0, at) + String((Number(digit) + 1 + random(9)) % 10) + text.slice(at + 1)
  }
}
