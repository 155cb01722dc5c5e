import { writtenForOthers } from '../phone/written'
import { harmlessCell, writeRecord } from '../table'

export const FILE_KINDS = ['csv', 'ndjson', 'vcard'] as const
export type FileKind = (typeof FILE_KINDS)[number]

export const NUMBER_FORMS = ['e164', 'international', 'digits'] as const
export type NumberForm = (typeof NUMBER_FORMS)[number]

export const DELIMITERS = [',', ';', '\t', '|'] as const

/** What a column of a file may hold, with what it is headed where nobody says otherwise. */
export const FILE_COLUMNS = {
  name: 'Name',
  'given-name': 'Given name',
  'family-name': 'Family name',
  company: 'Company',
  title: 'Title',
  'number-1': 'Number 1',
  'number-2': 'Number 2',
  'number-3': 'Number 3',
  'email-1': 'E-mail 1',
  'email-2': 'E-mail 2',
  'email-3': 'E-mail 3',
  street: 'Street',
  'postal-code': 'Postal code',
  city: 'City',
  region: 'Region',
  country: 'Country',
  site: 'Site',
  profile: 'Profile',
  'birth-date': 'Birth date',
  lane: 'Lane',
  'not-for': 'Not for',
  'line-type': 'Line type',
  'line-status': 'Line status',
  'as-it-stood': 'As it stood',
} as const
export type FileColumn = keyof typeof FILE_COLUMNS

/** How a file for people looks. */
export interface FileLayout {
  readonly kind: FileKind
  readonly delimiter: (typeof DELIMITERS)[number]
  /** With a mark of byte order in front, for spreadsheets that take a file for another encoding else. */
  readonly hasBom: boolean
  readonly numberForm: NumberForm
  readonly columns: readonly { readonly column: FileColumn; readonly heading: string }[]
  /** With the columns of the list that became no field. */
  readonly hasExtras: boolean
}

const USUAL: readonly FileColumn[] = [
  'name',
  'company',
  'title',
  'number-1',
  'number-2',
  'number-3',
  'email-1',
  'email-2',
  'email-3',
  'city',
  'country',
  'lane',
  'not-for',
]

export const USUAL_LAYOUT: FileLayout = {
  kind: 'csv',
  delimiter: ',',
  hasBom: false,
  numberForm: 'e164',
  columns: USUAL.map((column) => ({ column, heading: FILE_COLUMNS[column] })),
  hasExtras: true,
}

/** A contact as it stands in a file that people open. */
export interface FilePerson {
  readonly fullName: string
  readonly givenName: string
  readonly familyName: string
  readonly company: string
  readonly title: string
  /** E.164, the best first: only those that may be given. */
  readonly numbers: readonly string[]
  readonly emails: readonly string[]
  readonly street: string
  readonly postalCode: string
  readonly city: string
  readonly region: string
  readonly country: string
  readonly site: string
  readonly profile: string
  readonly birthDate: string
  readonly lane: string
  /** What they must not be reached by. */
  readonly notFor: readonly string[]
  readonly lineType: string
  readonly lineStatus: string
  readonly asItStood: string
}

const formed = (e164: string, form: NumberForm): string => {
  if (e164 === '') return ''
  if (form === 'digits') return e164.replace(/\D/g, '')
  return form === 'international' ? writtenForOthers(e164) : e164
}

function textIn(person: FilePerson, column: FileColumn, form: NumberForm): string {
  const at = Number(/-(\d)$/.exec(column)?.[1] ?? 0) - 1
  if (column.startsWith('number-')) return formed(person.numbers[at] ?? '', form)
  if (column.startsWith('email-')) return person.emails[at] ?? ''
  return PLAIN[column as keyof typeof PLAIN](person)
}

