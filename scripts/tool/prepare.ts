import { createHash } from 'node:crypto'
import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { DestinationDocument } from '@upper-field/contract'
import {
  type AudienceMember,
  type AudienceShape,
  createPreparer,
  headingsOf,
  type LeftOut,
  shapeOf,
  TAKES,
} from '@upper-field/core/send'
import { csvLine, FILE_PROBLEM_TEXT } from '@upper-field/core/table'
import { type ProjectedContact, projectRow } from '@upper-field/core/tidy'
import { openFile, readFileRows } from '@upper-field/files'
import { z } from 'zod'
import { fileSource } from './fileSource'
import { print } from './print'

/** Destinations that ship, by their ids. */
const SHIPPED = join(import.meta.dirname, '..', '..', 'apps', 'server', 'destinations')

/** Prints the audience of a clean CSV in a destination's form, in constant memory. What is left out is told on standard error. */
export async function prepare(args: string[]): Promise<void> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      destination: { type: 'string' },
      takes: { type: 'string' },
      plain: { type: 'boolean', default: false },
      country: { type: 'string' },
    },
  })
  const { shape, isHashed } = readShape(values.destination ?? '', values.takes, values.plain)
  const [path] = positionals
  if (!path) throw new Error('Name a CSV file.')
  const hash = isHashed ? (text: string) => createHash('sha256').update(text, 'utf8').digest('hex') : null
  const prepareOne = createPreparer(shape, { hash })
  await print(csvLine(headingsOf(shape)))
  const leftOut = new Map<string, number>()
  const leave = (reason: string) => leftOut.set(reason, (leftOut.get(reason) ?? 0) + 1)
  for await (const row of rowsOf(path, values.country?.toUpperCase() ?? null)) {
    if (typeof row === 'string') {
      leave(row)
      continue
    }
    const prepared = prepareOne(memberOf(row))
    if (prepared.status === 'ready') await print(csvLine(prepared.cells))
    else leave(reasonText(prepared.reason))
  }
  for (const [reason, n] of leftOut) console.error(`left out: ${n} (${reason})`)
}

function readShape(
  named: string,
  takes: string | undefined,
  isPlain: boolean,
): { shape: AudienceShape; isHashed: boolean } {
  if (named === '') throw new Error('Name a destination: --destination FILE.json, or the id of one that ships.')
  const path = [named, join(SHIPPED, `${named}.json`)].find((one) => existsSync(one))
  if (!path) throw new Error(`There is no destination "${named}": name a JSON file that declares one.`)
  const read = DestinationDocument.safeParse(parse(path))
  if (!read.success) throw new Error(`${path} declares no destination.\n${z.prettifyError(read.error)}`)
  const wanted = TAKES.find((one) => one === takes) ?? read.data.audiences[0]?.takes ?? 'people'
  const shape = shapeOf(read.data, wanted)
  if (!shape) throw new Error(`${read.data.name} takes no ${wanted}.`)
  if (isPlain && read.data.hashing === 'always') throw new Error(`${read.data.name} takes hashed identifiers only.`)
  return { shape, isHashed: !isPlain && read.data.hashing !== 'never' }
}

function parse(path: string): unknown {
  try {
    return JSON.parse(readFileSync(path, 'utf8'))
  } catch {
    throw new Error(`${path} is no JSON.`)
  }
}

const reasonText = (reason: LeftOut): string =>
  reason.why === 'missing' ? `without "${reason.field}"` : 'nothing to match by'

function memberOf({ values, numbers, emails }: ProjectedContact): AudienceMember {
  const valid = numbers.filter(({ valid }) => valid)
  return {
    country: values.country,
    numberCountry: valid[0]?.country ?? null,
    values: {
      email: emails.map(({ address }) => address),
      number: valid.map(({ e164 }) => e164),
      'given-name': [values.givenName],
      'family-name': [values.familyName],
      'full-name': [values.fullName],
      title: [values.title],
      company: [values.company],
      site: [values.domain],
      street: [values.street],
      'postal-code': [values.postalCode],
      city: [values.city],
      region: [values.region],
      'birth-date': [values.birthDate],
    },
  }
}

type Row = ProjectedContact | string

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
