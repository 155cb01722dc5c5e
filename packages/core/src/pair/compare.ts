import { isOneSlipApart } from '../slip'
import { type Comparison, PAIR_LEVELS, type PairField, type PairLevel, UNKNOWN } from './fields'
import { areForms } from './nicknames'
import type { PairRecord } from './record'
import { jaroWinkler } from './similarity'

const ALIKE = 0.92
const LEAST_LOCAL = 5

const at = <F extends PairField>(field: F, level: PairLevel<F> | null): number =>
  level === null ? UNKNOWN : (PAIR_LEVELS[field] as readonly string[]).indexOf(level)

/**
 * Compares two contacts field by field, in the order of `PAIR_FIELDS`.
 * @param isSharedLine true for a number that people of different names hold
 */
export function compare(a: PairRecord, b: PairRecord, isSharedLine: (e164: string) => boolean): Comparison {
  return [
    at('name', compareNames(a, b)),
    at('number', compareNumbers(a, b, isSharedLine)),
    at('email', compareEmails(a, b)),
    at('profile', a.profile === '' || b.profile === '' ? null : a.profile === b.profile ? 'same' : 'other'),
    at('company', compareCompanies(a, b)),
    at('place', comparePlaces(a, b)),
  ]
}

/** Names in any order, with initials, familiar forms, fewer words and slips of a key. */
export function compareNames(a: PairRecord, b: PairRecord): PairLevel<'name'> | null {
  if (a.words.length === 0 || b.words.length === 0) return null
  if (a.nameKey === b.nameKey) return a.words.length > 1 ? 'same' : 'part'
  const [few, many] = a.words.length <= b.words.length ? [a, b] : [b, a]
  const { whole, loose } = matchWords(few.words, many.words)
  if (whole + loose === few.words.length && whole > 0) return few.words.length > 1 ? 'like' : 'part'
  if (a.family !== '' && areAlike(a.family, b.family)) return 'family'
  return a.given !== '' && a.given === b.given ? 'given' : 'other'
}

/** How many words of the shorter name stand in the longer one, and how many only look like one of its words. */
function matchWords(few: readonly string[], many: readonly string[]): { whole: number; loose: number } {
  const left = [...many]
  let whole = 0
  let loose = 0
  const rest: string[] = []
  for (const word of few) {
    const found = left.indexOf(word)
    if (found === -1) rest.push(word)
    else {
      left.splice(found, 1)
      if (word.length > 1) whole++
      else loose++
    }
  }
  for (const word of rest) {
    const found = left.findIndex((other) => isLoosely(word, other))
    if (found === -1) continue
    left.splice(found, 1)
    loose++
  }
  return { whole, loose }
}

function isLoosely(a: string, b: string): boolean {
  if (a.length === 1 || b.length === 1) return a[0] === b[0]
  return areForms(a, b) || areAlike(a, b)
}

/** How much longer one of two like words can be. */
const LONGER = 3

/** The same word but for slips; short words are too close to each other for that, and slips seldom begin a word. */
function areAlike(a: string, b: string): boolean {
  if (a === b) return true
  if (a.length <= LONGER || b.length <= LONGER || Math.abs(a.length - b.length) > LONGER) return false
  return a.charCodeAt(0) === b.charCodeAt(0) ? jaroWinkler(a, b) >= ALIKE : isOneSlipApart(a, b)
}

function compareNumbers(a: PairRecord, b: PairRecord, isSharedLine: (e164: string) => boolean) {
  if (a.numbers.length === 0 || b.numbers.length === 0) return null
  let isShared = false
  for (const { e164 } of a.numbers) {
    if (!b.numbers.some((other) => other.e164 === e164)) continue
    if (!isSharedLine(e164)) return 'same'
    isShared = true
  }
  if (isShared) return 'shared'
  // A desk and a mobile may be one person's; two mobiles seldom are.
  return a.numbers.some(({ isMobile }) => isMobile) && b.numbers.some(({ isMobile }) => isMobile) ? 'other' : null
}

/** The closest that two addresses of theirs are. */
export function compareEmails(a: PairRecord, b: PairRecord): PairLevel<'email'> | null {
  let best: PairLevel<'email'> | null = null
  for (const mine of a.emails) {
    for (const theirs of b.emails) {
      const level = compareAddresses(mine, theirs)
      if (level !== null && (best === null || PAIR_LEVELS.email.indexOf(level) < PAIR_LEVELS.email.indexOf(best)))
        best = level
    }
  }
  return best
}

type Address = PairRecord['emails'][number]

function compareAddresses(a: Address, b: Address): PairLevel<'email'> | null {
  if (a.address === b.address) return a.isRole ? 'role' : 'same'
  if (a.isRole || b.isRole) return null
  const [mine, theirs] = [a.address.lastIndexOf('@'), b.address.lastIndexOf('@')]
  const [local, other] = [a.address.slice(0, mine), b.address.slice(0, theirs)]
  const isSameHost = a.address.slice(mine) === b.address.slice(theirs)
  if (local.length >= LEAST_LOCAL && (local === other || (isSameHost && isOneSlipApart(local, other)))) return 'like'
  // Nobody needs two addresses with one host.
  return isSameHost ? 'rival' : 'other'
}

function compareCompanies(a: PairRecord, b: PairRecord): PairLevel<'company'> | null {
  if (a.domain !== '' && a.domain === b.domain) return 'same'
  if (a.company === '' || b.company === '') return null
  if (a.company === b.company) return a.domain !== '' && b.domain !== '' ? 'namesake' : 'same'
  const [few, many] = a.companyWords.length <= b.companyWords.length ? [a, b] : [b, a]
  // A branch has the name of its house and a word behind it.
  const isBranch = few.companyWords.length > 1 && few.companyWords.every((word) => many.companyWords.includes(word))
  return isBranch || areAlike(a.company, b.company) ? 'like' : 'other'
}

function comparePlaces(a: PairRecord, b: PairRecord): PairLevel<'place'> | null {
  if (a.country !== '' && b.country !== '' && a.country !== b.country) return 'country'
  if (a.postalCode !== '' && b.postalCode !== '' && a.postalCode === b.postalCode) return 'postal'
  if (a.city !== '' && b.city !== '') return a.city === b.city ? 'city' : 'other'
  return a.postalCode !== '' && b.postalCode !== '' ? 'other' : null
}
