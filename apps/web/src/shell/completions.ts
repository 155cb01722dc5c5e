import { ALL_FIELDS, FUNCTIONS, LEVELS, PRESENT } from '@upper-field/core/split'

/** A way to end what is being typed. */
export interface Completion {
  /** What is shown. */
  readonly text: string
  /** The whole filter with it. */
  readonly whole: string
}

const MOST = 8
const KNOWN: ReadonlyMap<string, readonly string[]> = new Map<string, readonly string[]>([
  ['function', FUNCTIONS],
  ['level', LEVELS],
  ['missing', PRESENT],
  ['has', PRESENT],
])

/**
 * Ways to end the word before the caret: fields that begin so, and values of a field.
 * @param valuesOf values that contacts of the list have, by facet
 * @param columns keys of the list's own columns
 */
export function completionsOf(
  text: string,
  caret: number,
  valuesOf: (field: string) => readonly string[],
  columns: readonly string[] = [],
): readonly Completion[] {
  const word = /[^\s()]*$/.exec(text.slice(0, caret))?.[0] ?? ''
  if (word === '') return []
  const before = text.slice(0, caret - word.length)
  const behind = text.slice(caret)
  // In the middle of a word nothing is ended.
  if (/^[^\s()]/.test(behind)) return []
  const colon = word.indexOf(':')
  if (colon < 0) {
    const lower = word.toLowerCase()
    return [...ALL_FIELDS, ...columns]
      .filter((field) => field.startsWith(lower) && field !== lower)
      .slice(0, MOST)
      .map((field) => ({ text: `${field}:`, whole: `${before}${field}:${behind}` }))
  }
  const field = word.slice(0, colon)
  const typed = word.slice(colon + 1)
  const comma = typed.lastIndexOf(',')
  const last = typed.slice(comma + 1).toLowerCase()
  const kept = word.slice(0, colon + 1 + comma + 1)
  return (KNOWN.get(field) ?? valuesOf(field))
    .filter((value) => value.toLowerCase().startsWith(last) && value.toLowerCase() !== last && !/\s/.test(value))
    .slice(0, MOST)
    .map((value) => ({ text: value, whole: `${before}${kept}${value}${behind}` }))
}
