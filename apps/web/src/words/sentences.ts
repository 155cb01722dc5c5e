import type { Batch } from '@upper-field/contract'
import type { AddressState, CallState, Sureness } from '@upper-field/core/check'
import type { Problem, Repair, Verdict } from '@upper-field/core/phone'
import type { SendField } from '@upper-field/core/send'
import type { Lane, LaneReason, Outcome, Scope } from '@upper-field/core/split'
import type { Riser, Stage } from '@upper-field/core/story'
import {
  type CellKind,
  type Damage,
  FILE_PROBLEM_TEXT,
  type Field,
  type Format,
  type HeldReason,
  type SuggestionReason,
} from '@upper-field/core/table'
import type { EmailKind } from '@upper-field/core/tidy'

/** Every sentence people read about a code, in one place. */
export const STAGE: Record<Stage, string> = {
  bring: 'Bring in',
  tidy: 'Tidy',
  pair: 'Pair',
  check: 'Check',
  fill: 'Fill',
  split: 'Split',
  send: 'Send',
}

export const RISER: Record<Riser, string> = {
  held: 'held',
  'nothing-readable': 'nothing readable',
  joined: 'joined',
  'out-of-service': 'out of service',
  filled: 'reached again',
  suppressed: 'suppressed',
  parked: 'parked',
  'by-post': 'by post alone',
  'not-sent': 'not yet sent',
}

export const VERDICT: Record<Verdict, string> = {
  clean: 'clean',
  repaired: 'repaired',
  doubtful: 'doubtful',
  unreadable: 'unreadable',
  placeholder: 'placeholder',
  empty: 'no number',
}

export const LINE: Record<string, string> = {
  mobile: 'Mobile',
  fixed: 'Fixed',
  'fixed-or-mobile': 'Fixed or mobile',
  voip: 'Voip',
  'toll-free': 'Toll-free',
  premium: 'Premium',
  'shared-cost': 'Shared cost',
  personal: 'Personal',
  pager: 'Pager',
  uan: 'Company-wide',
  voicemail: 'Voicemail',
  unknown: 'Unknown',
}

export const LINE_STATUS: Record<string, string> = {
  'in-service': 'in service',
  'out-of-service': 'out of service',
  unreachable: 'unreachable',
  unknown: 'not known',
  'not-checked': 'not checked',
}

export const EMAIL_KIND: Record<EmailKind, string> = {
  work: 'Work',
  personal: 'Personal',
  role: 'Role',
  throwaway: 'Throwaway',
}

export const ADDRESS: Record<AddressState, string> = {
  deliverable: 'takes mail',
  'accept-all': 'host takes everything',
  unknown: 'not known',
  'not-checked': 'not checked',
  undeliverable: 'takes none',
  none: 'no address',
}

export const CALL: Record<CallState, string> = {
  now: 'may be called now',
  'outside-hours': 'not within the hours for calls',
  'not-this-day': 'not called on this day',
  holiday: 'a public holiday there',
  'zone-not-known': 'time there not known',
  suppressed: 'not to be called',
}

export const SURE: Record<Sureness, string> = {
  'mobile-in-service': 'mobile in service',
  'mobile-not-checked': 'mobile, not checked',
  'only-office': 'only the office',
  'sure-address': 'sure address',
  'risky-address': 'risky address',
  'address-not-checked': 'address, not checked',
  nothing: 'nothing',
}

const LANE: Record<Lane | 'post', string> = {
  post: 'Post',
  text: 'Text',
  call: 'Call',
  'ads-only': 'Ads only',
  parked: 'Parked',
}

/** What came of a call. */
export const OUTCOME: Record<Outcome, string> = {
  reached: 'Reached',
  'no-answer': 'No answer',
  'wrong-number': 'Wrong number',
  'asked-not-to': 'Asked not to be called',
  later: 'Later',
}

/** The name of a lane: one of the usual ones, or what an operator's own is called. */
export const laneText = (lane: string): string =>
  (LANE as Readonly<Record<string, string>>)[lane] ?? lane.charAt(0).toUpperCase() + lane.slice(1).replaceAll('-', ' ')

