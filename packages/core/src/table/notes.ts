import type { RowMend } from './rowCells'

export const NOTE_CODES = [
  'named-otherwise',
  'encoding',
  'mixed-encodings',
  'delimiter',
  'rows-above',
  'two-line-headings',
  'no-headings',
  'repeated-headings',
  'units-row',
  'empty-columns',
  'merged-cells',
  'hidden-sheets',
  'other-sheets',
  'hidden-rows',
  'hidden-columns',
  'macros',
  'external-links',
  'formulas-without-value',
  'stored-digits',
  'heading-again',
  'totals-row',
  'footer',
  'flattened',
  'control-characters',
  'direction-marks',
  'ambiguous-dates',
  'short-rows',
  'rows-cut-otherwise',
  'padding',
  'cut-cells',
] as const
export type NoteCode = (typeof NOTE_CODES)[number]

/** Something found in a file that the operator may want to know or overrule, as a plain sentence. */
export interface Note {
  readonly code: NoteCode
  readonly text: string
}

const list = (items: readonly (string | number)[], most = 6): string =>
  items.length > most ? `${items.slice(0, most).join(', ')} and ${items.length - most} more` : items.join(', ')
const plural = (n: number, one: string, many = `${one}s`): string => `${n.toLocaleString('en')} ${n === 1 ? one : many}`
const short = (item: string): string => (item.length > 48 ? `${item.slice(0, 46).trimEnd()} …` : item)
const quoted = (items: readonly string[], most = 4): string =>
  list(
    items.map((item) => `“${short(item)}”`),
    most,
  )

