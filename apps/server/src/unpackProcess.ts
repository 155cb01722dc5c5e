import {
  FileRefusal,
  type FileSettings,
  noFindings,
  openContainer,
  sourceOfBytes,
  unpackSheet,
} from '@upper-field/files'

/** What the process is asked: a workbook that can only be read whole, and which sheet of it. */
export interface UnpackQuestion {
  readonly bytes: Uint8Array
  readonly sheet: string
  readonly settings: FileSettings
}

export type UnpackAnswer =
  | { readonly kind: 'bytes'; readonly bytes: Uint8Array }
  | { readonly kind: 'done'; readonly findings: ReturnType<typeof noFindings> }
  | { readonly kind: 'refused'; readonly problem: FileRefusal['problem'] }

// A library that takes a whole workbook into memory works here, where running out of it ends this process alone: a thread
// whose heap fills in one leap takes everything around it along.
const answer = (message: UnpackAnswer) => process.send?.(message)
process.once('disconnect', () => process.exit())

process.once('message', async ({ bytes, sheet, settings }: UnpackQuestion) => {
  try {
    const findings = noFindings()
    const container = await openContainer(sourceOfBytes(bytes))
    if (!container) throw new FileRefusal('damaged-file')
    for await (const part of unpackSheet(container, sheet, settings, findings)) {
      answer({ kind: 'bytes', bytes: part })
      await new Promise((resolve) => process.once('message', resolve))
    }
    answer({ kind: 'done', findings })
  } catch (error) {
    answer({ kind: 'refused', problem: error instanceof FileRefusal ? error.problem : 'damaged-file' })
  }
})
