import { type Encoding, judgeEncoding } from '@upper-field/core/table'
import { type ByteSource, chunksOf } from './source'

/** The text of a source, in pieces, by its own encoding or the wanted one. */
export async function* textOf(source: ByteSource, wanted?: Encoding): AsyncGenerator<string> {
  const { encoding, bom } = judgeEncoding(await source.read(0, 65_536), wanted)
  const decoder = new TextDecoder(encoding, { ignoreBOM: true })
  for await (const chunk of chunksOf(source, bom)) yield decoder.decode(chunk, { stream: true })
  const rest = decoder.decode()
  if (rest !== '') yield rest
}

/** Lines without their ends. */
export async function* linesOf(pieces: AsyncIterable<string>): AsyncGenerator<string> {
  let rest = ''
  for await (const piece of pieces) {
    const lines = (rest + piece).split(/\r\n|\n|\r(?!$)/)
    rest = lines.pop() ?? ''
    yield* lines
  }
  if (rest !== '') yield rest.replace(/\r$/, '')
}
