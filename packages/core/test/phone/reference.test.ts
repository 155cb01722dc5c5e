import { createRequire } from 'node:module'
import { describe, expect, it } from '@jest/globals'
import libphonenumber from 'google-libphonenumber'
import { dialledFrom, formatNumber, type LineType, readPhoneCell } from '../../src/phone'
import { PLAN } from '../../src/phone/engine/planData'
import { type PlanNumber, readByPlan } from '../../src/phone/plan'
import { readByReference } from './referenceReading'

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

  it('writes a number at home and for others', () => {
    expect(formatNumber('+447911204481')).toBe('+44 7911 204481')
    expect(formatNumber('+447911204481', 'national')).toBe('07911 204481')
    expect(formatNumber('no number')).toBe('no number')
  })
})

function lineTypeOf(type: number): LineType {
  if (type === PhoneNumberType.FIXED_LINE_OR_MOBILE) return 'fixed-or-mobile'
  return TYPES.find(([known]) => known === type)?.[1] ?? 'unknown'
}

/** Numbers as they are written at home and abroad, hurt in one digit, and digits at random: the same every time. */
function* generatedInputs(count: number): Generator<readonly [text: string, country: string | null]> {
  let seed = 20_261_123
  const below = (n: number) => {
    seed = (Math.imul(seed, 1_103_515_245) + 12_345) & 0x7fffffff
    return Math.floor((seed / 0x80000000) * n)
  }
  const regions = util.getSupportedRegions()
  const written: (readonly [string, string])[] = examples.flatMap(({ region, number }) => {
    const national = util.getNationalSignificantNumber(number)
    const code = number.getCountryCodeOrDefault()
    const texts = [
      util.format(number, PhoneNumberFormat.NATIONAL),
      util.format(number, PhoneNumberFormat.INTERNATIONAL),
      national,
      `${code}${national}`,
      `00${code}${national}`,
      `011${code}${national}`,
      `+${code} (0)${national}`,
      `0${national}`,
      national.slice(0, -1),
      `${national}1`,
    ]
    return texts.map((text) => [text, region] as const)
  })
  yield* written
  for (let i = written.length; i < count; i++) {
    const region = regions[below(regions.length)] ?? 'GB'
    const [text, home] = written[below(written.length)] ?? ['', 'GB']
    if (i % 2 === 0) {
      const at = below(text.length)
      const digit = String(below(10))
      yield [
        /\d/.test(text[at] ?? '') ? text.slice(0, at) + digit + text.slice(at + 1) : text,
        below(4) ? home : region,
      ]
    } else {
      const code = below(4) ? '' : String(PLAN.codes[below(PLAN.codes.length)]?.code ?? '')
      const digits = Array.from({ length: 3 + below(13 - code.length) }, () => below(10)).join('')
      yield [`${below(3) ? '' : '+'}${code}${digits}`, below(8) ? region : null]
    }
  }
}

describe('the compiled plan', () => {
  it('is compiled from the package that is installed', () => {
    expect(PLAN.version).toBe(createRequire(import.meta.url)('google-libphonenumber/package.json').version)
  })

  it('agrees with the reference on 300,000 generated inputs of all its regions', () => {
    const different: unknown[] = []
    let compared = 0
    let written = 0
    for (const [text, country] of generatedInputs(300_000)) {
      compared++
      const [ours, theirs] = [readByPlan(text, country), readByReference(text, country)]
      const isSame =
        ours === null || theirs === null ? ours === theirs : factsOf(ours).every((fact) => ours[fact] === theirs[fact])
      if (!isSame && different.length < 20) different.push({ text, country, ours, theirs })
      if (!ours?.valid) continue
      written++
      const forms = [formatNumber(ours.e164, 'national'), formatNumber(ours.e164)]
      const theirForms = formsByReference(ours.e164)
      if (forms.join() !== theirForms.join() && different.length < 20) different.push({ ours, forms, theirForms })
    }
    expect(different).toEqual([])
    expect(compared).toBe(300_000)
    expect(written).toBeGreaterThan(60_000)
  })
})

