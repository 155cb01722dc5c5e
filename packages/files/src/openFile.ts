import {
  columnName,
  DEFAULT_ROW_WISHES,
  type Dialect,
  type Encoding,
  type EncodingJudgement,
  type FileProblem,
  type Format,
  isBlankCell,
  judgeEncoding,
  type Note,
  notes,
  type OpenedTable,
  openTable,
  openText,
  recognise,
  type SheetRow,
  type TableWishes,
} from '@upper-field/core/table'
import {
  BROKEN_ITEM,
  type Container,
  noFindings,
  type SheetFacts,
  type SheetFindings,
  type SheetName,
} from './container'
import type { ItemOptions } from './items'
import { openJson, openNdjson } from './json'
import { FileRefusal } from './refusal'
import { withTables } from './severalTables'
import type { ByteSource } from './source'
import { openVcards } from './vcard'
import { archiveOf, openOds, openXls } from './wholeWorkbook'
import { openXlsx, type XlsxOptions } from './xlsx/workbook'

/** What the operator has settled about a file; what is left out is judged. */
export interface FileWishes extends TableWishes {
  readonly sheet?: string
  readonly encoding?: Encoding
  readonly delimiter?: string
}

/** A file as it was understood: nothing of it is stored yet. */
export interface OpenedFile {
  readonly status: 'opened'
  readonly format: Format
  readonly sheets: readonly SheetName[]
  /** The sheet that was opened; null where the format has none. */
  readonly sheet: string | null
  readonly dialect: Dialect | null
  readonly encoding: EncodingJudgement | null
  readonly facts: SheetFacts
  readonly table: OpenedTable
  readonly notes: readonly Note[]
}

export type FileOpening = OpenedFile | { readonly status: 'refused'; readonly problem: FileProblem }

const HEAD = 524_288
const ROWS = 400
/** Items that are looked at for the names of columns before the whole file is read. */
const ITEMS = 2000

/** Opens the head of a file of any kind and says what it is. Refusals are values; only a failing source throws. */
export async function openFile(source: ByteSource, name: string, wishes: FileWishes = {}): Promise<FileOpening> {
  try {
    const head = await source.read(0, Math.min(HEAD, source.size))
    const container = await openContainer(source, {
      look: ITEMS,
      ...(wishes.sheet === undefined ? {} : { sheet: wishes.sheet }),
    })
    return container ? await openSheet(source, container, name, wishes) : openPlain(head, source, name, wishes)
  } catch (error) {
    if (error instanceof FileRefusal) return { status: 'refused', problem: error.problem }
    throw error
  }
}

export type ContainerOptions = XlsxOptions & Pick<ItemOptions, 'look' | 'headings' | 'sheet'>

/** The container a file is, by its content; null for plain text. Throws a refusal for what cannot be read. */
export async function openContainer(source: ByteSource, options: ContainerOptions = {}): Promise<Container | null> {
  const recognised = recognise(await source.read(0, Math.min(HEAD, source.size)))
  switch (recognised.kind) {
    case 'refused':
      throw new FileRefusal(recognised.problem)
    case 'text':
      return null
    case 'vcard':
      return openVcards(source, options)
    case 'json':
      return openJson(source, options)
    case 'ndjson':
      return openNdjson(source, options)
    case 'old-office':
      return withTables(await openXls(source))
    case 'archive': {
      const { archive, kind } = await archiveOf(source)
      return withTables(await (kind === 'ods' ? openOds(source, archive) : openXlsx(archive, options)))
    }
  }
}

function openPlain(head: Uint8Array, source: ByteSource, name: string, wishes: FileWishes): FileOpening {
  const dialect = {
    ...(wishes.encoding ? { encoding: wishes.encoding } : {}),
    ...(wishes.delimiter ? { delimiter: wishes.delimiter } : {}),
  }
  const opened = openText(head, { ...wishes, isWhole: head.length === source.size, dialect })
  if (opened.status === 'refused') return { status: 'refused', problem: opened.problem }
  const format = opened.dialect.delimiter === '\t' ? 'tsv' : 'csv'
  return {
    status: 'opened',
    format,
    sheets: [],
    sheet: null,
    dialect: opened.dialect,
    encoding: opened.encoding,
    facts: { merges: [], hiddenRows: 0, hiddenColumns: [] },
    table: opened,
    notes: [...nameNotes(name, format), ...opened.notes],
  }
}

async function openSheet(
  source: ByteSource,
  container: Container,
  name: string,
  wishes: FileWishes,
): Promise<FileOpening> {
  const { name: sheet, rows, findings } = await chooseSheet(container, wishes.sheet)
  const facts = await container.facts(sheet)
  const table = openTable(
    { rows, merges: facts.merges, hiddenColumns: facts.hiddenColumns, headings: container.headings, isSheet: true },
    wishes,
  )
  if (table.status === 'refused') return table
  const encoding = container.headings ? judgeEncoding(await source.read(0, 65_536)) : null
  const isNamed = container.sheets.some(({ name: one }) => one !== '')
  return {
    status: 'opened',
    format: container.format,
    sheets: isNamed ? container.sheets : [],
    sheet: isNamed ? sheet : null,
    dialect: null,
    encoding,
    facts,
    table,
    notes: [
      ...nameNotes(name, container.format),
      ...container.notes,
      ...sheetNotes(container, sheet, facts, wishes),
      ...findingNotes(findings),
      ...table.notes,
    ],
  }
}