const PLAIN = {
  name: (person: FilePerson) => person.fullName,
  'given-name': (person: FilePerson) => person.givenName,
  'family-name': (person: FilePerson) => person.familyName,
  company: (person: FilePerson) => person.company,
  title: (person: FilePerson) => person.title,
  street: (person: FilePerson) => person.street,
  'postal-code': (person: FilePerson) => person.postalCode,
  city: (person: FilePerson) => person.city,
  region: (person: FilePerson) => person.region,
  country: (person: FilePerson) => person.country,
  site: (person: FilePerson) => person.site,
  profile: (person: FilePerson) => person.profile,
  'birth-date': (person: FilePerson) => person.birthDate,
  lane: (person: FilePerson) => person.lane,
  'not-for': (person: FilePerson) => person.notFor.join(', '),
  'line-type': (person: FilePerson) => person.lineType,
  'line-status': (person: FilePerson) => person.lineStatus,
  'as-it-stood': (person: FilePerson) => person.asItStood,
}

/** What a file begins with. @param extras headings of the columns that became no field */
export function fileHead(layout: FileLayout, extras: readonly string[]): string {
  if (layout.kind !== 'csv') return ''
  const headings = [...layout.columns.map(({ heading }) => heading), ...(layout.hasExtras ? extras : [])]
  return `${layout.hasBom ? '\uFEFF' : ''}${record(headings, layout)}`
}

/** One person as a part of the file. @param extras cells by their headings */
export function filePart(layout: FileLayout, person: FilePerson, extras: ReadonlyMap<string, string>): string {
  const more = layout.hasExtras ? [...extras] : []
  if (layout.kind === 'vcard') return cardOf(person)
  const cells = layout.columns.map(
    ({ column, heading }) => [heading, textIn(person, column, layout.numberForm)] as const,
  )
  if (layout.kind === 'csv')
    return record(
      [...cells, ...more].map(([, value]) => value),
      layout,
    )
  return `${JSON.stringify(Object.fromEntries([...cells, ...more]))}\n`
}

/** Cells of a record, none of which a spreadsheet would take for a formula. */
const record = (cells: readonly string[], { delimiter }: FileLayout): string =>
  `${writeRecord(cells.map(harmlessCell), delimiter)}\r\n`

/** Texts of vCard 4 (RFC 6350, section 3.4). */
const escaped = (text: string): string => text.replace(/[\\,;]/g, '\\$&').replace(/\r\n|\r|\n/g, '\\n')

const MOST_OCTETS = 75

/** Lines are no longer than 75 octets (RFC 6350, section 3.2), cut between characters. */
function folded(line: string): string {
  const parts: string[] = []
  let part = ''
  let octets = 0
  for (const letter of line) {
    const length = new TextEncoder().encode(letter).length
    if (octets + length > MOST_OCTETS) {
      parts.push(part)
      part = ' '
      octets = 1
    }
    part += letter
    octets += length
  }
  return [...parts, part].join('\r\n')
}

/** A person as a vCard 4. */
function cardOf(person: FilePerson): string {
  const name = person.fullName || person.company || person.emails[0] || person.numbers[0] || ''
  const hasAddress = [person.street, person.city, person.region, person.postalCode].some((part) => part !== '')
  const lines = [
    'BEGIN:VCARD',
    'VERSION:4.0',
    `FN:${escaped(name)}`,
    person.familyName || person.givenName ? `N:${escaped(person.familyName)};${escaped(person.givenName)};;;` : '',
    person.company ? `ORG:${escaped(person.company)}` : '',
    person.title ? `TITLE:${escaped(person.title)}` : '',
    ...person.numbers.map((e164) => `TEL;VALUE=uri:tel:${e164}`),
    ...person.emails.map((address) => `EMAIL:${escaped(address)}`),
    hasAddress
      ? `ADR:;;${[person.street, person.city, person.region, person.postalCode, person.country].map(escaped).join(';')}`
      : '',
    person.site ? `URL:https://${escaped(person.site)}` : '',
    person.birthDate ? `BDAY:${person.birthDate.replaceAll('-', '')}` : '',
    'END:VCARD',
  ]
  return `${lines.filter(Boolean).map(folded).join('\r\n')}\r\n`
}

/** The ending of a file of a kind, and what it is to be served as. */
export const FILE_FORM: Readonly<Record<FileKind, { readonly ending: string; readonly type: string }>> = {
  csv: { ending: 'csv', type: 'text/csv; charset=utf-8' },
  ndjson: { ending: 'ndjson', type: 'application/x-ndjson; charset=utf-8' },
  vcard: { ending: 'vcf', type: 'text/vcard; charset=utf-8' },
}
