import { createHash } from 'node:crypto'
import { once } from 'node:events'
import { open } from 'node:fs/promises'
import { parseArgs } from 'node:util'
import { findDestination, headingsOf, prepareMember } from '@upper-field/core/send'
import { csvLine, type Dialect, judgeRow, openTable, scanRecords } from '@upper-field/core/table'
import { type ProjectOptions, projectRow } from '@upper-field/core/tidy'

const HEAD = 524_288
const PIECE = 4 << 20

/** Prints the audience of a clean CSV in a destination's form, in constant memory. What is left out is told on standard error. */
export async function prepare(args: string[]): Promise<void> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      destination: { type: 'string' },
      plain: { type: 'boolean', default: false },
      country: { type: 'string' },
    },
  })
  const destination = findDestination(values.destination ?? '')
  if (!destination) throw new Error('Name a destination: --destination brassbell')
  const [path] = positionals
  if (!path) throw new Error('Name a CSV file.')
  const hash = values.plain ? null : (text: string) => createHash('sha256').update(text).digest('hex')
  await print(csvLine(headingsOf(destination)))
  const leftOut = new Map<string, number>()
  for await (const cells of rowsOf(path, values.country?.toUpperCase() ?? null)) {
    if (typeof cells === 'string') {
      leftOut.set(cells, (leftOut.get(cells) ?? 0) + 1)
      continue
    }
    const { values: known, numbers, emails } = cells
    const member = {
      ...known,
      emails: emails.map(({ address }) => address),
      numbers: numbers.filter(({ valid }) => valid),
    }
    const prepared = prepareMember(member, destination, { hash })
    if (prepared.status === 'ready') await print(csvLine(prepared.cells))
    else leftOut.set(prepared.reason, (leftOut.get(prepared.reason) ?? 0) + 1)
  }
  for (const [reason, n] of leftOut) console.error(`left out: ${n} (${reason})`)
}

type Row = ReturnType<typeof projectRow> | string

/** The contacts of a CSV, or the reason why a row could not be read. */
async function* rowsOf(path: string, country: string | null): AsyncGenerator<Row> {
  const file = await open(path).catch(() => {
    throw new Error(`${path} cannot be opened.`)
  })
  try {
    const { size } = await file.stat()
    const head = Buffer.alloc(Math.min(HEAD, size))
    await file.read(head, 0, head.length, 0)
    const opened = openTable(head, { isWhole: size <= HEAD, country })
    if (opened.status === 'refused') throw new Error(`${path}: ${opened.problem}`)
    const options: ProjectOptions = { mapping: opened.suggestions.map(({ field }) => field), defaultCountry: country }
    const shape = { ...opened.dialect, columns: opened.headings.length }
    let isHeading = opened.hasHeadings
    for await (const { text, problem } of recordsOf(file, size, opened.dialect)) {
      const judged = isHeading ? { status: 'blank' as const } : judgeRow(text, problem, shape)
      isHeading = false
      if (judged.status === 'read') yield projectRow(judged.cells, options)
      if (judged.status === 'held') yield judged.reason
    }
  } finally {
    await file.close()
  }
}

type File = Awaited<ReturnType<typeof open>>

async function* recordsOf(file: File, size: number, dialect: Dialect) {
  const decoder = new TextDecoder(dialect.encoding)
  for (let offset = dialect.bom, length = PIECE; offset < size; ) {
    const bytes = Buffer.alloc(Math.min(length, size - offset))
    await file.read(bytes, 0, bytes.length, offset)
    const { records, consumed } = scanRecords(bytes, {
      delimiter: dialect.delimiter,
      isLast: offset + bytes.length >= size,
    })
    for (const { start, end, problem } of records) yield { text: decoder.decode(bytes.subarray(start, end)), problem }
    offset += consumed
    length = consumed === 0 ? length * 2 : PIECE
  }
}

async function print(text: string): Promise<void> {
  if (!process.stdout.write(text)) await once(process.stdout, 'drain')
}
