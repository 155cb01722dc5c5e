import { createHash } from 'node:crypto'
import { parseArgs } from 'node:util'
import { findDestination, headingsOf, prepareMember } from '@upper-field/core/send'
import { csvLine, FILE_PROBLEM_TEXT } from '@upper-field/core/table'
import { projectRow } from '@upper-field/core/tidy'
import { openFile, readFileRows } from '@upper-field/files'
import { fileSource } from './fileSource'
import { print } from './print'

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

/** The contacts of a file, or the reason why a row could not be read. */
async function* rowsOf(path: string, country: string | null): AsyncGenerator<Row> {
  const source = await fileSource(path)
  try {
    const opened = await openFile(source, path, { country })
    if (opened.status === 'refused') throw new Error(`${path}: ${FILE_PROBLEM_TEXT[opened.problem]}`)
    const mapping = opened.table.suggestions.map(({ field }) => field)
    for await (const { judged } of readFileRows(source, opened)) {
      if (judged.status === 'read') yield projectRow(judged.cells, { mapping, defaultCountry: country })
      if (judged.status === 'held') yield judged.reason
    }
  } finally {
    await source.close()
  }
}
