import type { Mapping } from '@upper-field/core/table'
import { type ProjectedContact, projectRow } from '@upper-field/core/tidy'
import { type ByteSource, type FileOpening, type FileWishes, openFile } from '@upper-field/files'

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
    opened = await openFile(sourceOf(data.file), data.file.name, data.wishes)
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

const sourceOf = (file: File): ByteSource => ({
  size: file.size,
  read: async (start, end) => new Uint8Array(await file.slice(start, end).arrayBuffer()),
})

async function fingerprintOf(file: File): Promise<string> {
  const digest = await crypto.subtle.digest('SHA-256', await file.slice(0, FINGERPRINT).arrayBuffer())
  const hex = Array.from(new Uint8Array(digest), (byte) => byte.toString(16).padStart(2, '0')).join('')
  return `${hex}-${file.size}`
}
