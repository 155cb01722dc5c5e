import { type DefaultTreeAdapterTypes, parse } from 'parse5'

type Node = DefaultTreeAdapterTypes.Node
type Element = DefaultTreeAdapterTypes.Element

/** A text that stands by itself on a page: a paragraph, a cell, a caption. Breaks within it are new lines. */
export interface Block {
  readonly text: string
  /** What stands before it and says what it is: the cell to its left, the head of its column, the term of a list. */
  readonly before: string
  /** It is a cell of a table, or of a list of terms. */
  readonly isCell: boolean
}

export interface PageLink {
  readonly href: string
  readonly text: string
}

/** A value that the page itself marks as what it is (schema.org). */
export interface Marked {
  readonly what: string
  readonly value: string
}

/** A page, taken apart. */
export interface Page {
  readonly title: string
  /** Of the document, as `en-GB`; empty where it says none. */
  readonly language: string
  readonly blocks: readonly Block[]
  readonly links: readonly PageLink[]
  /** JSON-LD of the page, each as it was parsed. What is no JSON is left out. */
  readonly data: readonly unknown[]
  /** Microdata, by the name of the property. */
  readonly marked: readonly Marked[]
}

/** Nothing of these is read by people. */
const UNSEEN: ReadonlySet<string> = new Set([
  'script',
  'style',
  'noscript',
  'template',
  'svg',
  'iframe',
  'object',
  'head',
  'select',
  'textarea',
])
/** These stand in a line with what is around them: a number may go through several of them. */
const INLINE: ReadonlySet<string> = new Set(
  'a abbr b bdi bdo cite code data del dfn em font i ins kbd label mark q s samp small span strong sub sup time tt u var wbr'.split(
    ' ',
  ),
)
const CELLS: ReadonlySet<string> = new Set(['td', 'th', 'dd'])
/** So much of a page is read: more text than this no business writes about itself. */
const MOST_TEXT = 2_000_000

/** Takes a page apart. Broken mark-up is read as browsers read it. */
export function readPage(html: string): Page {
  const document = parse(html)
  const collected: Collected = { blocks: [], links: [], data: [], marked: [], title: '', language: '', length: 0 }
  const open: Open = { text: '', before: '', isCell: false }
  walk(document, collected, open)
  endBlock(collected, open)
  const { length: _, ...page } = collected
  return page
}

interface Collected {
  readonly blocks: Block[]
  readonly links: PageLink[]
  readonly data: unknown[]
  readonly marked: Marked[]
  title: string
  language: string
  length: number
}

/** The text that is being gathered. */
interface Open {
  text: string
  before: string
  isCell: boolean
}

function walk(node: Node, page: Collected, open: Open): void {
  if (page.length > MOST_TEXT) return
  if (node.nodeName === '#text') {
    const text = (node as DefaultTreeAdapterTypes.TextNode).value.replace(/[ \t\n\r\f]+/g, ' ')
    open.text += text
    page.length += text.length
    return
  }
  if (!('tagName' in node)) {
    for (const child of childrenOf(node)) walk(child, page, open)
    return
  }
  const element = node as Element
  const name = element.tagName
  if (name === 'html') page.language = attributeOf(element, 'lang')
  if (name === 'head') readHead(element, page)
  if (name === 'script') readData(element, page)
  if (UNSEEN.has(name) || isHidden(element)) return
  readMarked(element, page)
  if (name === 'br') {
    open.text += '\n'
    return
  }
  if (name === 'a') page.links.push({ href: attributeOf(element, 'href'), text: textOf(element) })
  if (INLINE.has(name)) {
    for (const child of childrenOf(element)) walk(child, page, open)
    return
  }
  endBlock(page, open)
  open.isCell = CELLS.has(name)
  open.before = open.isCell ? headOf(element) : ''
  for (const child of childrenOf(element)) walk(child, page, open)
  endBlock(page, open)
}

function endBlock(page: Collected, open: Open): void {
  const text = open.text
    .split('\n')
    .map((line) => line.trim())
    .join('\n')
    .trim()
  if (text !== '') page.blocks.push({ text, before: open.before, isCell: open.isCell })
  open.text = ''
}

const childrenOf = (node: Node): readonly Node[] => ('childNodes' in node ? node.childNodes : [])

const attributeOf = (element: Element, name: string): string =>
  element.attrs.find((attribute) => attribute.name === name)?.value.trim() ?? ''

const hasAttribute = (element: Element, name: string): boolean =>
  element.attrs.some((attribute) => attribute.name === name)

const isHidden = (element: Element): boolean =>
  hasAttribute(element, 'hidden') || /display\s*:\s*none|visibility\s*:\s*hidden/i.test(attributeOf(element, 'style'))

/** All text within, in one line. */
function textOf(node: Node): string {
  if (node.nodeName === '#text') return (node as DefaultTreeAdapterTypes.TextNode).value
  if ('tagName' in node && UNSEEN.has((node as Element).tagName)) return ''
  return childrenOf(node).map(textOf).join('')
}

const plain = (text: string): string => text.replace(/\s+/g, ' ').trim()

function readHead(head: Element, page: Collected): void {
  for (const child of childrenOf(head)) {
    if (!('tagName' in child)) continue
    const element = child as Element
    if (element.tagName === 'title') page.title = plain(textOf(element))
    if (element.tagName === 'script') readData(element, page)
  }
}

function readData(script: Element, page: Collected): void {
  if (!/^application\/ld\+json/i.test(attributeOf(script, 'type'))) return
  const text = childrenOf(script)
    .map((child) => (child.nodeName === '#text' ? (child as DefaultTreeAdapterTypes.TextNode).value : ''))
    .join('')
  try {
    page.data.push(JSON.parse(text))
  } catch {
    // What is no JSON says nothing: the page is read all the same.
  }
}

function readMarked(element: Element, page: Collected): void {
  const what = attributeOf(element, 'itemprop')
  if (what === '') return
  const value = attributeOf(element, 'content') || attributeOf(element, 'href') || plain(textOf(element))
  if (value !== '') page.marked.push({ what, value })
}

/** What a cell is of: the cell to its left, the head of its column, the term it explains. */
function headOf(cell: Element): string {
  const row = cell.parentNode
  if (!row || !('childNodes' in row)) return ''
  const cells = row.childNodes.filter((child): child is Element => 'tagName' in child)
  const at = cells.indexOf(cell)
  if (cell.tagName === 'dd') {
    const term = cells
      .slice(0, at)
      .reverse()
      .find(({ tagName }) => tagName === 'dt')
    return term ? plain(textOf(term)) : ''
  }
  const left = cells[at - 1]
  const head = headOfColumn(row as Element, at)
  return [head, left ? plain(textOf(left)) : ''].filter(Boolean).join(' · ')
}

function headOfColumn(row: Element, at: number): string {
  const table = ancestorOf(row, 'table')
  const first = table && firstRowOf(table)
  if (!first || first === row) return ''
  const cells = first.childNodes.filter((child): child is Element => 'tagName' in child)
  const cell = cells[at]
  return cell?.tagName === 'th' ? plain(textOf(cell)) : ''
}

function ancestorOf(element: Element, name: string): Element | null {
  for (let node = element.parentNode; node; node = 'parentNode' in node ? node.parentNode : null)
    if ('tagName' in node && node.tagName === name) return node
  return null
}

function firstRowOf(node: Element): Element | null {
  for (const child of childrenOf(node)) {
    if (!('tagName' in child)) continue
    const element = child as Element
    if (element.tagName === 'tr') return element
    const within = firstRowOf(element)
    if (within) return within
  }
  return null
}
