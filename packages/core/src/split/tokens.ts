import type { Operator } from './filterTree'

/** A piece of a typed filter, with where it stands. */
export type Token = { readonly at: number; readonly length: number } & (
  | { readonly kind: 'open' | 'close' | 'and' | 'or' | 'not' }
  | { readonly kind: 'word' | 'phrase'; readonly text: string }
  | {
      readonly kind: 'term'
      readonly field: string
      readonly operator: Operator
      readonly value: string
      readonly isQuoted: boolean
    }
)

const SPACE = /\s+/y
/** A number as people write it: its brackets belong to it. */
const DIALLED = /[+\d(][\d()./+-]*\d[\d()./+-]*(?=[\s]|$)/y
const TERM = /([\p{L}][\p{L}\p{N}_-]*|"[^"]+")(!=|>=|<=|[:=<>])("[^"]*"|[^\s()"]*)/uy
const PHRASE = /"([^"]*)"/y
const WORD = /[^\s()]+/y
const MARKS: Readonly<Record<string, 'open' | 'close'>> = { '(': 'open', ')': 'close' }
const JOINS: Readonly<Record<string, 'and' | 'or' | 'not'>> = { and: 'and', or: 'or', not: 'not' }
/** What looks like a field and is the beginning of an address. */
const SCHEMES: ReadonlySet<string> = new Set(['http', 'https', 'mailto', 'tel', 'sip'])

/** Cuts a typed filter into its pieces. */
export function tokensOf(text: string): readonly Token[] {
  const tokens: Token[] = []
  for (let at = 0; at < text.length; ) {
    const space = match(SPACE, text, at)
    if (space) {
      at += space[0].length
      continue
    }
    const token = tokenAt(text, at)
    tokens.push(token)
    at += token.length
  }
  return tokens
}

function tokenAt(text: string, at: number): Token {
  const dialled = match(DIALLED, text, at)
  if (dialled && isBalanced(dialled[0])) return { kind: 'word', text: dialled[0], at, length: dialled[0].length }
  const mark = MARKS[text[at] ?? '']
  if (mark) return { kind: mark, at, length: 1 }
  const term = match(TERM, text, at)
  if (term && !SCHEMES.has(term[1]?.toLowerCase() ?? '')) {
    const [whole, field = '', operator = ':', value = ''] = term
    return {
      kind: 'term',
      field: field.replaceAll('"', ''),
      operator: operator as Operator,
      value: value.replaceAll('"', ''),
      isQuoted: value.startsWith('"'),
      at,
      length: whole.length,
    }
  }
  const phrase = match(PHRASE, text, at)
  if (phrase) return { kind: 'phrase', text: phrase[1] ?? '', at, length: phrase[0].length }
  const [word] = match(WORD, text, at) ?? [text.slice(at, at + 1)]
  const join = JOINS[word.toLowerCase()]
  return join ? { kind: join, at, length: word.length } : { kind: 'word', text: word, at, length: word.length }
}

/** A bracket that has no other half belongs to the filter, not to the number. */
function isBalanced(text: string): boolean {
  let open = 0
  for (const letter of text) {
    if (letter === '(') open++
    else if (letter === ')' && --open < 0) return false
  }
  return open === 0
}

function match(pattern: RegExp, text: string, at: number): RegExpExecArray | null {
  pattern.lastIndex = at
  return pattern.exec(text)
}
