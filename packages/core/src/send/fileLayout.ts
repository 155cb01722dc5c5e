import { writtenAtHome, writtenForOthers } from '../phone/written'
import { harmlessCell, writeRecord } from '../table'

export const FILE_KINDS = ['csv', 'xlsx', 'ndjson', 'vcard'] as const
export type FileKind = (typeof FILE_KINDS)[number]

export const NUMBER_FORMS = ['e164', 'international', 'national', 'digits'] as const
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
  gender: 'Gender',
  industry: 'Industry',
  'company-page': 'Company page',
  value: 'Value',
  'device-id': 'Advertising id',
  lane: 'Lane',
  'not-for': 'Not for',
  'line-type': 'Line type',
  'line-status': 'Line status',
  'as-it-stood': 'As it stood',
  verdict: 'Verdict',
  'found-number': 'Found number',
  'found-email': 'Found e-mail',
  'email-state': 'E-mail state',
  'same-as-row': 'Same as row',
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
  /** Of a workbook: everybody on one sheet, or a sheet for each lane. */
  readonly sheets: (typeof SHEETS)[number]
}

export const SHEETS = ['one', 'by-lane'] as const

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
  sheets: 'one',
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
  readonly gender: string
  readonly industry: string
  readonly companyPage: string
  readonly value: string
  readonly deviceId: string
  readonly lane: string
  /** What they must not be reached by. */
  readonly notFor: readonly string[]
  readonly lineType: string
  readonly lineStatus: string
  readonly asItStood: string
  readonly verdict: string
  /** Found by a provider, where one was. */
  readonly foundNumber: string
  readonly foundEmail: string
  readonly emailState: string
  /** The row of the same file whose contact this one was joined to. */
  readonly sameAsRow: string
}

const formed = (e164: string, form: NumberForm): string => {
  if (e164 === '') return ''
  if (form === 'digits') return e164.replace(/\D/g, '')
  if (form === 'national') return writtenAtHome(e164)
  return form === 'international' ? writtenForOthers(e164) : e164
}

function textIn(person: FilePerson, column: FileColumn, form: NumberForm): string {
  const at = Number(/-(\d)$/.exec(column)?.[1] ?? 0) - 1
  if (column.startsWith('number-')) return formed(person.numbers[at] ?? '', form)
  if (column === 'found-number') return formed(person.foundNumber, form)
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
  gender: (person: FilePerson) => person.gender,
  industry: (person: FilePerson) => person.industry,
  'company-page': (person: FilePerson) => person.companyPage,
  value: (person: FilePerson) => person.value,
  'device-id': (person: FilePerson) => person.deviceId,
  lane: (person: FilePerson) => person.lane,
  'not-for': (person: FilePerson) => person.notFor.join(', '),
  'line-type': (person: FilePerson) => person.lineType,
  'line-status': (person: FilePerson) => person.lineStatus,
  'as-it-stood': (person: FilePerson) => person.asItStood,
  verdict: (person: FilePerson) => person.verdict,
  'found-email': (person: FilePerson) => person.foundEmail,
  'email-state': (person: FilePerson) => person.emailState,
  'same-as-row': (person: FilePerson) => person.sameAsRow,
}

/** The headings of a layout, and behind them those of the columns that became no field. */
export const headingsIn = (layout: FileLayout, extras: readonly string[]): readonly string[] => [
  ...layout.columns.map(({ heading }) => heading),
  ...(layout.hasExtras ? extras : []),
]

/** The cells of one person by a layout, without what became no field. */
export const cellsIn = (layout: FileLayout, person: FilePerson): readonly string[] =>
  layout.columns.map(({ column }) => textIn(person, column, layout.numberForm))

/** What a file begins with. @param headings of all its columns */
export function fileHead(layout: FileLayout, headings: readonly string[]): string {
  if (layout.kind === 'xlsx') return sheetLine(HEADINGS_SHEET, headings)
  if (layout.kind !== 'csv') return ''
  return `${layout.hasBom ? '\uFEFF' : ''}${record(headings, layout)}`
}

/**
 * Cells as a part of the file: a record, an object, or a line that a workbook is made of later.
 * @param sheet of a workbook
 */
export function fileRow(
  layout: FileLayout,
  headings: readonly string[],
  cells: readonly string[],
  sheet = ONLY_SHEET,
): string {
  if (layout.kind === 'xlsx') return sheetLine(sheet, cells)
  if (layout.kind === 'csv') return record(cells, layout)
  return `${JSON.stringify(Object.fromEntries(headings.map((heading, at) => [heading, cells[at] ?? ''])))}\n`
}

/** One person as a part of the file. @param extras cells by their headings */
export function filePart(layout: FileLayout, person: FilePerson, extras: ReadonlyMap<string, string>): string {
  if (layout.kind === 'vcard') return cardOf(person)
  const more = layout.hasExtras ? extras : new Map<string, string>()
  const sheet = layout.sheets === 'by-lane' ? person.lane : ONLY_SHEET
  return fileRow(layout, headingsIn(layout, [...more.keys()]), [...cellsIn(layout, person), ...more.values()], sheet)
}

/** The sheet of a workbook that has one alone. */
export const ONLY_SHEET = 'Contacts'
/** A line of headings: it stands on every sheet. */
export const HEADINGS_SHEET = ''

/** A line of a sheet on its way into a workbook: the sheet, and the cells behind it, as JSON. */
const sheetLine = (sheet: string, cells: readonly string[]): string => `${JSON.stringify([sheet, ...cells])}\n`

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
  xlsx: { ending: 'xlsx', type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet' },
  ndjson: { ending: 'ndjson', type: 'application/x-ndjson; charset=utf-8' },
  vcard: { ending: 'vcf', type: 'text/vcard; charset=utf-8' },
}

/** A plain name of a sheet, as every program takes it: no signs that mean something there, 31 characters at most. */
export const sheetName = (name: string): string =>
  name
    .replace(/[[\]:*?/\\']/g, ' ')
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, 31) || ONLY_SHEET
