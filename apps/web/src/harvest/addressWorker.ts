import { FILE_PROBLEM_TEXT } from '@upper-field/core/table'
import { openFile, readFileRows } from '@upper-field/files'
import { fileSource } from '../bring/fileSource'
import { columnOfAddresses } from './columnOfAddresses'

export interface AddressQuestion {
  readonly file: File
  readonly column: number | null
}

/** Addresses in a column of a file. */
export interface FileAddresses {
  readonly headings: readonly string[]
  /** The column they were taken from. */
  readonly column: number
  readonly addresses: readonly string[]
}

export type AddressesRead = ({ readonly problem: null } & FileAddresses) | { readonly problem: string }

/** So many can be read at once. */
const MOST = 10_000

self.addEventListener('message', async ({ data }: MessageEvent<AddressQuestion>) => {
  self.postMessage(await read(data).catch((): AddressesRead => ({ problem: 'This file breaks off.' })))
})

async function read({ file, column }: AddressQuestion): Promise<AddressesRead> {
  const source = fileSource(file)
  const opened = await openFile(source, file.name)
  if (opened.status === 'refused') return { problem: FILE_PROBLEM_TEXT[opened.problem] }
  const { headings, firstRows } = opened.table
  const at = column ?? columnOfAddresses(firstRows.map(({ cells }) => cells))
  if (at === null) return { problem: 'No column of this file holds addresses of pages.' }
  const addresses: string[] = []
  for await (const { judged } of readFileRows(source, opened, {})) {
    const cell = judged.status === 'read' ? (judged.cells[at] ?? '').trim() : ''
    if (cell !== '') addresses.push(cell)
    if (addresses.length === MOST) break
  }
  return { problem: null, headings, column: at, addresses }
}
