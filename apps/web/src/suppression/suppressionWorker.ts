import { type ColumnUse, useOfColumn } from '@upper-field/core/pair'
import type { FileProblem } from '@upper-field/core/table'
import { type OpenedFile, openFile, readFileRows } from '@upper-field/files'
import { fileSource, sha256Of } from '../bring/fileSource'
import { nextPage, type SuppressionFilePage } from './nextPage'

export type FileQuestion =
  | { readonly kind: 'open'; readonly file: File }
  /** Begins to read the rows, from the first. */
  | { readonly kind: 'start'; readonly uses: readonly ColumnUse[] }
  | { readonly kind: 'next' }

export interface SuppressionFileHead {
  readonly sha256: string
  readonly headings: readonly string[]
  readonly firstRows: readonly (readonly string[])[]
  readonly uses: readonly ColumnUse[]
}

export type FileAnswer =
  | { readonly kind: 'opened'; readonly head: SuppressionFileHead }
  | { readonly kind: 'refused'; readonly problem: FileProblem | 'too-large-to-suppress' }
  | ({ readonly kind: 'rows' } & SuppressionFilePage)

const SHOWN_ROWS = 4
const MOST_BYTES = 256 * 1024 * 1024

let opened: { readonly file: File; readonly table: OpenedFile } | null = null
let rows: ReturnType<typeof readFileRows> | null = null
let uses: readonly ColumnUse[] = []

self.addEventListener('message', async ({ data }: MessageEvent<FileQuestion>) => {
  if (data.kind === 'open') self.postMessage(await open(data.file))
  else if (opened) {
    if (data.kind === 'start') {
      uses = data.uses
      rows = readFileRows(fileSource(opened.file), opened.table)
    }
    if (rows) self.postMessage({ kind: 'rows', ...(await nextPage(rows, uses)) } satisfies FileAnswer)
  }
})

async function open(file: File): Promise<FileAnswer> {
  if (file.size > MOST_BYTES) return { kind: 'refused', problem: 'too-large-to-suppress' }
  const opening = await openFile(fileSource(file), file.name)
  if (opening.status === 'refused') return { kind: 'refused', problem: opening.problem }
  opened = { file, table: opening }
  const { headings, suggestions, firstRows } = opening.table
  const cells = firstRows.map((row) => row.cells)
  return {
    kind: 'opened',
    head: {
      sha256: await sha256Of(file),
      headings,
      firstRows: cells.slice(0, SHOWN_ROWS),
      uses: suggestions.map(({ field }, at) =>
        useOfColumn(
          field,
          cells.map((row) => row[at] ?? ''),
        ),
      ),
    },
  }
}
