import { createHash, type Hash } from 'node:crypto'

/** SHA-256 of files as their pieces are written, so that a long file need not be read again at its end. */
export interface FileDigests {
  /** The next piece was written. One out of turn ends it: then the file has to be read. */
  add(fileId: string, position: number, bytes: Buffer): void
  /** As lower-case hex; null where not every piece of the file was seen, as after a crash. Asked once. */
  take(fileId: string, pieces: number): string | null
}

export function createFileDigests(): FileDigests {
  const files = new Map<string, { readonly hash: Hash; pieces: number }>()
  return {
    add: (fileId, position, bytes) => {
      if (position === 0) files.set(fileId, { hash: createHash('sha256'), pieces: 0 })
      const file = files.get(fileId)
      if (file?.pieces !== position) {
        files.delete(fileId)
        return
      }
      file.hash.update(bytes)
      file.pieces++
    },
    take: (fileId, pieces) => {
      const file = files.get(fileId)
      files.delete(fileId)
      return file?.pieces === pieces ? file.hash.digest('hex') : null
    },
  }
}
