import { utils, write } from '@e965/xlsx'
import type { CellTruth } from './faults'

/** What one row of a demo file truly is. */
export interface RowTruth {
  /** Row number in the file, from 1, headings counted. */
  readonly row: number
  /** Position of the person in the world; of the consumer in the file of quotations. */
  readonly person: number
  readonly phones: readonly CellTruth[]
  /** Row of the same person that stands before this one and shares a number or personal e-mail as written. */
  readonly duplicateOf: number | null
}

export interface DemoFile {
  readonly name: string
  readonly bytes: Uint8Array
  readonly truth: readonly RowTruth[]
}

export interface DemoTable {
  readonly headings: readonly string[]
  readonly rows: readonly (readonly string[])[]
  /** One for each row; its row number is that of a file whose headings stand in row 1. */
  readonly truth: readonly RowTruth[]
}

/** The table as text; headings are left out where a file has none. */
export function asText({ headings, rows }: DemoTable, delimiter: string): string {
  const special = new RegExp(`[${delimiter}"\\r\\n]`)
  const cell = (value: string) => (special.test(value) ? `"${value.replaceAll('"', '""')}"` : value)
  const lines = headings.length === 0 ? rows : [headings, ...rows]
  return `${lines.map((cells) => cells.map(cell).join(delimiter)).join('\r\n')}\r\n`
}

/** Letters that Windows-1252 has where Latin-1 has none. */
const WINDOWS: Readonly<Record<string, number>> = {
  '€': 0x80,
  '–': 0x96,
  '—': 0x97,
  '‘': 0x91,
  '’': 0x92,
  '“': 0x93,
  '”': 0x94,
  Š: 0x8a,
  š: 0x9a,
  Ž: 0x8e,
  ž: 0x9e,
  Œ: 0x8c,
  œ: 0x9c,
} // prettier-ignore

export function windows1252(text: string): Uint8Array {
  return Uint8Array.from(text, (char) => {
    const code = char.charCodeAt(0)
    return WINDOWS[char] ?? (code < 256 ? code : 0x3f)
  })
}

/** UTF-16 with its mark, as a spreadsheet saves "Unicode text". */
export function utf16(text: string): Uint8Array {
  const bytes = new Uint8Array(2 + text.length * 2)
  const view = new DataView(bytes.buffer)
  view.setUint16(0, 0xfeff, true)
  for (let i = 0; i < text.length; i++) view.setUint16(2 + i * 2, text.charCodeAt(i), true)
  return bytes
}

export interface SheetOfCells {
  readonly name: string
  readonly cells: readonly (readonly (string | number)[])[]
  readonly isHidden?: boolean
  /** Areas in the notation of spreadsheets. */
  readonly merged?: readonly string[]
}

/** A workbook with these sheets. */
export function workbook(sheets: readonly SheetOfCells[]): Uint8Array {
  const book = utils.book_new()
  for (const { name, cells, merged } of sheets) {
    const sheet = utils.aoa_to_sheet(cells.map((row) => [...row]))
    if (merged) sheet['!merges'] = merged.map((area) => utils.decode_range(area))
    utils.book_append_sheet(book, sheet, name)
  }
  book.Workbook = { Sheets: sheets.map(({ isHidden }) => ({ Hidden: isHidden ? 1 : 0 })) }
  return new Uint8Array(
    write(book, { type: 'array', bookType: 'xlsx', bookSST: true, compression: true }) as ArrayBuffer,
  )
}
