/** Bytes that can be read from any place: a file in the browser, pieces in the database, a file on disk. */
export interface ByteSource {
  readonly size: number
  /** The bytes from `start` up to `end`, or up to the end of the source. */
  read(start: number, end: number): Promise<Uint8Array>
}

export const sourceOfBytes = (bytes: Uint8Array): ByteSource => ({
  size: bytes.length,
  read: async (start, end) => bytes.subarray(start, Math.min(end, bytes.length)),
})

const CHUNK = 1 << 18

/** The source from front to back, in chunks. */
export async function* chunksOf(source: ByteSource, start = 0): AsyncGenerator<Uint8Array> {
  for (let at = start; at < source.size; at += CHUNK) yield source.read(at, Math.min(at + CHUNK, source.size))
}

export const readWhole = (source: ByteSource): Promise<Uint8Array> => source.read(0, source.size)
