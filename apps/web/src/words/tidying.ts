import type { HandItem } from '@upper-field/contract'
import type { ChangeCode, StepKind } from '@upper-field/core/tidy'
import { FIELD, PROBLEM } from './sentences'

/** What each step of a routine is called, and what it does. */
export const STEP: Record<StepKind, { readonly title: string; readonly does: string }> = {
  letters: {
    title: 'Broken letters',
    does: 'Letters that a wrong encoding broke (“MÃ¼ller”), or that were written for a web page (“M&uuml;ller”), become what they were.',
  },
  refusals: {
    title: 'Remarks that say no',
    does: '“Do not call”, “opted out”, “deceased” and the like come out of every cell, into a column of their own.',
  },
  blanks: { title: 'Blank words', does: 'Cells that only say that nothing is known are taken for blank.' },
  numbers: {
    title: 'Read numbers',
    does: 'Every phone cell is read by the numbering plan of its country, and its damage mended. No digit is ever made up.',
  },
  names: {
    title: 'Mend names',
    does: 'Titles, letters behind a name and ornaments come out; order and capitals are put right.',
  },
  company: {
    title: 'Mend companies',
    does: 'The legal form comes off for writing to people and stays in a column of its own.',
  },
  emails: {
    title: 'Mend e-mails',
    does: 'One form for every address. Slips in a domain are proposed, never mended in silence.',
  },
  country: { title: 'Countries', does: 'Any common spelling becomes the code of ISO 3166.' },
  region: { title: 'Regions', does: 'Names of states, counties and provinces become the code of ISO 3166-2.' },
  'postal-code': {
    title: 'Postal codes',
    does: 'In the form of the country; zeros that a spreadsheet took are put back.',
  },
  dates: { title: 'Dates', does: 'Dates of the chosen columns become year, month, day (ISO 8601).' },
  web: {
    title: 'Web addresses',
    does: 'Web addresses become the domain; tracking comes off profile addresses.',
  },
  replace: { title: 'Find and replace', does: 'In the chosen columns only, as plain words or by a pattern.' },
  derive: { title: 'Derived column', does: 'A new column from the others, by a template.' },
  columns: { title: 'Arrange columns', does: 'Which extra columns are kept, what they are called, and their order.' },
}

