import { type Note, notes, type SheetRow } from '@upper-field/core/table'
import type { Archive } from '../archive'
import { type Container, noFindings, type SheetFacts, type SheetFindings } from '../container'
import { FileRefusal } from '../refusal'
import { readParts, type WorkbookParts, type WorkbookSheet } from './parts'
import { type SheetParser, sheetParser } from './sheetParser'
import { memoryStrings, readStrings, type StringStore } from './strings'

/** How much of a sheet's XML is read to learn its merged areas, which stand behind its rows. In bytes. */
const LOOKED_AT_FOR_MERGES = 96 << 20

export interface XlsxOptions {
  /** Where shared texts are kept; in memory by default. */
  readonly strings?: () => StringStore
  /** True where merged areas must be known whatever it takes. */
  readonly isThorough?: boolean
}

/** A workbook read as a stream: its rows are never all in memory. */
export async function openXlsx(archive: Archive, options: XlsxOptions = {}): Promise<Container> {
  const parts = await readParts(archive)
  const facts = new Map<string, SheetFacts>()
  const find = (sheet: string): WorkbookSheet => {
    const found = parts.sheets.find(({ name }) => name === sheet)
    if (!found) throw new FileRefusal('no-sheet')
    return found
  }
  return {
    format: 'xlsx',
    sheets: parts.sheets.map(({ name, hidden }) => ({ name, hidden })),
    notes: notesOf(parts),
    headings: null,
    facts: async (sheet) => {
      const known = facts.get(sheet) ?? (await factsOf(archive, find(sheet), parts, options.isThorough ?? false))
      facts.set(sheet, known)
      return known
    },
    rows: (sheet, findings, limit) => rowsOf(archive, find(sheet), parts, { findings, limit, options }),
  }
}

function notesOf({ hasMacros, hasExternalLinks }: WorkbookParts): Note[] {
  return [...(hasMacros ? [notes.macros()] : []), ...(hasExternalLinks ? [notes.externalLinks()] : [])]
}

async function factsOf(
  archive: Archive,
  sheet: WorkbookSheet,
  parts: WorkbookParts,
  isThorough: boolean,
): Promise<SheetFacts> {
  const parser = sheetParser({ parts, textAt: () => 'x', findings: noFindings() })
  const decoder = new TextDecoder()
  let size = 0
  for await (const chunk of archive.stream(sheet.part)) {
    parser.write(decoder.decode(chunk, { stream: true }))
    parser.take()
    size += chunk.length
    if (!isThorough && size > LOOKED_AT_FOR_MERGES) break
  }
  return { merges: parser.merges, hiddenRows: parser.hiddenRows, hiddenColumns: parser.hiddenColumns }
}

interface RowsWanted {
  readonly findings: SheetFindings
  readonly limit: number | undefined
  readonly options: XlsxOptions
}

async function* rowsOf(
  archive: Archive,
  sheet: WorkbookSheet,
  parts: WorkbookParts,
  { findings, limit, options }: RowsWanted,
): AsyncGenerator<readonly SheetRow[]> {
  const strings = options.strings?.() ?? memoryStrings()
  try {
    if (parts.sharedStrings) {
      const last = limit === undefined ? null : await lastString(archive, sheet, parts, limit)
      const isEnough = (count: number) => last !== null && count > last
      await readStrings(archive.stream(parts.sharedStrings), strings, isEnough)
    }
    const parser = sheetParser({ parts, textAt: (index) => strings.get(index), findings })
    yield* parsed(archive, sheet, parser, limit)
  } finally {
    strings.close()
  }
}

async function* parsed(
  archive: Archive,
  sheet: WorkbookSheet,
  parser: SheetParser,
  limit: number | undefined,
): AsyncGenerator<readonly SheetRow[]> {
  const decoder = new TextDecoder()
  let given = 0
  for await (const chunk of archive.stream(sheet.part)) {
    parser.write(decoder.decode(chunk, { stream: true }))
    const rows = parser.take()
    if (rows.length > 0) yield rows
    given += rows.length
    if (limit !== undefined && given >= limit) return
  }
}

/** The highest shared string that the first rows refer to, so that no more of them are read than needed. */
async function lastString(
  archive: Archive,
  sheet: WorkbookSheet,
  parts: WorkbookParts,
  limit: number,
): Promise<number> {
  let last = -1
  const textAt = (index: number) => {
    if (index > last) last = index
    return 'x'
  }
  const parser = sheetParser({ parts, textAt, findings: noFindings() })
  for await (const _ of parsed(archive, sheet, parser, limit)) {
    // Only the references count here.
  }
  return last
}
