import { basename } from 'node:path'
import { parseArgs } from 'node:util'
import {
  columnName,
  FILE_PROBLEM_TEXT,
  type FileProblem,
  type HeldReason,
  isLeftOut,
  mendNotes,
  type Note,
  notes,
  type RowMend,
} from '@upper-field/core/table'
import {
  type ByteSource,
  FileRefusal,
  type FileWishes,
  findingNotes,
  noFindings,
  type OpenedFile,
  openFile,
  readFileRows,
} from '@upper-field/files'
import { fileSource } from './fileSource'

/** Prints as JSON what a file is found to be; its rows are counted to the end, in constant memory. */
export async function open(args: string[]): Promise<void> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      rows: { type: 'string', default: '20' },
      sheet: { type: 'string' },
      country: { type: 'string' },
      encoding: { type: 'string' },
      delimiter: { type: 'string' },
      headings: { type: 'string' },
      merged: { type: 'string' },
      hidden: { type: 'boolean', default: false },
    },
  })
  const [path] = positionals
  if (!path) throw new Error('Name a file.')
  const source = await fileSource(path)
  try {
    const wishes: FileWishes = {
      ...(values.sheet === undefined ? {} : { sheet: values.sheet }),
      ...(values.country ? { country: values.country.toUpperCase() } : {}),
      ...(values.encoding ? { encoding: values.encoding as NonNullable<FileWishes['encoding']> } : {}),
      ...(values.delimiter ? { delimiter: values.delimiter === '\\t' ? '\t' : values.delimiter } : {}),
      ...(values.headings
        ? { headings: values.headings === 'none' ? ('none' as const) : Number(values.headings) }
        : {}),
      merged: values.merged === 'first' ? 'first' : 'every',
      takesHidden: values.hidden,
    }
    console.log(JSON.stringify(await describe(source, basename(path), wishes, Number(values.rows)), null, 2))
  } finally {
    await source.close()
  }
}

async function describe(source: ByteSource, name: string, wishes: FileWishes, shown: number): Promise<unknown> {
  const opened = await openFile(source, name, wishes)
  if (opened.status === 'refused') return refused(opened.problem)
  try {
    return await describeOpened(source, opened, wishes, shown)
  } catch (error) {
    if (error instanceof FileRefusal) return refused(error.problem)
    throw error
  }
}

const refused = (problem: FileProblem) => ({ error: { code: problem, text: FILE_PROBLEM_TEXT[problem] } })

async function describeOpened(
  source: ByteSource,
  opened: OpenedFile,
  wishes: FileWishes,
  shown: number,
): Promise<unknown> {
  const { table } = opened
  const columns = table.columns.flatMap((facts, i) => (isLeftOut(facts) ? [] : [i]))
  const held: { row: number; reason: HeldReason }[] = []
  const firstRows: string[][] = []
  const findings = noFindings()
  let dataRows = 0
  const mends: Partial<Record<RowMend, number>> = {}
  for await (const { row, judged } of readFileRows(source, opened, wishes, findings)) {
    if (judged.status === 'held') held.push({ row, reason: judged.reason })
    if (judged.status !== 'read') continue
    dataRows++
    for (const mend of judged.mends) mends[mend] = (mends[mend] ?? 0) + 1
    if (firstRows.length < shown) firstRows.push(columns.map((i) => judged.cells[i] ?? ''))
  }
  // What was counted over all rows takes the place of what the head told.
  const counted = findingNotes(findings)
  return {
    format: opened.format,
    encoding: opened.encoding?.encoding ?? null,
    delimiter: opened.dialect?.delimiter ?? null,
    sheets: opened.sheets,
    sheet: opened.sheet,
    headerRow: table.shape.headings?.last ?? null,
    country: table.country,
    headings: columns.map((i) => table.headings[i] || columnName(i)),
    columns: columns.map((i) => ({
      heading: table.headings[i] || columnName(i),
      field: table.suggestions[i]?.field ?? null,
      confidence: Math.round((table.suggestions[i]?.confidence ?? 0) * 100) / 100,
      why: table.suggestions[i]?.why ?? 'nothing',
    })),
    dataRows,
    firstRows,
    held,
    notes: [
      ...opened.notes.filter(({ code }) => !counted.some((note) => note.code === code)),
      ...counted,
      ...heldNotes(held),
      ...mendNotes(mends),
    ],
  }
}

function heldNotes(held: readonly { row: number; reason: HeldReason }[]): Note[] {
  const rows = (reason: HeldReason) => held.filter((one) => one.reason === reason).map(({ row }) => row)
  const kinds = [
    [rows('heading-again'), notes.headingAgain],
    [rows('totals-row'), notes.totalsRow],
    [rows('footer'), notes.footer],
  ] as const
  return kinds.flatMap(([found, tell]) => (found.length > 0 ? [tell(found)] : []))
}
