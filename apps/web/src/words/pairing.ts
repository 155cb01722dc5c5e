import type { Evidence, PairItem } from '@upper-field/contract'
import type { SharedLineKind, SurvivorPart, SurvivorshipRule } from '@upper-field/core/pair'

/** What each finding is called, for one person first. */
const FOUND: Record<Evidence['field'], Record<string, string>> = {
  name: {
    same: 'the same name',
    like: 'names that can be one person’s',
    slip: 'given names that a slip of a key parts',
    part: 'a part of the name',
    family: 'the same family name, another given name',
    given: 'the same given name, another family name',
    other: 'different names',
  },
  number: { same: 'one number', shared: 'a number that several people hold', other: 'two different mobiles' },
  email: {
    same: 'one e-mail address',
    like: 'addresses that begin alike',
    role: 'one role address',
    other: 'different e-mail addresses',
    rival: 'two addresses with one host',
  },
  profile: { same: 'one profile', other: 'two profiles' },
  company: {
    same: 'one company',
    like: 'companies of nearly one name',
    namesake: 'companies of one name on two sites',
    other: 'different companies',
  },
  place: { postal: 'one postal code', city: 'one town', other: 'different towns', country: 'different countries' },
  birth: {
    same: 'one birth date',
    year: 'one year of birth',
    like: 'birth dates that differ by a slip',
    other: 'two birth dates',
  },
  street: { same: 'one street and house', like: 'streets of nearly one name', other: 'different streets' },
}

/** What of a contact is taken from one row. */
export const PART: Record<SurvivorPart, string> = {
  name: 'Name',
  company: 'Company',
  title: 'Title',
  place: 'Place',
  profile: 'Profile',
  numbers: 'Numbers',
  emails: 'E-mails',
}

/** Whose value comes first. */
export const RULE: Record<SurvivorshipRule, string> = {
  first: 'the first row’s',
  latest: 'the latest row’s',
  fullest: 'the fullest',
  commonest: 'what most rows say',
}

/** Why two contacts were compared at all. */
export const PAIR_REASON: Record<PairItem['key'], string> = {
  number: 'same number',
  email: 'same e-mail',
  profile: 'same profile',
  name: 'same name',
  company: 'same company and place',
  'domain-initial': 'same site, like name',
  'postal-initial': 'same postal code, same initials',
  'name-part': 'one name alike, the other begins so',
}

/** So few bits say nothing: people of one company have its town in common anyway. */
export const SILENT = 0.5

/** The evidence as a sentence: what speaks for one person, then what speaks for two. */
export function evidenceSentence(evidence: readonly Evidence[]): string {
  const told = (isFor: boolean) =>
    evidence
      .filter(({ bits }) => (isFor ? bits > SILENT : bits < -SILENT))
      .map(({ field, level }) => FOUND[field][level] ?? level)
  const [reasons, doubts] = [listed(told(true)), listed(told(false))]
  if (reasons === '') return capital(doubts === '' ? 'nothing is known of both' : `only against it: ${doubts}`)
  return capital(doubts === '' ? reasons : `${reasons}; but ${doubts}`)
}

const capital = (text: string): string => `${text.charAt(0).toUpperCase()}${text.slice(1)}.`

const listed = (parts: readonly string[]): string =>
  parts.length < 2 ? (parts[0] ?? '') : `${parts.slice(0, -1).join(', ')} and ${parts.at(-1)}`

/** Bits with their sign and a real minus: +5.1, −0.6. */
export const bitsText = (bits: number): string => {
  const text = Math.abs(bits).toFixed(1)
  return text === '0.0' ? '0' : `${bits < 0 ? '−' : '+'}${text}`
}

export const SHARED_KIND: Record<SharedLineKind, string> = {
  switchboard: 'switchboard',
  household: 'household',
  'several-people': 'different people',
}
