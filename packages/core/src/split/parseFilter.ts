import { columnKey } from '../table'
import {
  ALL_FIELDS,
  AMOUNT_FIELDS,
  DATE_FIELDS,
  FILTER_FIELDS,
  type Filter,
  type FilterField,
  type FilterIssue,
  type FilterNode,
  PRESENCE_FIELDS,
  PRESENT,
  type Term,
} from './filterTree'
import { nearestOf } from './nearest'
import { type Token, tokensOf } from './tokens'

/** Keys of the list's own columns; `any` where they are not known: then every name that is no field is one. */
export type Columns = ReadonlySet<string> | 'any'
const NO_COLUMNS: Columns = new Set()

const isOneOf = <T extends string>(all: readonly T[], word: string): word is T =>
  (all as readonly string[]).includes(word)

/**
 * Reads a typed filter: facets and fields with values, words and phrases, `and`, `or`, `not` and brackets. What cannot
 * be read is reported with its place, and searched for as words, so that nothing is met by everybody in silence.
 */
export function parseFilter(
  text: string,
  columns: Columns = NO_COLUMNS,
): { readonly filter: Filter; readonly issues: readonly FilterIssue[] } {
  const issues: FilterIssue[] = []
  const tokens = tokensOf(text)
  const tree = readTree(tokens, issues, columns) ?? { kind: 'words', text: plainWords(tokens) }
  return { filter: asFilter(tree), issues }
}

/** A tree as facets, words and the rest: all of it holds together. */
function asFilter(tree: FilterNode): Filter {
  const piles: Partial<Record<FilterField, string[]>> = {}
  const words: string[] = []
  const rest: FilterNode[] = []
  for (const node of tree.kind === 'and' ? tree.of : [tree]) {
    if (node.kind === 'words') words.push(node.text)
    else if (node.kind === 'term' && node.operator === ':' && isOneOf(FILTER_FIELDS, node.field))
      piles[node.field] = [...new Set([...(piles[node.field] ?? []), ...node.values])]
    else rest.push(node)
  }
  return { piles, words: words.filter(Boolean).join(' '), rest }
}

/** What was typed as words, without its brackets, where they do not fit together: it must not mean everybody. */
const plainWords = (tokens: readonly Token[]): string => tokens.map(wordOf).filter(Boolean).join(' ')

function wordOf(token: Token): string {
  if (token.kind === 'open' || token.kind === 'close') return ''
  if (token.kind === 'term') return `${token.field}${token.operator}${token.value}`
  return 'text' in token ? token.text : token.kind
}

/** A place in the pieces of a filter. */
interface Place {
  readonly tokens: readonly Token[]
  readonly issues: FilterIssue[]
  readonly columns: Columns
  at: number
}

/** The tree of a filter; null where its brackets or joins do not fit together, which is reported. */
function readTree(tokens: readonly Token[], issues: FilterIssue[], columns: Columns): FilterNode | null {
  if (tokens.length === 0) return { kind: 'words', text: '' }
  const place: Place = { tokens, issues, columns, at: 0 }
  const tree = readEither(place)
  const left = tokens[place.at]
  if (left) {
    if (tree !== null) report(place, left, 'unbalanced')
    return null
  }
  return tree
}

function readEither(place: Place): FilterNode | null {
  const first = readAll(place)
  if (first === null) return null
  const of = [first]
  while (place.tokens[place.at]?.kind === 'or') {
    place.at++
    const next = readAll(place)
    if (next === null) return null
    of.push(next)
  }
  return of.length === 1 ? first : { kind: 'or', of }
}

function readAll(place: Place): FilterNode | null {
  const of: FilterNode[] = []
  for (;;) {
    const token = place.tokens[place.at]
    if (token?.kind === 'and' && of.length > 0) {
      place.at++
      if (isEnd(place.tokens[place.at])) return incomplete(place, token)
      continue
    }
    if (isEnd(token)) break
    const node = readOne(place)
    if (node === null) return null
    of.push(node)
  }
  const last = place.tokens[place.at] ?? place.tokens[place.at - 1]
  if (of.length === 0) return last ? incomplete(place, last) : null
  return joined(of)
}

const isEnd = (token: Token | undefined): boolean =>
  token === undefined || token.kind === 'close' || token.kind === 'or'

/** Words side by side are looked for together. */
function joined(of: readonly FilterNode[]): FilterNode {
  const flat = of.flatMap((node) => (node.kind === 'and' ? node.of : node))
  const words = flat.flatMap((node) => (node.kind === 'words' ? node.text : []))
  const others = flat.filter(({ kind }) => kind !== 'words')
  const all: FilterNode[] = words.length > 0 ? [...others, { kind: 'words', text: words.join(' ') }] : others
  const [only] = all
  return all.length === 1 && only ? only : { kind: 'and', of: all }
}

function readOne(place: Place): FilterNode | null {
  const token = place.tokens[place.at++]
  if (!token) return null
  switch (token.kind) {
    case 'word':
      return { kind: 'words', text: token.text }
    case 'phrase':
      return token.text.trim() === '' ? { kind: 'words', text: '' } : { kind: 'phrase', text: token.text }
    case 'term':
      return readTerm(place, token)
    case 'not': {
      if (isEnd(place.tokens[place.at])) return incomplete(place, token)
      const node = readOne(place)
      return node && { kind: 'not', of: node }
    }
    case 'open': {
      const node = readEither(place)
      if (node === null) return null
      if (place.tokens[place.at]?.kind !== 'close') {
        report(place, token, 'unbalanced')
        return null
      }
      place.at++
      return node
    }
    default:
      return incomplete(place, token)
  }
}

