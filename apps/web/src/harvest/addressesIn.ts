import { FILE_PROBLEM_TEXT } from '@upper-field/core/table'
import { fileSource } from '../bring/fileSource'

/** Addresses in a column of a file of any kind that can be brought in. */
export interface FileAddresses {
  readonly headings: readonly string[]
  /** The column they were taken from. */
  readonly column: number
  readonly addresses: readonly string[]
}

export type AddressesRead = ({ readonly problem: null } & FileAddresses) | { readonly problem: string }

const MOST = 10_000
const LOOKS_LIKE = /^(?:https?:\/\/|www\.)|^[a-z0-9-]+(?:\.[a-z0-9-]+)+(?:\/|$)/i

/** @param column null for the one that looks most like addresses of pages */
export async function addressesIn(file: File, column: number | null = null): Promise<AddressesRead> {
  const { openFile, readFileRows } = await import('@upper-field/files')
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

/** The column with the most cells that look like an address of a page; null where there is none. */
export function columnOfAddresses(rows: readonly (readonly string[])[]): number | null {
  const counts = new Map<number, number>()
  for (const cells of rows)
    for (const [at, cell] of cells.entries())
      if (LOOKS_LIKE.test(cell.trim()) && !cell.includes('@')) counts.set(at, (counts.get(at) ?? 0) + 1)
  const [best] = [...counts].sort((a, b) => b[1] - a[1])
  return best?.[0] ?? null
}
