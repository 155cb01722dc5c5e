import { configure, type FileEntry, Reader, ZipReader } from '@zip.js/zip.js'
import { FileRefusal } from './refusal'
import type { ByteSource } from './source'

configure({ useWebWorkers: false })

/** Inflated bytes of one part that are let through whatever its ratio. */
const UNSUSPECTED = 64 << 20
/** Sheets rarely inflate to fifty times their size; deflate can do a thousand. */
const MOST_RATIO = 250
const MOST_INFLATED = 16 * 2 ** 30
/** Parts that are read whole (workbook, styles) stay small. */
const MOST_WHOLE = 32 << 20

/** A ZIP archive whose parts are read as streams, and which may not inflate without end. */
export interface Archive {
  readonly names: readonly string[]
  has(name: string): boolean
  /** Bytes the part takes in the archive. */
  packedSize(name: string): number
  text(name: string): Promise<string>
  stream(name: string): AsyncGenerator<Uint8Array>
}

/** Opens an archive. Throws a refusal where it is damaged or locked. */
export async function openArchive(source: ByteSource): Promise<Archive> {
  const entries = new Map<string, FileEntry>()
  try {
    for (const entry of await new ZipReader(new SourceReader(source)).getEntries())
      if (!entry.directory) entries.set(entry.filename.replaceAll('\\', '/'), entry)
  } catch {
    throw new FileRefusal('damaged-file')
  }
  if ([...entries.values()].some(({ encrypted }) => encrypted)) throw new FileRefusal('locked-workbook')
  const find = (name: string): FileEntry => {
    const entry = entries.get(name)
    if (!entry) throw new FileRefusal('damaged-file')
    return entry
  }
  const stream = (name: string) => inflate(find(name))
  return {
    names: [...entries.keys()],
    has: (name) => entries.has(name),
    packedSize: (name) => entries.get(name)?.compressedSize ?? 0,
    text: async (name) => decode(await wholeOf(stream(name))),
    stream,
  }
}

class SourceReader extends Reader<ByteSource> {
  readonly #source: ByteSource
  constructor(source: ByteSource) {
    super(source)
    this.#source = source
    this.size = source.size
  }
  override readUint8Array(index: number, length: number): Promise<Uint8Array<ArrayBuffer>> {
    return this.#source.read(index, Math.min(index + length, this.#source.size)) as Promise<Uint8Array<ArrayBuffer>>
  }
}

/** The part, inflated as it is asked for; stops where it grows beyond belief. */
async function* inflate(entry: FileEntry): AsyncGenerator<Uint8Array> {
  const stop = new AbortController()
  const { readable, writable } = new TransformStream<Uint8Array, Uint8Array>()
  const work = entry.getData(writable, { signal: stop.signal, checkSignature: false }).catch((error: unknown) => error)
  const most = Math.min(MOST_INFLATED, Math.max(UNSUSPECTED, entry.compressedSize * MOST_RATIO))
  let inflated = 0
  const reader = readable.getReader()
  try {
    for (;;) {
      const { done, value } = await reader.read().catch(() => {
        throw new FileRefusal('damaged-file')
      })
      if (done) break
      inflated += value.length
      if (inflated > most) throw new FileRefusal('inflates-too-far')
      yield value
    }
  } finally {
    stop.abort()
    await reader.cancel().catch(() => {})
    await work
  }
}

async function wholeOf(chunks: AsyncIterable<Uint8Array>): Promise<Uint8Array> {
  const held: Uint8Array[] = []
  let size = 0
  for await (const chunk of chunks) {
    held.push(chunk)
    size += chunk.length
    if (size > MOST_WHOLE) throw new FileRefusal('inflates-too-far')
  }
  const whole = new Uint8Array(size)
  let at = 0
  for (const chunk of held) {
    whole.set(chunk, at)
    at += chunk.length
  }
  return whole
}

const decode = (bytes: Uint8Array): string => new TextDecoder().decode(bytes)
