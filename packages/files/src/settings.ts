import {
  DEFAULT_ROW_WISHES,
  type Dialect,
  type Encoding,
  type Format,
  keepsAsciiInPlace,
  type Merged,
  type Note,
  type RowRules,
  type RowWishes,
} from '@upper-field/core/table'
import type { OpenedFile } from './openFile'

/** The form in which every file that is no plain text is read on: its record numbers are the sheet's row numbers. */
const UNPACKED: Dialect = { encoding: 'utf-8', delimiter: ',', bom: 0 }

/** Formats whose library takes the whole workbook into memory. */
export const canOnlyBeReadWhole = (format: Format): boolean => format === 'xls' || format === 'ods'

/** How a file is to be read, as it is stored with its batch. */
export interface FileSettings {
  readonly format: Format
  readonly sheet: string | null
  readonly encoding: Encoding
  readonly delimiter: string
  readonly bom: number
  readonly firstRow: number
  /** Row of the (last) headings; null where there are none. */
  readonly headingsRow: number | null
  readonly headings: readonly string[]
  readonly merged: Merged
  readonly takesHidden: boolean
  /** Mail hosts that serve people of many companies, as far as its head tells. */
  readonly publicHosts?: string[]
  readonly notes: readonly Note[]
}

export function settingsOfFile(opened: OpenedFile, wishes: Partial<RowWishes> = {}): FileSettings {
  return {
    format: opened.format,
    sheet: opened.sheet,
    ...(opened.dialect ?? UNPACKED),
    firstRow: opened.table.shape.firstRow,
    headingsRow: opened.table.shape.headings?.last ?? null,
    headings: opened.table.headings,
    merged: wishes.merged ?? DEFAULT_ROW_WISHES.merged,
    takesHidden: wishes.takesHidden ?? DEFAULT_ROW_WISHES.takesHidden,
    publicHosts: [...opened.table.publicHosts],
    notes: opened.notes,
  }
}

type Reading = Pick<FileSettings, 'format' | 'encoding' | 'delimiter' | 'bom'>

export const isContainer = (format: Format): boolean => format !== 'csv' && format !== 'tsv'

/** True where a file is turned into a plain text in UTF-8 before its rows are read. */
export const needsUnpacking = ({ format, encoding }: Reading): boolean =>
  isContainer(format) || !keepsAsciiInPlace(encoding)

/** The form in which the rows of a file are found and stored. */
export function readingDialect({ format, encoding, delimiter, bom }: Reading): Dialect {
  if (isContainer(format)) return UNPACKED
  return keepsAsciiInPlace(encoding) ? { encoding, delimiter, bom } : { encoding: 'utf-8', delimiter, bom: 0 }
}

/** @param fields what each column is: suggested, or as the operator has settled it */
export const rowRules = (
  settings: Pick<FileSettings, 'headings' | 'headingsRow' | 'format'>,
  fields?: RowRules['fields'],
): RowRules => ({
  headings: settings.headings,
  hasHeadings: settings.headingsRow !== null,
  isSheet: isContainer(settings.format),
  ...(fields ? { fields } : {}),
})