function incomplete(place: Place, token: Token): null {
  report(place, token, token.kind === 'close' ? 'unbalanced' : 'incomplete')
  return null
}

type TermToken = Extract<Token, { kind: 'term' }>

function readTerm(place: Place, token: TermToken): FilterNode {
  const asWords: FilterNode = { kind: 'words', text: `${token.field}${token.operator}${token.value}` }
  const field = token.field.toLowerCase()
  const values = (token.isQuoted ? [token.value] : token.value.split(',')).filter(Boolean)
  if (!isOneOf(ALL_FIELDS, field)) {
    const column = columnKey(field)
    if (values.length > 0 && (place.columns === 'any' || place.columns.has(column)))
      return { kind: 'column', column, operator: token.operator, values }
    const known = place.columns === 'any' ? ALL_FIELDS : [...ALL_FIELDS, ...place.columns]
    report(place, token, values.length > 0 ? 'unknown-field' : 'incomplete', token.field, nearestOf(field, known))
    return asWords
  }
  if (values.length === 0) {
    report(place, token, 'incomplete')
    return asWords
  }
  const facet = isOneOf(FILTER_FIELDS, field)
  const term: Term = {
    kind: 'term',
    field,
    operator: token.operator,
    values: facet && token.isQuoted ? values.flatMap((one) => one.split(',')) : values,
  }
  return isSound(place, token, term) ? term : asWords
}

/** True where a field can be compared so, and its values are what it is compared with. */
function isSound(place: Place, token: TermToken, { field, operator, values }: Term): boolean {
  const isOrdered = isOneOf(DATE_FIELDS, field) || isOneOf(AMOUNT_FIELDS, field)
  if (!isOrdered && !ANYWHERE.has(operator)) return report(place, token, 'no-order')
  const parts = isOrdered ? values.flatMap((value) => value.split('..')).filter(Boolean) : []
  if (isOneOf(AMOUNT_FIELDS, field)) {
    const wrong = parts.find((part) => !/^-?\d+(?:\.\d+)?$/.test(part))
    if (wrong !== undefined || parts.length === 0) return report(place, token, 'no-number', wrong ?? '')
  }
  if (isOneOf(DATE_FIELDS, field)) {
    const wrong = parts.find((part) => !/^\d{4}(?:-\d\d(?:-\d\d)?)?$/.test(part))
    if (wrong !== undefined || parts.length === 0) return report(place, token, 'no-date', wrong ?? '')
  }
  if (isOneOf(PRESENCE_FIELDS, field)) {
    const isKnown = (value: string) =>
      isOneOf(PRESENT, value) || place.columns === 'any' || place.columns.has(columnKey(value))
    const wrong = values.find((value) => !isKnown(value))
    if (wrong !== undefined) {
      const known = place.columns === 'any' ? PRESENT : [...PRESENT, ...place.columns]
      return report(place, token, 'unknown-value', wrong, nearestOf(wrong, known))
    }
  }
  return true
}

/** Comparing these makes sense for whatever there is. */
const ANYWHERE: ReadonlySet<Term['operator']> = new Set([':', '=', '!='])

function report(
  { issues }: Place,
  token: Token,
  code: FilterIssue['code'],
  word?: string,
  nearest: string | null = null,
): false {
  const own = 'field' in token ? token.field : 'text' in token ? token.text : ''
  issues.push({ code, at: token.at, length: token.length, word: word ?? own, nearest })
  return false
}

/** The text that reads back as the same filter. */
export function writeFilter({ piles, words, rest }: Filter): string {
  const terms = FILTER_FIELDS.flatMap((field) => {
    const values = piles[field]
    return values?.length ? [writeTerm({ field, operator: ':', values })] : []
  })
  return [...terms, ...rest.map((node) => writeNode(node, rest.length + terms.length > 1 || words !== '')), words]
    .filter(Boolean)
    .join(' ')
}

function writeTerm({
  field,
  operator,
  values,
}: Pick<Term, 'operator' | 'values'> & { readonly field: string }): string {
  const text = values.join(',')
  return `${field}${operator}${/[\s()]/.test(text) ? `"${text}"` : text}`
}

/** @param isInner written within others: what is looser than they are needs brackets */
function writeNode(node: FilterNode, isInner: boolean): string {
  switch (node.kind) {
    case 'term':
      return writeTerm(node)
    case 'column':
      return writeTerm({ field: node.column, operator: node.operator, values: node.values })
    case 'words':
      return node.text
    case 'phrase':
      return `"${node.text}"`
    case 'not':
      return `not ${bracketed(node.of, node.of.kind === 'and' || node.of.kind === 'or' || isSeveral(node.of))}`
    case 'and':
    case 'or': {
      const text = node.of
        .map((one) =>
          one.kind === 'or' || (node.kind === 'or' && one.kind === 'not') ? bracketed(one, true) : writeNode(one, true),
        )
        .join(node.kind === 'or' ? ' or ' : ' ')
      return isInner && node.kind === 'or' ? `(${text})` : text
    }
  }
}

const isSeveral = (node: FilterNode): boolean => node.kind === 'words' && /\s/.test(node.text)

const bracketed = (node: FilterNode, isNeeded: boolean): string =>
  isNeeded ? `(${writeNode(node, false)})` : writeNode(node, true)

/** The filter with one pile switched on or off. */
export function togglePile(filter: Filter, field: FilterField, value: string): Filter {
  const values = filter.piles[field] ?? []
  const next = values.includes(value) ? values.filter((other) => other !== value) : [...values, value]
  return { ...filter, piles: { ...filter.piles, [field]: next } }
}
