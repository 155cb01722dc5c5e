import type { Mapping } from '@upper-field/core/table'
import { type ProjectedContact, projectRow } from '@upper-field/core/tidy'
import { type FileOpening, type FileWishes, openFile } from '@upper-field/files'
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

export type HeadAnswer =
  | { readonly kind: 'opened'; readonly opening: FileOpening; readonly fingerprint: string }
  | { readonly kind: 'rows'; readonly rows: readonly ShownRow[] }

let opened: FileOpening | null = null

// The first look at a local file: never on the page's own thread, and nothing is sent anywhere.
self.addEventListener('message', async ({ data }: MessageEvent<HeadQuestion>) => {
  if (data.kind === 'open') {
    opened = await openFile(fileSource(data.file), data.file.name, data.wishes)
    answer({ kind: 'opened', opening: opened, fingerprint: await fingerprintOf(data.file) })
  } else if (opened?.status === 'opened') {
    const { mapping, country } = data
    const rows = opened.table.firstRows.slice(0, SHOWN_ROWS)
    answer({
      kind: 'rows',
      rows: rows.map(({ row, cells }) => ({
        row,
        contact: projectRow(cells, { mapping, defaultCountry: country }),
      })),
    })
  }
})

const answer = (message: HeadAnswer): void => self.postMessage(message)

const fingerprintOf = async (file: File): Promise<string> =>
  `${await sha256Of(file.slice(0, FINGERPRINT))}-${file.size}`
