import { SaxesParser } from 'saxes'
import { FileRefusal } from '../refusal'
import { localName } from './parts'

/** Where the texts that cells share are kept while a sheet is read. */
export interface StringStore {
  add(text: string): void
  get(index: number): string
  close(): void
}

export function memoryStrings(): StringStore {
  const texts: string[] = []
  return { add: (text) => void texts.push(text), get: (index) => texts[index] ?? '', close: () => {} }
}

/** Reads the shared strings of a workbook into a store; stops once `isEnough` says so. */
export async function readStrings(
  chunks: AsyncIterable<Uint8Array>,
  store: StringStore,
  isEnough: (count: number) => boolean = () => false,
): Promise<void> {
  const parser = new SaxesParser()
  let text = ''
  let isText = false
  let isPhonetic = false
  let count = 0
  parser.on('opentag', ({ name }) => {
    const local = localName(name)
    if (local === 'si') text = ''
    if (local === 'rPh') isPhonetic = true
    isText = local === 't' && !isPhonetic
  })
  parser.on('text', (piece) => {
    if (isText) text += piece
  })
  parser.on('closetag', ({ name }) => {
    const local = localName(name)
    if (local === 'rPh') isPhonetic = false
    isText = false
    if (local !== 'si') return
    store.add(unescapeControls(text))
    count++
  })
  parser.on('error', () => {
    throw new FileRefusal('damaged-file')
  })
  const decoder = new TextDecoder()
  for await (const chunk of chunks) {
    parser.write(decoder.decode(chunk, { stream: true }))
    if (isEnough(count)) return
  }
  parser.close()
}

/** Characters that XML cannot hold are written `_x000D_` (ECMA-376, part 1, 22.9.2.19). */
export const unescapeControls = (text: string): string =>
  text.includes('_x')
    ? text.replace(/_x([0-9A-F]{4})_/gi, (_, code: string) => String.fromCharCode(Number.parseInt(code, 16)))
    : text
