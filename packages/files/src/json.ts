import { JSONParser } from '@streamparser/json'
import type { Container } from './container'
import { containerOfItems, type Item, type ItemOptions } from './items'
import { linesOf, textOf } from './lines'
import { FileRefusal } from './refusal'
import type { ByteSource } from './source'

/** Nesting deeper than this is kept as its JSON text. */
const DEEPEST = 6
const LONGEST_LINE = 8 << 20

/** NDJSON: one object a line. A line that is none is held. */
export const openNdjson = (source: ByteSource, options?: ItemOptions): Promise<Container> =>
  containerOfItems('ndjson', () => lineItems(source), options)

async function* lineItems(source: ByteSource): AsyncGenerator<Item> {
  for await (const line of linesOf(textOf(source))) {
    if (line.trim() === '') continue
    if (line.length > LONGEST_LINE) throw new FileRefusal('broken-json')
    yield itemOfLine(line)
  }
}

function itemOfLine(line: string): Item {
  try {
    const value: unknown = JSON.parse(line)
    return value !== null && typeof value === 'object' ? flatItem(value) : { status: 'broken', text: line }
  } catch {
    return { status: 'broken', text: line }
  }
}

/** A JSON array of objects, or an object that holds one. */
export const openJson = (source: ByteSource, options?: ItemOptions): Promise<Container> =>
  containerOfItems('json', () => arrayItems(source), options)

async function* arrayItems(source: ByteSource): AsyncGenerator<Item> {
  let first = ''
  for await (const piece of textOf(source)) {
    first = piece.trimStart().slice(0, 1)
    if (first !== '') break
  }
  // `$.*` are the items of an array at the top; below an object, those of the arrays it holds.
  const parser = new JSONParser({
    paths: [first === '[' ? '$.*' : '$.*.*'],
    keepStack: false,
    stringBufferSize: 65_536,
  })
  const found: Item[] = []
  parser.onValue = ({ value }) => {
    if (value !== null && typeof value === 'object') found.push(flatItem(value))
    else if (first === '[') found.push({ status: 'broken', text: JSON.stringify(value) })
  }
  let failed: Error | null = null
  parser.onError = (error) => {
    failed = error
  }
  for await (const piece of textOf(source)) {
    try {
      parser.write(piece)
    } catch {
      throw new FileRefusal('broken-json')
    }
    if (failed) throw new FileRefusal('broken-json')
    yield* found.splice(0)
  }
  if (!parser.isEnded) throw new FileRefusal('broken-json')
}

function flatItem(value: object): Item {
  const values = new Map<string, string>()
  flatten(value, '', 0, values)
  return { status: 'read', values }
}

/** Nested keys joined with dots; an array of plain values counts from 0. */
function flatten(value: unknown, path: string, depth: number, into: Map<string, string>): void {
  if (value === null || value === undefined) {
    if (path !== '' && !into.has(path)) into.set(path, '')
  } else if (typeof value === 'object' && depth < DEEPEST) {
    for (const [key, inner] of Object.entries(value))
      flatten(inner, path === '' ? key : `${path}.${key}`, depth + 1, into)
  } else into.set(path, typeof value === 'object' ? JSON.stringify(value) : String(value))
}
