import { type CellObject, read, type WorkBook, type WorkSheet } from '@e965/xlsx'
import { columnName, type Merge, type SheetRow } from '@upper-field/core/table'
import { type Archive, openArchive } from './archive'
import { type Container, noteFormula, type SheetFacts, type SheetFindings } from './container'
import { type OdsHidden, readOdsHidden } from './odsHidden'
import { FileRefusal } from './refusal'
import { shownText } from './shownText'
import { type ByteSource, readWhole } from './source'

/** These formats can only be read whole, so their size is bounded. */
const MOST_BYTES = 48 << 20
const BATCH = 1000

/** Opens an old binary workbook (BIFF in a compound file). */
export async function openXls(source: ByteSource): Promise<Container> {
  if (source.size > MOST_BYTES) throw new FileRefusal('too-large-for-format')
  const bytes = await readWhole(source)
  if (includesWide(bytes, 'EncryptedPackage') || includesWide(bytes, 'EncryptionInfo'))
    throw new FileRefusal('locked-workbook')
  if (includesWide(bytes, 'WordDocument') || includesWide(bytes, 'PowerPoint Document'))
    throw new FileRefusal('document')
  return containerOf('xls', readBook(bytes))
}

/** Opens an OpenDocument spreadsheet. */
export async function openOds(source: ByteSource, archive: Archive): Promise<Container> {
  if (source.size > MOST_BYTES) throw new FileRefusal('too-large-for-format')
  if (archive.has('META-INF/manifest.xml') && /encryption-data/.test(await archive.text('META-INF/manifest.xml')))
    throw new FileRefusal('locked-workbook')
  const hidden = await readOdsHidden(archive)
  return containerOf('ods', readBook(await readWhole(source)), hidden)
}

function readBook(bytes: Uint8Array): WorkBook {
  try {
    return read(bytes, {
      type: 'array',
      dense: true,
      cellNF: true,
      cellFormula: true,
      cellHTML: false,
      cellStyles: true,
      bookVBA: false,
    })
  } catch (error) {
    throw new FileRefusal(
      /password|encrypt/i.test(String((error as Error).message)) ? 'locked-workbook' : 'damaged-file',
    )
  }
}

const NOTHING_HIDDEN: OdsHidden = { tables: new Set(), rows: new Map() }

function containerOf(format: 'xls' | 'ods', book: WorkBook, hidden: OdsHidden = NOTHING_HIDDEN): Container {
  const sheets = book.SheetNames.map((name, i) => ({
    name,
    hidden: hidden.tables.has(name) || (book.Workbook?.Sheets?.[i]?.Hidden ?? 0) > 0,
  }))
  const date1904 = book.Workbook?.WBProps?.date1904 ?? false
  const find = (name: string): WorkSheet => {
    const sheet = book.Sheets[name]
    if (!sheet) throw new FileRefusal('no-sheet')
    return sheet
  }
  const rowsHidden = (sheet: string) => hidden.rows.get(sheet) ?? new Set<number>()
  if (sheets.length === 0) throw new FileRefusal('no-sheet')
  return {
    format,
    sheets,
    notes: [],
    headings: null,
    facts: async (sheet) => factsOf(find(sheet), rowsHidden(sheet)),
    rows: (sheet, findings) =>
      rowsOf(find(sheet), { findings, date1904, trustsText: format === 'ods', hidden: rowsHidden(sheet) }),
  }
}

function factsOf(sheet: WorkSheet, hidden: ReadonlySet<number>): SheetFacts {
  const merges: Merge[] = (sheet['!merges'] ?? []).map(({ s, e }) => ({
    top: s.r + 1,
    left: s.c,
    bottom: e.r + 1,
    right: e.c,
  }))
  const hiddenColumns = (sheet['!cols'] ?? []).flatMap((column, i) => (column?.hidden ? [i] : []))
  return { merges, hiddenColumns, hiddenRows: hidden.size + (sheet['!rows'] ?? []).filter((row) => row?.hidden).length }
}

interface Reading {
  readonly findings: SheetFindings
  readonly date1904: boolean
  readonly trustsText: boolean
  readonly hidden: ReadonlySet<number>
}

async function* rowsOf(sheet: WorkSheet, reading: Reading): AsyncGenerator<readonly SheetRow[]> {
  const data = sheet['!data'] ?? []
  let batch: SheetRow[] = []
  for (const [i, line] of data.entries()) {
    if (!line) continue
    const cells = Array.from(line, (cell, at) => (cell ? textOf(cell, `${columnName(at)}${i + 1}`, reading) : ''))
    if (cells.some((cell) => cell !== ''))
      batch.push({ row: i + 1, cells, isHidden: reading.hidden.has(i + 1) || (sheet['!rows']?.[i]?.hidden ?? false) })
    if (batch.length >= BATCH) {
      yield batch
      batch = []
    }
  }
  if (batch.length > 0) yield batch
}

function textOf(cell: CellObject, address: string, { findings, date1904, trustsText }: Reading): string {
  if (cell.f && (cell.v === undefined || cell.t === 'z')) {
    noteFormula(findings, address)
    return ''
  }
  if (cell.t === 'n' && typeof cell.v === 'number') {
    const shown = shownText(cell.v, String(cell.z ?? 'General'), date1904)
    if (shown.isStored && findings.storedDigits++ === 0) findings.firstStored = address
    return trustsText && cell.w && !shown.isStored ? cell.w : shown.text
  }
  if (cell.t === 'b') return cell.v ? 'TRUE' : 'FALSE'
  if (cell.t === 'e') return cell.w ?? '#N/A'
  return cell.w ?? (cell.v === undefined ? '' : String(cell.v))
}

/** Names inside a compound file are written in UTF-16. */
function includesWide(bytes: Uint8Array, name: string): boolean {
  const first = name.charCodeAt(0)
  const end = Math.min(bytes.length, 1 << 22) - name.length * 2
  for (let at = bytes.indexOf(first); at !== -1 && at < end; at = bytes.indexOf(first, at + 1)) {
    let i = 1
    while (i < name.length && bytes[at + i * 2] === name.charCodeAt(i) && bytes[at + i * 2 + 1] === 0) i++
    if (i === name.length) return true
  }
  return false
}

/** Opens what an archive holds: a workbook of either kind, or nothing of use. */
export async function archiveOf(source: ByteSource): Promise<{ archive: Archive; kind: 'xlsx' | 'ods' }> {
  const archive = await openArchive(source)
  if (archive.has('word/document.xml') || archive.has('ppt/presentation.xml')) throw new FileRefusal('document')
  if (archive.has('mimetype') && archive.has('content.xml')) {
    if (!/spreadsheet/.test(await archive.text('mimetype'))) throw new FileRefusal('document')
    return { archive, kind: 'ods' }
  }
  return { archive, kind: 'xlsx' }
}