/** What a suppression list keeps people out of. */
export const SCOPE: Record<Scope, string> = {
  all: 'everything',
  texts: 'texts',
  calls: 'calls',
  post: 'post',
  ads: 'ads',
}

export const LANE_REASON: Record<LaneReason, string> = {
  suppressed: 'on a suppression list',
  mobile: 'a mobile of their own',
  'line-to-call': 'a line to call',
  'shared-mobile': 'a mobile held by several people',
  'only-email': 'only an e-mail',
  'not-by-phone': 'not to be called',
  'no-way-to-reach': 'no way to reach them',
  'out-of-service': 'every number out of service',
  'line-not-to-call': 'only lines that are not called',
  'by-rule': 'by a rule of this list',
  'by-hand': 'moved by hand',
  'no-rule': 'no rule takes them',
}

export const REPAIR: Record<Repair, string> = {
  'trunk-zero': 'The zero dialled inside the country was taken out of the international number.',
  'international-prefix': 'The prefix for dialling abroad became a plus.',
  'country-code-without-plus': 'The country code stood without its plus.',
  'country-code-twice': 'The country code stood there twice.',
  'lost-zero': 'The leading zero, lost in a spreadsheet, was put back.',
  'label-taken-off': 'The words beside the number were taken off and are kept.',
  'several-numbers': 'Several numbers stood in one cell.',
  'keypad-letters': 'Letters were read as keys of a telephone.',
  'letters-for-digits': 'The letter O or l stood for a digit.',
  'scientific-notation': 'A spreadsheet had written it in notation; all digits were there.',
  'decimal-tail': 'A spreadsheet had put “.0” behind it.',
  apostrophe: 'A spreadsheet had put an apostrophe before it.',
  'percent-encoding': 'It was written as in a web address, with signs of percent.',
  'odd-plus': 'The plus stood elsewhere than in front.',
  'shared-stem': 'Several numbers were written as one, with their last digits behind it.',
  'old-form': 'It was written for a way of dialling that has gone.',
}

export const PROBLEM: Record<Problem, string> = {
  masked: 'Some digits were hidden by whoever sold it.',
  'digits-lost': 'A spreadsheet rounded it: digits are lost, and none is made up.',
  date: 'This is a date.',
  'opening-hours': 'These are hours.',
  money: 'This is an amount of money.',
  percentage: 'This is a percentage.',
  coordinates: 'This is a place on the map.',
  card: 'This is a card number.',
  'ip-address': 'This is the address of a machine.',
  email: 'This is an e-mail.',
  'reference-number': 'This is an order, tax or other reference number.',
  'too-short': 'There are too few digits.',
  'too-long': 'There are too many digits.',
  'not-in-plan': 'The numbering plan has no such number.',
  'no-country': 'Without a country it cannot be told which number this is.',
  'no-digits': 'There are no digits in it.',
  'two-readings': 'It can be read in two ways, and neither is likelier.',
  'unsure-repair': 'It is a number only after a repair that a slip of a key would explain as well.',
  'plus-missing': 'It is a number of another country, if a plus is put before it.',
  'cell-too-long': 'The cell is too long to be a number.',
  'left-out': 'Its repair is left out, so it stays as it stood.',
}

export const FIELD: Record<Field, string> = {
  'full-name': 'Full name',
  'given-name': 'Given name',
  'family-name': 'Family name',
  title: 'Title',
  company: 'Company',
  number: 'Number',
  email: 'E-mail',
  country: 'Country',
  city: 'City',
  region: 'Region',
  'postal-code': 'Postal code',
  street: 'Street',
  'birth-date': 'Birth date',
  gender: 'Gender',
  'device-id': 'Advertising id',
  value: 'Customer value',
  industry: 'Industry',
  'company-page': 'Page of the company',
  web: 'Web address',
  profile: 'Profile address',
}

