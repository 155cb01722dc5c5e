import { createWriteStream } from 'node:fs'
import { finished } from 'node:stream/promises'
import { parseArgs } from 'node:util'
import { type PairInput, pairContacts, pairInputOf } from '@upper-field/core/pair'
import { csvLine, FILE_PROBLEM_TEXT } from '@upper-field/core/table'
import { compileRoutine, proposeRoutine } from '@upper-field/core/tidy'
import { openFile, readFileRows } from '@upper-field/files'
import { fileSource } from './fileSource'
import { print } from './print'

const ROW_ID = 'row_id'

/** Prints who is one person by itself: row, group and score. Pairs that a person should decide go to a file of their own. */
export async function pair(args: string[]): Promise<void> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { decide: { type: 'string' }, country: { type: 'string' } },
  })
  const [path] = positionals
  if (!path) throw new Error('Name a file to pair.')
  const { ids, contacts } = await contactsIn(path, values.country?.toUpperCase() ?? null)
  const { groups, toDecide } = pairContacts(contacts)
  await print(csvLine([ROW_ID, 'group_id', 'score']))
  for (const [i, { members, score }] of groups.entries())
    for (const member of members) await print(csvLine([ids[member] ?? '', String(i + 1), score.toFixed(2)]))
  if (values.decide === undefined) return
  const file = createWriteStream(values.decide)
  await print(csvLine([`${ROW_ID}_a`, `${ROW_ID}_b`, 'score']), file)
  for (const { a, b, score } of toDecide) await print(csvLine([ids[a] ?? '', ids[b] ?? '', score.toFixed(2)]), file)
  await finished(file.end())
}

/** The contacts of a table, tidied as proposed, and the ids of their rows. */
async function contactsIn(path: string, country: string | null): Promise<{ ids: string[]; contacts: PairInput[] }> {
  const source = await fileSource(path)
  try {
    const opened = await openFile(source, path, { country })
    if (opened.status === 'refused') throw new Error(`${path}: ${FILE_PROBLEM_TEXT[opened.problem]}`)
    const { headings, suggestions } = opened.table
    const idAt = headings.findIndex((heading) => heading.trim().toLowerCase() === ROW_ID)
    if (idAt === -1) throw new Error(`${path} has no column "${ROW_ID}". Its columns: ${headings.join(', ')}.`)
    const mapping = suggestions.map(({ field }, at) => (at === idAt ? null : field))
    const publicHosts = new Set(opened.table.publicHosts)
    const tidier = compileRoutine(
      proposeRoutine(mapping),
      { mapping, headings },
      { defaultCountry: country, publicHosts },
    )
    const ids: string[] = []
    const contacts: PairInput[] = []
    let held = 0
    for await (const { judged } of readFileRows(source, opened)) {
      if (judged.status === 'held') held++
      if (judged.status !== 'read') continue
      ids.push(judged.cells[idAt] ?? '')
      contacts.push(pairInputOf(tidier.tidy(judged.cells)))
    }
    if (held > 0) console.error(`held: ${held} rows that could not be read`)
    return { ids, contacts }
  } finally {
    await source.close()
  }
}