/** The sentence of each note, from the facts it was made of. */
export const notes = {
  namedOtherwise: (name: string, format: string): Note => ({
    code: 'named-otherwise',
    text: `The name ends in “${name}”, but by its content this is ${format}. It is read as that.`,
  }),
  encoding: (text: string): Note => ({ code: 'encoding', text }),
  mixedEncodings: (rows: readonly number[]): Note => ({
    code: 'mixed-encodings',
    text: `Most of the file is UTF-8, but ${rows.length > 0 ? `row ${list(rows)} is` : 'some rows are'} not. Those rows are held with their bytes.`,
  }),
  delimiter: (text: string): Note => ({ code: 'delimiter', text }),
  rowsAbove: (rows: readonly number[], samples: readonly string[]): Note => ({
    code: 'rows-above',
    text: `${plural(rows.length, 'row')} above the table ${rows.length === 1 ? 'is' : 'are'} no contacts${samples.length > 0 ? `: ${quoted(samples)}` : ' and blank'}.`,
  }),
  twoLineHeadings: (first: number, last: number): Note => ({
    code: 'two-line-headings',
    text: `The headings stand in rows ${first} to ${last} and are read together.`,
  }),
  noHeadings: (): Note => ({
    code: 'no-headings',
    text: 'No row looks like headings, so the columns are told by what they hold.',
  }),
  repeatedHeadings: (headings: readonly string[]): Note => ({
    code: 'repeated-headings',
    text: `${quoted(headings)} ${headings.length === 1 ? 'stands' : 'stand'} over more than one column; the later ones are numbered.`,
  }),
  unitsRow: (row: number): Note => ({
    code: 'units-row',
    text: `Row ${row} gives units or formats below the headings and is no contact.`,
  }),
  emptyColumns: (names: readonly string[]): Note => ({
    code: 'empty-columns',
    text: `${plural(names.length, 'column')} without heading or value ${names.length === 1 ? 'is' : 'are'} left out: ${list(names)}.`,
  }),
  mergedCells: (areas: number, isEvery: boolean): Note => ({
    code: 'merged-cells',
    text: `${plural(areas, 'merged area')}: the value counts ${isEvery ? 'for every cell it covers' : 'for the first cell only'}.`,
  }),
  hiddenSheets: (names: readonly string[]): Note => ({
    code: 'hidden-sheets',
    text: `${plural(names.length, 'hidden sheet')}, not taken unless you choose ${names.length === 1 ? 'it' : 'them'}: ${quoted(names)}.`,
  }),
  otherSheets: (names: readonly string[]): Note => ({
    code: 'other-sheets',
    text: `This workbook has ${plural(names.length, 'other sheet')}, each of which can be taken as a batch: ${quoted(names)}.`,
  }),
  hiddenRows: (count: number, isTaken: boolean): Note => ({
    code: 'hidden-rows',
    text: `${plural(count, 'row')} hidden in the sheet: ${isTaken ? 'taken, as you asked' : 'not taken unless you ask'}.`,
  }),
  hiddenColumns: (names: readonly string[], isTaken: boolean): Note => ({
    code: 'hidden-columns',
    text: `${plural(names.length, 'column')} hidden in the sheet (${list(names)}): ${isTaken ? 'taken, as you asked' : 'not taken unless you ask'}.`,
  }),
  macros: (): Note => ({ code: 'macros', text: 'The workbook holds macros. They are never run.' }),
  externalLinks: (): Note => ({
    code: 'external-links',
    text: 'The workbook refers to other files. They are never followed; the values it stored are read.',
  }),
  formulasWithoutValue: (cells: number, named: readonly string[]): Note => ({
    code: 'formulas-without-value',
    text: `${plural(cells, 'formula')} without a stored value (${cells > named.length ? `${named.join(', ')} and ${cells - named.length} more` : list(named)}) ${cells === 1 ? 'is' : 'are'} blank here: nothing is computed. Open and save the workbook in a spreadsheet to store them.`,
  }),
  storedDigits: (cells: number, example: string): Note => ({
    code: 'stored-digits',
    text: `${plural(cells, 'number')} whose format hides digits (first in ${example}) ${cells === 1 ? 'is' : 'are'} read with the stored digits.`,
  }),
  headingAgain: (rows: readonly number[]): Note => ({
    code: 'heading-again',
    text: `The headings stand again in row ${list(rows)}; held, not taken for contacts.`,
  }),
  totalsRow: (rows: readonly number[]): Note => ({
    code: 'totals-row',
    text: `Row ${list(rows)} adds up the others; held, not taken for a contact.`,
  }),
  footer: (rows: readonly number[]): Note => ({
    code: 'footer',
    text: `Row ${list(rows)} is a remark below the table; held, not taken for a contact.`,
  }),
  flattened: (columns: number): Note => ({
    code: 'flattened',
    text: `Nested values became ${plural(columns, 'column')} whose names join the keys with dots.`,
  }),
  controlCharacters: (cells: number): Note => ({
    code: 'control-characters',
    text: `Control characters stand in ${plural(cells, 'cell')} of the first rows. They are kept in the row and taken out of values.`,
  }),
  directionMarks: (cells: number): Note => ({
    code: 'direction-marks',
    text: `Marks that turn the writing direction stand in ${plural(cells, 'cell')} of the first rows. They are kept in the row and taken out of numbers and e-mails.`,
  }),
  shortRows: (rows: number): Note => ({
    code: 'short-rows',
    text: `${plural(rows, 'row')} ${rows === 1 ? 'leaves' : 'leave'} off cells at ${rows === 1 ? 'its' : 'their'} end: those are blank.`,
  }),
  rowsCutOtherwise: (rows: number): Note => ({
    code: 'rows-cut-otherwise',
    text: `${plural(rows, 'row')} ${rows === 1 ? 'is' : 'are'} cut by another delimiter, or stand${rows === 1 ? 's' : ''} within one pair of quotes, and ${rows === 1 ? 'is' : 'are'} read so.`,
  }),
  padding: (rows: number): Note => ({
    code: 'padding',
    text: `NUL bytes in ${plural(rows, 'row')} are padding and were taken out.`,
  }),
  cutCells: (rows: number): Note => ({
    code: 'cut-cells',
    text: `In ${plural(rows, 'row')} a cell of more than 65,536 characters was cut there; the rest of the row is as it stood.`,
  }),
  ambiguousDates: (heading: string): Note => ({
    code: 'ambiguous-dates',
    text: `In “${heading}” it cannot be told whether day or month comes first. The dates are kept as they stand.`,
  }),
}

/** What is told of rows that were read all the same, by how many needed what. */
export function mendNotes(counts: Partial<Record<RowMend, number>>): Note[] {
  const otherwise = (counts['other-delimiter'] ?? 0) + (counts['quoted-whole'] ?? 0)
  return [
    ...(counts.short ? [notes.shortRows(counts.short)] : []),
    ...(otherwise ? [notes.rowsCutOtherwise(otherwise)] : []),
    ...(counts.padding ? [notes.padding(counts.padding)] : []),
    ...(counts.cut ? [notes.cutCells(counts.cut)] : []),
  ]
}