export const HELD: Record<HeldReason, string> = {
  'open-quote': 'A quotation mark is opened and never closed.',
  'row-too-long': 'The row is longer than a row can be.',
  'cell-too-long': 'A cell holds more than 65,536 characters.',
  'too-few-cells': 'The row has fewer cells than there are headings, so it cannot be told which is missing.',
  'too-many-cells': 'The row has more cells than there are headings.',
  'nul-byte': 'There is a NUL byte in the row.',
  'wrong-encoding': 'Some bytes are no letters in the encoding of this file.',
  'heading-again': 'The headings stand here once more.',
  'totals-row': 'It adds up the others.',
  footer: 'A remark below the table.',
  'broken-item': 'This entry is not well formed, or in a version that is not read.',
}

export const KIND: Record<CellKind, string> = {
  phone: 'numbers',
  email: 'e-mails',
  web: 'web addresses',
  profile: 'profile addresses',
  date: 'dates',
  country: 'countries',
  town: 'towns',
  'postal-code': 'postal codes',
  person: 'names',
  company: 'companies',
  amount: 'amounts',
  words: 'words',
}

export const DAMAGE: Record<Damage, string> = {
  'digits-lost': 'written in notation, digits lost',
  'zeros-lost': 'leading zero lost',
  apostrophe: 'apostrophe in front',
  'decimal-tail': '“.0” behind',
  'mixed-encodings': 'letters decoded twice',
  'replaced-letters': 'letters that could not be decoded',
  'line-breaks': 'line breaks inside',
  'control-characters': 'control characters',
  'direction-marks': 'marks that turn the writing direction',
  'spreadsheet-error': 'an error of a spreadsheet',
  markup: 'mark-up',
}

export const SUGGESTION: Record<SuggestionReason, string> = {
  heading: 'by its heading',
  cells: 'by what the cells hold',
  'heading-and-cells': 'by heading and cells',
  'against-heading': 'by the cells, against the heading',
  beside: 'by the column beside it',
  nothing: 'nothing tells',
  'known-other': 'no field of a contact',
  taken: 'another column has this field',
  'as-last-time': 'as last time',
}

export const FORMAT: Record<Format, string> = {
  csv: 'text with delimiters',
  tsv: 'text with tabs',
  xlsx: 'workbook (.xlsx)',
  xls: 'old workbook (.xls)',
  ods: 'OpenDocument spreadsheet',
  vcard: 'vCards',
  json: 'JSON',
  ndjson: 'NDJSON',
}

export const BATCH_PROBLEM: Record<string, string> = {
  ...FILE_PROBLEM_TEXT,
  'format-off': 'The file that arrived is of another kind than the one that was looked at. Nothing of it was kept.',
  'upload-broken':
    'The connection broke before the whole file had arrived. What arrived is kept and not shown; send the file again, or throw it away.',
  'file-too-large': 'The file is larger than this installation takes. Nothing of it was kept.',
  'disk-full': 'The disk of the database was full. The rows read by then are kept: go on once there is room.',
  'reading-failed':
    'Reading stopped half-way. None of its rows is shown; go on with the job, or bring the file in again.',
}

export const SOURCE: Record<Batch['sourceKind'], string> = {
  'asked-us': 'They asked us',
  event: 'An event',
  bought: 'Bought',
  'public-page': 'A public page',
  partner: 'A partner',
  other: 'Somewhere else',
}

export const BASIS: Record<Batch['lawfulBasis'], string> = {
  'not-stated': 'not stated',
  consent: 'Consent',
  contract: 'Contract',
  'legitimate-interest': 'Legitimate interest',
}

/** What is sent of a contact or company, as it is called. */
export const SEND_FIELD: Record<SendField, string> = {
  email: 'e-mail',
  number: 'number',
  'given-name': 'given name',
  'family-name': 'family name',
  'full-name': 'full name',
  title: 'title',
  company: 'company',
  site: 'site',
  'company-page': 'page of the company',
  industry: 'industry',
  street: 'street',
  'postal-code': 'postal code',
  city: 'city',
  region: 'region',
  country: 'country',
  'birth-date': 'birth date',
  gender: 'gender',
  'device-id': 'advertising id',
  value: 'value',
}
