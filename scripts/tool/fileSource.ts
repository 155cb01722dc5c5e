import { open } from 'node:fs/promises'
import type { ByteSource } from '@upper-field/files'

/** A file on disk as a source; the caller closes it. */
export async function fileSource(path: string): Promise<ByteSource & { close(): Promise<void> }> {
  const file = await open(path).catch(() => {
    throw new Error(`${path} cannot be opened.`)
  })
  const { size } = await file.stat()
  return {
    size,
    read: async (start, end) => {
      const bytes = Buffer.alloc(Math.max(0, Math.min(end, size) - start))
      await file.read(bytes, 0, bytes.length, start)
      return bytes
    },
    close: () => file.close(),
  }
}
