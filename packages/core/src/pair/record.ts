import { doubleMetaphone } from 'double-metaphone'
import { remember } from '../remember'
import { fold, wordsOf } from './fold'

/** What pairing looks at in a contact. Empty texts are unknown. */
export interface PairInput {
  readonly fullName: string
  readonly givenName: string
  readonly familyName: string
  /** Without its legal form. */
  readonly company: string
  readonly domain: string
  readonly profile: string
  readonly city: string
  readonly postalCode: string
  /** ISO 3166-1 alpha-2. */
  readonly country: string
  /** Valid numbers in E.164. */
  readonly numbers: readonly { readonly e164: string; readonly isMobile: boolean }[]
  readonly emails: readonly { readonly address: string; readonly isRole: boolean }[]
}

/** A contact made ready for comparing: everything folded once. */
export interface PairRecord {
  /** Position among the contacts that are paired. */
  readonly at: number
  /** Words of the whole name, in order of the alphabet, so that their order in the cell does not count. */
  readonly nameKey: string
  readonly given: string
  readonly family: string
  readonly words: readonly string[]
  readonly sound: string
  readonly company: string
  readonly companyWords: readonly string[]
  readonly domain: string
  readonly profile: string
  readonly city: string
  readonly postalCode: string
  readonly country: string
  readonly numbers: PairInput['numbers']
  readonly emails: PairInput['emails']
}

/** How a word sounds; the first code of the double metaphone. */
const soundOf = remember((word: string): string => doubleMetaphone(word)[0], 50_000)

const NO_WORDS: readonly string[] = []

/** Makes a contact ready for comparing. */
export function pairRecord(at: number, input: PairInput): PairRecord {
  const words = input.fullName === '' ? NO_WORDS : wordsOf(input.fullName)
  const given = fold(input.givenName)
  const family = fold(input.familyName) || (given === '' ? (words.at(-1) ?? '') : '')
  const company = fold(input.company)
  return {
    at,
    nameKey: words.length < 2 ? (words[0] ?? '') : [...words].sort().join(' '),
    given: given || (words.length > 1 && input.familyName === '' ? words.slice(0, -1).join(' ') : ''),
    family,
    words,
    sound: family === '' ? '' : soundOf(family.slice(family.lastIndexOf(' ') + 1)),
    company,
    companyWords: company === '' ? NO_WORDS : company.split(' '),
    domain: input.domain.toLowerCase(),
    profile: input.profile.toLowerCase(),
    city: fold(input.city),
    postalCode: input.postalCode.toLowerCase().replace(/\s+/g, ''),
    country: input.country,
    numbers: input.numbers,
    emails: input.emails,
  }
}
