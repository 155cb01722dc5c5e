import type { Mapping } from '@upper-field/core/table'
import { type ProjectedContact, projectRow } from '@upper-field/core/tidy'
import { type FileOpening, type FileWishes, type OpenedFile, openFile, readFileRows } from '@upper-field/files'
import { fileSource, sha256Of } from './fileSource'

/** Bytes that a file is told by, before all of it has been read. */
const FINGERPRINT = 1 << 20
const SHOWN_ROWS = 8

export type HeadQuestion =
  | { readonly kind: 'open'; readonly file: File; readonly wishes: FileWishes }
  | { readonly kind: 'read'; readonly mapping: Mapping; readonly country: string | null }

export interface ShownRow {
  readonly row: number
  readonly contact: ProjectedContact
}

/** What will be read of the numbers in the first rows, under a country and a mapping. */
export interface NumberCount {
  readonly rows: number
  /** Filled cells of columns that are numbers. */
  readonly cells: number
  /** Of these: cells with a number that is valid. */
  readonly read: number
}

export type HeadAnswer =
  | { readonly kind: 'opened'; readonly opening: FileOpening; readonly fingerprint: string }
  | { readonly kind: 'rows'; readonly rows: readonly ShownRow[]; readonly count: NumberCount }
  /** How many rows of the whole file can be read; null where it is too large to be counted here. */
  | { readonly kind: 'counted'; readonly rows: number | null }

let opened: FileOpening | null = null

// The first look at a local file: never on the page's own thread, and nothing is sent anywhere.
self.addEventListener('message', async ({ data }: MessageEvent<HeadQuestion>) => {
  if (data.kind === 'open') {
    opened = await openFile(fileSource(data.file), data.file.name, data.wishes)
    answer({ kind: 'opened', opening: opened, fingerprint: await fingerprintOf(data.file) })
    if (opened.status === 'opened') answer({ kind: 'counted', rows: await countRows(data.file, opened, data.wishes) })
  } else if (opened?.status === 'opened') {
    const { mapping, country } = data
    const contacts = opened.table.firstRows.map(({ row, cells }) => ({
      row,
      contact: projectRow(cells, { mapping, defaultCountry: country }),
    }))
    answer({ kind: 'rows', rows: contacts.slice(0, SHOWN_ROWS), count: countNumbers(contacts) })
  }
})

function countNumbers(contacts: readonly ShownRow[]): NumberCount {
  const readings = contacts.flatMap(({ contact }) => contact.readings.map(({ reading }) => reading))
  const filled = readings.filter(({ verdict }) => verdict !== 'empty')
  const read = filled.filter(({ numbers }) => numbers.some(({ valid }) => valid))
  return { rows: contacts.length, cells: filled.length, read: read.length }
}

/** Files up to this size are counted to their end before they are sent, in bytes. */
const MOST_COUNTED = 40 << 20

async function countRows(file: File, head: OpenedFile, wishes: FileWishes): Promise<number | null> {
  if (file.size > MOST_COUNTED) return null
  let rows = 0
  try {
    for await (const { judged } of readFileRows(fileSource(file), head, wishes)) {
      if (judged.status === 'read') rows++
      if (opened !== head) return null
    }
  } catch {
    // The file breaks off further on: the server says so, row by row.
    return null
  }
  return rows
}

const answer = (message: HeadAnswer): void => self.postMessage(message)

const fingerprintOf = async (file: File): Promise<string> =>
  `${await sha256Of(file.slice(0, FINGERPRINT))}-${file.size}`