/** The first rows of a sheet, and what was met in them. */
interface SheetHead {
  readonly name: string
  readonly rows: readonly SheetRow[]
  readonly findings: SheetFindings
}

/** The wanted sheet, else the first one in sight that holds a table, else the first. */
async function chooseSheet(container: Container, wanted: string | undefined): Promise<SheetHead> {
  if (wanted !== undefined) {
    if (container.sheets.some(({ name }) => name === wanted)) return headOf(container, wanted)
    throw new FileRefusal('no-sheet')
  }
  const visible = container.sheets.filter(({ hidden }) => !hidden)
  let first: SheetHead | null = null
  for (const { name } of visible) {
    const head = await headOf(container, name)
    // Items name their own columns, and those of the first list only are at hand.
    if (container.headings || holdsTable(head)) return head
    first ??= head
  }
  const [hidden] = container.sheets
  if (first) return first
  if (!hidden) throw new FileRefusal('no-sheet')
  return headOf(container, hidden.name)
}

const holdsTable = ({ rows }: SheetHead): boolean =>
  rows.filter(({ cells }) => cells.filter((cell) => !isBlankCell(cell)).length > 1).length > 1

async function headOf(container: Container, name: string): Promise<SheetHead> {
  const rows: SheetRow[] = []
  const findings = noFindings()
  for await (const batch of container.rows(name, findings, ROWS)) {
    rows.push(...batch.filter(({ cells }) => !cells[0]?.startsWith(BROKEN_ITEM)))
    if (rows.length >= ROWS) break
  }
  return { name, rows: rows.slice(0, ROWS), findings }
}

const FORMAT_NAMES: Record<Format, string> = {
  csv: 'a text with delimiters',
  tsv: 'a text with tabs',
  xlsx: 'an Excel workbook (.xlsx)',
  xls: 'an old Excel workbook (.xls)',
  ods: 'an OpenDocument spreadsheet (.ods)',
  vcard: 'a file of vCards',
  json: 'JSON',
  ndjson: 'NDJSON, one object a line',
}
const ENDINGS: Record<Format, RegExp> = {
  csv: /^(?:csv|txt|tsv|tab|asc|dat|prn)$/,
  tsv: /^(?:csv|txt|tsv|tab|asc|dat|prn)$/,
  xlsx: /^(?:xlsx|xlsm|xltx|xltm)$/,
  xls: /^(?:xls|xlt)$/,
  ods: /^(?:ods|ots)$/,
  vcard: /^(?:vcf|vcard)$/,
  json: /^(?:json|geojson)$/,
  ndjson: /^(?:ndjson|jsonl|jsonlines|json)$/,
}

function nameNotes(name: string, format: Format): Note[] {
  const ending = /\.([a-z0-9]{1,10})$/i.exec(name)?.[1]?.toLowerCase()
  return ending === undefined || ENDINGS[format].test(ending)
    ? []
    : [notes.namedOtherwise(`.${ending}`, FORMAT_NAMES[format])]
}

function sheetNotes(container: Container, sheet: string, facts: SheetFacts, wishes: FileWishes): Note[] {
  const others = container.sheets.filter(({ name }) => name !== sheet)
  const open = others.filter(({ hidden }) => !hidden).map(({ name }) => name)
  const hidden = others.filter((one) => one.hidden).map(({ name }) => name)
  return [
    ...(open.length > 0 ? [notes.otherSheets(open)] : []),
    ...(hidden.length > 0 ? [notes.hiddenSheets(hidden)] : []),
    ...(facts.hiddenRows > 0
      ? [notes.hiddenRows(facts.hiddenRows, wishes.takesHidden ?? DEFAULT_ROW_WISHES.takesHidden)]
      : []),
    ...(facts.hiddenColumns.length > 0
      ? [notes.hiddenColumns(facts.hiddenColumns.map(columnName), wishes.takesHidden ?? DEFAULT_ROW_WISHES.takesHidden)]
      : []),
    ...(facts.merges.length > 0
      ? [notes.mergedCells(facts.merges.length, (wishes.merged ?? DEFAULT_ROW_WISHES.merged) === 'every')]
      : []),
  ]
}

/** What was met while cells were read, as sentences. */
export function findingNotes(findings: SheetFindings): Note[] {
  const { formulasWithoutValue, formulaCells, storedDigits, firstStored } = findings
  return [
    ...(formulasWithoutValue > 0 ? [notes.formulasWithoutValue(formulasWithoutValue, formulaCells)] : []),
    ...(storedDigits > 0 ? [notes.storedDigits(storedDigits, firstStored)] : []),
  ]
}