function formsByReference(e164: string): string[] {
  const number = util.parse(e164)
  return [PhoneNumberFormat.NATIONAL, PhoneNumberFormat.INTERNATIONAL].map((form) => util.format(number, form))
}

/** Texts as people write them, hurt and dressed in every way the reference knows. */
function* oddInputs(count: number): Generator<readonly [text: string, country: string | null]> {
  let at = 0
  let seed = 7
  const below = (n: number) => {
    seed = (Math.imul(seed, 1_103_515_245) + 12_345) & 0x7fffffff
    return Math.floor((seed / 0x80000000) * n)
  }
  const pick = (from: readonly string[]) => from[below(from.length)] ?? ''
  for (const [text, country] of generatedInputs(count * 3)) {
    if (at++ % 3 > 0) continue
    const place = below(text.length + 1)
    const dressed = [
      `${pick(['', 'tel:', '(', '~', '++', '\uff0b', 'a', '#', ' ; '])}${text}${pick(EXTENSIONS)}`,
      text.slice(0, place) +
        pick(['x', '*', '\u2013', 'ABC', 'o', '+', '/', '  ', '\u0665', '\uff11', ',', '~', '\u200b']) +
        text.slice(place),
      `${text} / ${pick(['x', 'y', '12', '0'])}${below(1000)}`,
    ]
    yield [dressed[below(dressed.length)] ?? text, below(6) ? country : null]
  }
}

const EXTENSIONS = [
  ' ext. 12',
  'x123',
  ' extension 4',
  ';ext=77',
  '#12',
  ' - 345#',
  ',, 9',
  ';12',
  ' int 3',
  '\u0434\u043e\u0431 5',
  ' x',
  ';isub=1',
  ' ext',
  'ext 123456789012',
  '~7',
  ' EXTN: 9#',
  ' anexo 3',
  'abc',
  '...',
  ' \uff58\uff11',
] // prettier-ignore

describe('texts that hold more than digits', () => {
  it('are taken apart as the reference takes them apart', () => {
    const different: unknown[] = []
    let read = 0
    for (const [text, country] of oddInputs(60_000)) {
      const [ours, theirs] = [readByPlan(text, country), readByReference(text, country)]
      const isSame =
        ours === null || theirs === null ? ours === theirs : factsOf(ours).every((fact) => ours[fact] === theirs[fact])
      if (theirs !== null) read++
      if (!isSame && different.length < 20) different.push({ text, country, ours, theirs })
    }
    expect(different).toEqual([])
    expect(read).toBeGreaterThan(20_000)
  })
})

describe('dialling from another country', () => {
  it('is written as the reference writes it, from every country', () => {
    const regions = util.getSupportedRegions() as string[]
    let compared = 0
    const different: unknown[] = []
    for (const [i, { number }] of examples.entries()) {
      const e164 = util.format(number, PhoneNumberFormat.E164)
      // Every country with every third example.
      for (let r = i % 3; r < regions.length; r += 3) {
        compared++
        const ours = dialledFrom(e164, regions[r] ?? '')
        const theirs = util.formatOutOfCountryCallingNumber(util.parse(e164), regions[r] ?? '')
        if (ours !== theirs && different.length < 10) different.push({ e164, from: regions[r], ours, theirs })
      }
    }
    expect(different).toEqual([])
    expect(compared).toBeGreaterThan(60_000)
  })
})

/** The reference rounds numbers of 16 and more digits: their digits are not compared, all else is. */
const factsOf = ({ national }: PlanNumber) =>
  national.length > 15 ? FACTS.filter((fact) => fact !== 'e164' && fact !== 'national') : FACTS

const FACTS = [
  'e164',
  'country',
  'countryCode',
  'national',
  'extension',
  'lineType',
  'valid',
  'possible',
  'length',
] as const
