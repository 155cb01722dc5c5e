import {
  csvLine,
  type Dialect,
  decoderOf,
  type JudgedRow,
  judgeRow,
  keepsAsciiInPlace,
  type RowRules,
  type RowWishes,
  rowTaker,
  scanRecords,
} from '@upper-field/core/table'
import { BROKEN_ITEM, type Container, noFindings, type SheetFindings } from './container'
import { type OpenedFile, openContainer } from './openFile'
import { readingDialect, rowRules, settingsOfFile } from './settings'
import { type ByteSource, chunksOf } from './source'

const PIECE = 1 << 20

/**
 * A sheet as CSV in UTF-8, in pieces: one record for each row of the sheet, blank where a row is blank or not taken,
 * so that rows keep their numbers. A broken item is one cell that starts with the mark for it.
 */
export async function* unpackSheet(
  container: Container,
  sheet: string,
  wishes: RowWishes,
  findings: SheetFindings = noFindings(),
): AsyncGenerator<Uint8Array> {
  const { merges, hiddenColumns } = await container.facts(sheet)
  const take = rowTaker(merges, wishes, hiddenColumns)
  const encoder = new TextEncoder()
  let next = 1
  let text = ''
  for await (const rows of container.rows(sheet, findings)) {
    for (const row of rows) {
      const taken = take(row)
      if (!taken) continue
      text += '\r\n'.repeat(Math.max(0, row.row - next)) + csvLine(taken.cells)
      next = row.row + 1
      if (text.length < PIECE) continue
      yield encoder.encode(text)
      text = ''
    }
  }
  if (text !== '') yield encoder.encode(text)
}

/** A text in which ASCII does not stand in place (UTF-16, East Asian encodings), as UTF-8 without a mark. */
export async function* transcode(source: ByteSource, { encoding, bom }: Dialect): AsyncGenerator<Uint8Array> {
  const decoder = new TextDecoder(encoding, { ignoreBOM: true })
  const encoder = new TextEncoder()
  for await (const chunk of chunksOf(source, bom)) yield encoder.encode(decoder.decode(chunk, { stream: true }))
  const rest = decoder.decode()
  if (rest !== '') yield encoder.encode(rest)
}

export interface NumberedRow {
  readonly row: number
  readonly judged: JudgedRow
}

export interface ReadingRules extends RowRules {
  /** Rows before this one are no contacts. */
  readonly firstRow: number
}

/** The rows of a text in pieces, each judged; in constant memory. `dialect` must keep ASCII in place. */
export async function* readText(
  pieces: AsyncIterable<Uint8Array>,
  dialect: Dialect,
  rules: ReadingRules,
): AsyncGenerator<NumberedRow> {
  const decode = decoderOf(dialect.encoding)
  let rest = new Uint8Array(0)
  let row = 1
  const judge = function* (bytes: Uint8Array, isLast: boolean): Generator<NumberedRow, Uint8Array> {
    const { records, consumed } = scanRecords(bytes, { delimiter: dialect.delimiter, isLast })
    for (const { start, end, problem } of records) {
      const number = row++
      if (number < rules.firstRow) continue
      yield {
        row: number,
        judged: judgeRecord(decode(bytes.subarray(start, end)), problem, dialect, rules),
      }
    }
    return bytes.subarray(consumed)
  }
  for await (const piece of pieces) {
    const bytes = joined(rest, piece)
    rest = (bytes.length < PIECE ? bytes : yield* judge(bytes, false)) as Uint8Array<ArrayBuffer>
  }
  yield* judge(rest, true)
}

/** Judges one record of an unpacked or plain text. */
export function judgeRecord(
  text: string,
  problem: Parameters<typeof judgeRow>[1],
  dialect: Dialect,
  rules: RowRules,
): JudgedRow {
  if (text.startsWith(BROKEN_ITEM) || text.startsWith(`"${BROKEN_ITEM}`))
    return { status: 'held', text, reason: 'broken-item' }
  return judgeRow(text, problem, dialect, rules)
}

function joined(a: Uint8Array, b: Uint8Array): Uint8Array {
  if (a.length === 0) return b
  const both = new Uint8Array(a.length + b.length)
  both.set(a)
  both.set(b, a.length)
  return both
}

/** The bytes of a plain text from behind its mark, in UTF-8 where its own encoding cannot be scanned. */
const plainBytes = (source: ByteSource, own: Dialect): AsyncIterable<Uint8Array> =>
  keepsAsciiInPlace(own.encoding) ? chunksOf(source, own.bom) : transcode(source, own)

/** All rows of an opened file, each judged, in constant memory. Throws a refusal where the file breaks off. */
export async function* readFileRows(
  source: ByteSource,
  opened: OpenedFile,
  wishes: Partial<RowWishes> = {},
  findings: SheetFindings = noFindings(),
): AsyncGenerator<NumberedRow> {
  const settings = settingsOfFile(opened, wishes)
  const container = await openContainer(source, settings.sheet === null ? {} : { sheet: settings.sheet })
  const bytes = container
    ? unpackSheet(container, settings.sheet ?? '', settings, findings)
    : plainBytes(source, settings)
  // A container read to its end may name more columns than its head did.
  const headings = container?.headings ?? settings.headings
  const fields = opened.table.suggestions.map(({ field }) => field)
  const rules = { ...rowRules(settings, fields), headings, firstRow: settings.firstRow }
  yield* readText(bytes, readingDialect(settings), rules)
}