/** Each repair: its name, and when it is made. */
export const REPAIR_NAME: Record<ChangeCode, { readonly title: string; readonly says: string }> = {
  'number-form': { title: 'Punctuation only', says: 'The digits stood as they should; only the writing differs.' },
  'trunk-zero': {
    title: 'Trunk zero inside',
    says: 'The zero that is dialled at home was taken out of the international number.',
  },
  'international-prefix': { title: 'Prefix for abroad', says: '00 or 011 became a plus.' },
  'country-code-without-plus': {
    title: 'Country code without plus',
    says: 'Made only where the number is valid with its code and not as it stands.',
  },
  'country-code-twice': { title: 'Country code twice', says: 'The code stood there twice; valid with it once.' },
  'lost-zero': {
    title: 'Lost leading zero',
    says: 'Made only where the result is valid and the cell as it stands is not.',
  },
  'label-taken-off': {
    title: 'Words taken off',
    says: 'A label is kept as a hint of what line it is, a remark as it stood.',
  },
  'several-numbers': { title: 'Several numbers in a cell', says: 'Each is a number of its own, in their order.' },
  'keypad-letters': { title: 'Letters of the keypad', says: 'Letters were read as keys of a telephone.' },
  'letters-for-digits': {
    title: 'Letters for digits',
    says: 'O for 0, l or I for 1; made only where the result is valid.',
  },
  'scientific-notation': {
    title: 'Number in notation',
    says: 'A spreadsheet had written it in notation, and every digit was there.',
  },
  'decimal-tail': { title: 'Decimal tail', says: 'A spreadsheet had put “.0” behind it.' },
  'percent-encoding': { title: 'Signs of percent', says: 'It was written as in a web address.' },
  'odd-plus': { title: 'Plus in another place', says: 'It stood behind zeros, behind the code, twice or at the end.' },
  'shared-stem': {
    title: 'Numbers with one stem',
    says: 'Written once, then by their last digits; made only where each of them is valid.',
  },
  'old-form': { title: 'Old form of dialling', says: 'With a prefix that has fallen away, or room for a carrier.' },
  apostrophe: { title: 'Apostrophe in front', says: 'A spreadsheet had put it there.' },
  'html-entities': { title: 'HTML entities', says: 'Signs that were written for a web page, as those signs.' },
  'broken-letters': {
    title: 'Broken letters',
    says: 'Read with the wrong encoding; turned back only where the whole cell can be.',
  },
  refusal: {
    title: 'Remarks that say no',
    says: 'Taken out of the cell, into a column of their own. Look at them before anything is sent.',
  },
  'blank-word': { title: 'Words that mean blank', says: 'The cell said only that nothing is known.' },
  'name-order': { title: 'Surname first', says: '“Surname, given name” the way it is spoken.' },
  'name-case': {
    title: 'Capitals of names',
    says: 'Made where a name, or one word of it, stood all in capitals or all in small letters.',
  },
  'name-title': { title: 'Titles', says: 'Taken out of the name, into a column of their own.' },
  'name-credentials': { title: 'Letters behind the name', says: 'Taken out of the name, into a column of their own.' },
  'name-decoration': { title: 'Ornaments', says: 'Pictures, stars and words in brackets that are no name.' },
  'name-nickname': { title: 'Nicknames', says: 'Between quotes or in brackets; into a column of their own.' },
  'name-role': { title: 'Jobs beside a name', says: 'In brackets or behind a bar; into the job title.' },
  'name-remark': { title: 'Remarks beside a name', says: 'Into a column of their own.' },
  'name-company': {
    title: 'Companies among the names',
    says: 'A legal form or a trade told; moved only where no other company was named.',
  },
  'name-email': {
    title: 'E-mails among the names',
    says: 'An address is no name: alone or behind one, it went to the others.',
  },
  'company-case': {
    title: 'Capitals of companies',
    says: 'Made only where it stood all in capitals or all in small letters.',
  },
  'company-legal-form': { title: 'Legal form off', says: 'It stays in a column of its own, for matching.' },
  'email-form': {
    title: 'Form of the address',
    says: 'Small letters; no quotes, brackets, spaces or invisible signs.',
  },
  'email-mended': { title: 'Address mended', says: 'Spaces, “(at)” or a comma stood where the address has none.' },
  'several-emails': { title: 'Several addresses in a cell', says: 'Each is an address of its own, in their order.' },
  'country-code': { title: 'Country by its code', says: 'Any common spelling becomes two letters.' },
  'region-code': { title: 'Region by its code', says: 'The name becomes the code of its country’s list.' },
  'postal-code-form': { title: 'Form of the postal code', says: 'Spaces and capitals as the country writes it.' },
  'postal-code-zero': {
    title: 'Zero of the postal code',
    says: 'Put back where the country’s codes have that many digits.',
  },
  'date-form': { title: 'Form of the date', says: 'Year, month, day.' },
  'web-domain': { title: 'Domain of the site', says: 'The part of the address that somebody has registered.' },
  'profile-form': { title: 'Form of the profile address', says: 'No scheme, no tracking, no slash at the end.' },
  replaced: { title: 'Replaced', says: 'By your own find and replace.' },
  derived: { title: 'Derived', says: 'By your own template.' },
  edited: { title: 'Edited by hand', says: 'A person’s word counts before the routine’s.' },
}

/** A column by its name, as people read it. */
export function columnTitle(name: string): string {
  const match = /^(number|email)-(\d+)$/.exec(name)
  const field = (match?.[1] ?? name) as keyof typeof FIELD
  return field in FIELD ? `${FIELD[field]}${match ? ` ${match[2]}` : ''}` : name
}

export const HAND_PROBLEM: Record<HandItem['problem'], string> = {
  ...PROBLEM,
  'no-address': 'No address can be read here.',
  'two-people': 'Two people stand in this cell.',
  'zero-contradicted': 'A leading zero may be missing, but state and town say otherwise.',
  'slip-in-domain': 'The domain looks like a slip of typing.',
}

export const FIX: Record<string, string> = {
  'letter-for-digit': 'a letter in place of a digit',
  'letter-left-out': 'letter left out',
  'digits-swapped': 'two digits changed round',
  'digit-dropped': 'one digit too many',
  'other-country': 'a number of another country',
  reading: 'one of two readings',
  domain: 'the domain it is near to',
  'parts-joined': 'both parts together',
  part: 'the last part alone',
  person: 'one of the two',
  code: 'with the zero',
}
