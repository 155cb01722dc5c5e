import { fold } from '../table'

/** Digits that stand together, and what stands behind them. */
export interface DigitGroup {
  readonly least: number
  readonly most: number
  /** One of ` `, `/`, `-`, `.`, `(` and `)`, or several; empty behind the last. */
  readonly behind: string
}

/** A way of writing numbers that was taught by an example. */
export interface NumberFormat {
  readonly name: string
  /** Whether what is written so is a number to call, or keeps out what only looks like one. */
  readonly takes: boolean
  /** ISO 3166-1 alpha-2: on pages of this country, and read from there. Null for pages of any. */
  readonly country: string | null
  readonly startsWithPlus: boolean
  readonly groups: readonly DigitGroup[]
  /** Words, folded, one of which stands among the last before it. Empty where none is asked for. */
  readonly after: readonly string[]
  /** Words none of which stands there. */
  readonly notAfter: readonly string[]
}

/** Something that may be a number, with what stands before it. */
export interface Written {
  readonly raw: string
  readonly before: string
}

/** So many words before a number are looked at. */
const NEAR = 4
/** A group may be one digit shorter or longer than in the example: lines of one place differ by as much. */
const SLACK = 1
/** Shorter words stand before anything. */
const FEWEST_LETTERS = 4

/** The format an example follows: its groups of digits, what stands between them, and the words before it. */
export function formatOfExample(
  example: Written,
  { name, takes, country }: Pick<NumberFormat, 'name' | 'takes' | 'country'>,
): NumberFormat {
  return {
    name,
    takes,
    country,
    startsWithPlus: example.raw.trim().startsWith('+'),
    groups: groupsOf(example.raw).map(({ digits, behind }) => ({
      least: Math.max(1, digits.length - SLACK),
      most: digits.length + SLACK,
      behind,
    })),
    after: wordsBefore(example.before).filter((word) => word.length >= FEWEST_LETTERS),
    notAfter: [],
  }
}

/** True where something is written in a format, on a page of a country. */
export function isWrittenIn({ raw, before }: Written, country: string | null, format: NumberFormat): boolean {
  if (format.country !== null && country !== null && format.country !== country) return false
  if (raw.trim().startsWith('+') !== format.startsWithPlus) return false
  const groups = groupsOf(raw)
  if (groups.length !== format.groups.length) return false
  const isShaped = groups.every(({ digits, behind }, at) => {
    const wanted = format.groups[at]
    return wanted && digits.length >= wanted.least && digits.length <= wanted.most && behind === wanted.behind
  })
  if (!isShaped) return false
  const words = wordsBefore(before)
  if (format.notAfter.some((word) => words.includes(word))) return false
  return format.after.length === 0 || format.after.some((word) => words.includes(word))
}

/** The format something is written in; one that keeps out counts before one that takes. Null for none. */
export function formatOf(
  written: Written,
  country: string | null,
  formats: readonly NumberFormat[],
): NumberFormat | null {
  const all = formats.filter((format) => isWrittenIn(written, country, format))
  return all.find(({ takes }) => !takes) ?? all[0] ?? null
}

interface Group {
  readonly digits: string
  readonly behind: string
}

/** Digits in their groups. White space of any kind and width is one space; dashes are one dash. */
function groupsOf(raw: string): readonly Group[] {
  const plain = raw
    .replace(/^[^\d]+/, '')
    .replace(/[\u2010-\u2015]/g, '-')
    .replace(/\s+/g, ' ')
  const found = [...plain.matchAll(/(\d+)([^\d]*)/g)]
  return found.map(([, digits = '', behind = ''], at) => ({
    digits,
    behind: at === found.length - 1 ? '' : separator(behind),
  }))
}

/** Spaces around a sign are a matter of taste. */
const separator = (behind: string): string => behind.trim() || ' '

/** The last words before something, folded, without numbers. */
export const wordsBefore = (before: string): readonly string[] =>
  fold(before)
    .split(/[^\p{L}\p{N}]+/u)
    .filter((word) => word !== '' && !/^\d+$/.test(word))
    .slice(-NEAR)
