import type { ByteSource } from '@upper-field/files'
import { sql } from 'drizzle-orm'
import type { Db } from '../db/database'
import { batchPieces } from '../db/schema'

/** Files are stored in pieces of this size, in bytes; only the last is shorter. */
export const PIECE = 1 << 20

/** `file` as it arrived, `table` as it was unpacked. */
export type Part = 'file' | 'table'

/** The bytes of a part from `start` up to `end`; fewer where pieces are missing. */
export async function loadBytes(db: Db, batchId: string, part: Part, start: number, end: number): Promise<Buffer> {
  const { offset, bytes } = batchPieces
  // Rows end where they end: of the pieces a step begins and ends in, only its own bytes are sent.
  const before = sql`greatest(0, ${start} - ${offset})::int`
  const found = await db
    .select({ bytes: sql<Buffer>`substring(${bytes} from ${before} + 1 for (${end} - ${offset})::int - ${before})` })
    .from(batchPieces)
    .where(
      sql`${batchPieces.batchId} = ${batchId} and ${batchPieces.part} = ${part}
        and ${offset} > ${start - PIECE} and ${offset} < ${end}`,
    )
    .orderBy(offset)
  return Buffer.concat(found.map((piece) => piece.bytes))
}

/** Pieces kept while an archive is read from several places at once. */
const KEPT = 6

/** The stored file as a source; `onRead` is told how far reading has come. */
export function storedFile(
  db: Db,
  batchId: string,
  size: number,
  onRead: (end: number) => void = () => {},
): ByteSource {
  const kept = new Map<number, Buffer>()
  const piece = async (offset: number): Promise<Buffer> => {
    const known = kept.get(offset)
    if (known) return known
    const bytes = await loadBytes(db, batchId, 'file', offset, Math.min(offset + PIECE, size))
    kept.set(offset, bytes)
    const [oldest] = kept.keys()
    if (kept.size > KEPT && oldest !== undefined) kept.delete(oldest)
    return bytes
  }
  return {
    size,
    read: async (start, end) => {
      const last = Math.min(end, size)
      const parts: Buffer[] = []
      for (let at = start; at < last; ) {
        const offset = at - (at % PIECE)
        const bytes = await piece(offset)
        parts.push(bytes.subarray(at - offset, last - offset))
        at = offset + PIECE
      }
      onRead(last)
      return Buffer.concat(parts)
    },
  }
}

/** Bytes that arrive in any sizes, in pieces of equal size. */
export async function* inPieces(chunks: AsyncIterable<Uint8Array>): AsyncGenerator<Buffer> {
  let held: Buffer[] = []
  let size = 0
  for await (const chunk of chunks) {
    held.push(Buffer.from(chunk.buffer, chunk.byteOffset, chunk.byteLength))
    size += chunk.byteLength
    if (size < PIECE) continue
    const all = Buffer.concat(held)
    let at = 0
    for (; all.length - at >= PIECE; at += PIECE) yield all.subarray(at, at + PIECE)
    held = [Buffer.from(all.subarray(at))]
    size = all.length - at
  }
  if (size > 0) yield Buffer.concat(held)
}
