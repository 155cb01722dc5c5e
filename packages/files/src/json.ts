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

/**
 * JSON: the people in it are the longest list of objects, at whatever depth. Where there are several lists, each is a
 * sheet of its own, named by the keys on the way to it.
 */
export async function openJson(source: ByteSource, options: ItemOptions = {}): Promise<Container> {
  const places = await listsIn(source)
  const place = places.find(({ name }) => name === options.sheet) ?? places[0]
  if (!place) throw new FileRefusal('no-table')
  const container = await containerOfItems('json', () => itemsAt(source, place.path), options)
  if (places.length === 1) return container
  const others = places.filter((one) => one !== place)
  return { ...container, sheets: [place, ...others].map(({ name }) => ({ name, hidden: false })) }
}

/** Where a list stands in a file. */
interface ListPlace {
  /** How it is named for people. */
  readonly name: string
  /** Its items, as the parser is told of them. */
  readonly path: string
}

/** Lists deeper than this are values of a person. */
const DEEPEST_LIST = 5
/** Signs of a file that are looked at for the lists in it. */
const LIST_LOOK = 16 << 20

/** Arrays that hold objects, the one with most of them first. Without any, objects that hold objects by their keys. */
async function listsIn(source: ByteSource): Promise<ListPlace[]> {
  if ((await firstSign(source)) === '[') return [{ name: '', path: '$.*' }]
  const arrays = new Map<string, number>()
  const keyed = new Map<string, number>()
  const parser = new JSONParser({ keepStack: true, stringBufferSize: 65_536 })
  parser.onValue = ({ value, key, parent, stack }) => {
    if (value === null || typeof value !== 'object' || parent === undefined) return
    const keys = stack.slice(1).map((one) => one.key)
    if (keys.length > DEEPEST_LIST || !keys.every((one) => typeof one === 'string' && !one.includes('.'))) return
    const counts = Array.isArray(parent) ? arrays : keyed
    const path = ['$', ...keys, '*'].join('.')
    counts.set(path, (counts.get(path) ?? 0) + 1)
    // What was counted is let go, so that a large file is not held whole.
    if (typeof key === 'number') (parent as unknown as unknown[]).length = 0
  }
  await parseAll(source, parser, LIST_LOOK)
  return [...(arrays.size > 0 ? arrays : longestOf(keyed))]
    .sort((a, b) => b[1] - a[1])
    .map(([path]) => ({ name: path.slice(2, -2) || 'list', path }))
}

const longestOf = (counts: ReadonlyMap<string, number>): [string, number][] =>
  [...counts].sort((a, b) => b[1] - a[1]).slice(0, 1)

async function firstSign(source: ByteSource): Promise<string> {
  for await (const piece of textOf(source)) {
    const first = piece.trimStart().slice(0, 1)
    if (first !== '') return first
  }
  return ''
}

async function* itemsAt(source: ByteSource, path: string): AsyncGenerator<Item> {
  const parser = new JSONParser({ paths: [path], keepStack: false, stringBufferSize: 65_536 })
  const found: Item[] = []
  parser.onValue = ({ value }) => {
    if (value !== null && typeof value === 'object') found.push(flatItem(value))
    else found.push({ status: 'broken', text: JSON.stringify(value) })
  }
  for await (const _ of parsing(source, parser)) yield* found.splice(0)
}

async function parseAll(source: ByteSource, parser: JSONParser, signs: number): Promise<void> {
  for await (const read of parsing(source, parser)) if (read >= signs) return
}

/** Feeds a parser piece by piece; yields how many signs it has been given. Throws a refusal for what is no JSON. */
async function* parsing(source: ByteSource, parser: JSONParser): AsyncGenerator<number> {
  let failed = false
  let read = 0
  parser.onError = () => {
    failed = true
  }
  for await (const piece of textOf(source)) {
    try {
      parser.write(piece)
    } catch {
      failed = true
    }
    if (failed) throw new FileRefusal('broken-json')
    read += piece.length
    yield read
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
