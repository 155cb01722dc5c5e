import { remember } from '../remember'
import { DIGITS, START, ZERO } from './engine/digits'
import { labelOfWords } from './labels'
import { recogniseOtherThing } from './otherThings'
import { endsInDashTail } from './sharedStem'
import type { NumberLabel, Repair } from './types'

/** What stands in a cell that holds one number, or two with a slash between them. Its digits are in the buffer. */
export interface ScannedCell {
  /** Where the digits end in the buffer, without those of the extension. */
  to: number
  hasPlus: boolean
  label: NumberLabel | null
  extension: string | null
  /** What was mended before the digits were read. */
  repairs: readonly Repair[]
  /** Where its number starts in the cell. */
  start: number
  /** Letters that look like digits stand among them. */
  hasLookalikes: boolean
  /** Where in the cell a plus stands with nothing but digits behind it, up to the end of the number; else -1. */
  written: number
  /** Where the cell may be two numbers: position of a slash, or -1. */
  slash: number
}

/** The cell that was scanned last. */
export const scanned: ScannedCell = {
  to: START,
  hasPlus: false,
  label: null,
  extension: null,
  repairs: [],
  start: 0,
  hasLookalikes: false,
  written: -1,
  slash: -1,
}

const SPACE = 0x20
const APOSTROPHE = 0x27
const OPEN = 0x28
const CLOSE = 0x29
const PLUS = 0x2b
const DASH = 0x2d
const DOT = 0x2e
const SLASH = 0x2f
const LONGEST = 48
/** Most digits in which two numbers of one stem differ, with a sign beside them. */
const LONGEST_TAIL = 5
/** Most digits behind a dash that may be another ending. */
const MOST_BEHIND_DASH = 3
const LONGEST_WORD = 16

const APOSTROPHE_REPAIR: readonly Repair[] = ['apostrophe']
const LABEL_REPAIR: readonly Repair[] = ['label-taken-off']
const TAIL_REPAIR: readonly Repair[] = ['decimal-tail']
const NONE: readonly Repair[] = []

/**
 * Looks at a cell once, character by character, and takes off what stands around its digits.
 * What it finds is left in `scanned`.
 * @param from where the cell starts in the text, and `until` where it ends
 * @returns false for every cell that needs a closer look
 */
export function scanCell(raw: string, from = 0, until = raw.length): boolean {
  if (until - from > LONGEST) return false
  let start = from
  let end = until
  for (let code = raw.charCodeAt(start); start < end && (code === SPACE || code === DASH); )
    code = raw.charCodeAt(++start)
  for (let code = raw.charCodeAt(end - 1); end > start && (code === SPACE || code === DOT); )
    code = raw.charCodeAt(--end - 1)
  if (end - start < LEAST) return false
  if (raw.charCodeAt(start) === APOSTROPHE) return scanQuoted(raw, start + 1, end)
  if (beginsNumber(raw.charCodeAt(start)) && isAsciiDigit(raw.charCodeAt(end - 1))) {
    scanned.label = null
    scanned.repairs = NONE
    return scanDigits(raw, start, end, true)
  }
  const first = findFirst(raw, start, end)
  if (first === -1 || first - start > LONGEST_WORD) return false
  const before = first === start ? PLAIN_FRONT : frontOf(raw.slice(start, first))
  if (before === null) return false
  const last = findLast(raw, end)
  if (end - last > LONGEST_WORD) return false
  const behind = last + 1 === end || isClosed(raw, last, end) ? PLAIN_BACK : backOf(raw.slice(last + 1, end))
  if (behind === null || (before !== PLAIN_FRONT && behind !== PLAIN_BACK)) return false
  scanned.label = before.label ?? behind.label
  scanned.repairs = before.isLabel || behind.isLabel ? LABEL_REPAIR : NONE
  return scanDigits(raw, first, behind === PLAIN_BACK ? end : last + 1, before === PLAIN_FRONT && behind === PLAIN_BACK)
}

/** A cell behind an apostrophe that a spreadsheet put there: nothing but digits, with a plus perhaps. */
function scanQuoted(raw: string, start: number, end: number): boolean {
  for (let i = start; i < end; i++) {
    const code = raw.charCodeAt(i)
    if (!(code >= 48 && code <= 57) && !(code === PLUS && i === start)) return false
  }
  scanned.label = null
  scanned.repairs = APOSTROPHE_REPAIR
  return scanDigits(raw, start, end, false)
}

function scanDigits(raw: string, start: number, end: number, isBare: boolean): boolean {
  const digits = DIGITS
  let to = START
  let marks = 0
  let dots = 0
  let previous = 0
  let hasPlus = false
  let hasLookalikes = false
  let slash = -1
  let dash = -1
  scanned.extension = null
  scanned.written = -1
  let first = start
  for (; raw.charCodeAt(first) === PLUS; first++) {
    hasPlus = true
    previous = PLUS
  }
  // Most of what stands in a cell is digits: they are taken first, without a question.
  for (; first < end; first++) {
    const code = raw.charCodeAt(first)
    if (!isAsciiDigit(code)) break
    digits[to++] = code
    previous = code
  }
  if (first === end && hasPlus) scanned.written = first - (to - START) - 1
  let i = first
  for (; i < end; i++) {
    const code = raw.charCodeAt(i)
    if (isAsciiDigit(code)) {
      digits[to++] = code
      previous = code
      continue
    }
    const digit = code < 0x80 ? -1 : digitValue(code)
    if (digit !== -1) {
      digits[to++] = ZERO + digit
      previous = ZERO
      continue
    }
    const sign = code < 0x80 ? code : isWideSpace(code) ? SPACE : code
    if (sign === OPEN || sign === CLOSE) {
      // A bracket counts for nothing.
    } else if (sign === PLUS && to === START && !hasPlus) {
      hasPlus = true
    } else if (sign === SPACE || sign === DASH || sign === DOT) {
      // Two signs in a row may part two numbers, or mean something else.
      if (previous === SPACE || previous === DASH || previous === DOT || i === start) return false
      if (sign !== SPACE) marks++
      if (sign === DOT) dots++
      if (sign === DASH) dash = to
    } else if (sign === SLASH && slash === -1 && to > START + 5) {
      slash = i
      previous = SLASH
      continue
    } else if (isBare && isLookalike(code)) {
      // Three letters in a row may be keys of a keypad.
      const next = i + 1 < end ? raw.charCodeAt(i + 1) : ZERO
      const isWord = i + 2 < end && isLookalike(next) && isLookalike(raw.charCodeAt(i + 2))
      if (isWord || previous === SPACE || next === SPACE) return false
      hasLookalikes = true
      digits[to++] = code === UPPER_O || code === LOWER_O ? ZERO : ZERO + 1
      previous = code
      continue
    } else if (to >= START + LEAST && isBare && slash === -1 && !hasLookalikes) {
      scanned.extension = extensionOf(raw.slice(i, end))
      if (scanned.extension === null) return false
      break
    } else return false
    previous = sign
  }
  if (hasLookalikes && (marks > 0 || scanned.repairs !== NONE || slash !== -1)) return false
  if (dots === 1 && scanned.extension === null && isDecimalTail(raw, end)) {
    if (marks > 1 || !isBare || hasLookalikes || slash !== -1 || !isOneRun(raw, start, end)) return false
    to -= end - raw.lastIndexOf('.', end) - 1
    scanned.repairs = TAIL_REPAIR
    marks = 0
  }
  // A short tail behind a slash may be another ending of the same number.
  if (slash !== -1 && end - slash <= LONGEST_TAIL + 1) return false
  if (dash !== -1 && to - dash <= MOST_BEHIND_DASH && endsInDashTail(raw.slice(start, i).trimEnd())) return false
  scanned.to = to
  scanned.start = start
  scanned.hasPlus = hasPlus
  scanned.hasLookalikes = hasLookalikes
  scanned.slash = slash
  // Dates have eight digits at most, addresses of machines three dots.
  return !(marks > 0 && (to - START <= 8 || dots === 3) && recogniseOtherThing(raw.slice(start, end).trim()) !== null)
}

/** How many digits of the cell that was scanned stand before the first sign between them. */
export function digitsInFront(raw: string): number {
  let count = 0
  for (let i = scanned.start; i < raw.length; i++) {
    const code = raw.charCodeAt(i)
    if (isDigit(code) || isLookalike(code)) count++
    else if (count > 0) break
  }
  return count
}

const LEAST = 7
const UPPER_O = 0x4f
const LOWER_O = 0x6f
const UPPER_I = 0x49
const LOWER_L = 0x6c

const isLookalike = (code: number): boolean =>
  code === UPPER_O || code === LOWER_O || code === UPPER_I || code === LOWER_L

/** `.0`, `.00` at the end. */
function isDecimalTail(raw: string, end: number): boolean {
  let at = end - 1
  while (at > 0 && raw.charCodeAt(at) === 48) at--
  return at < end - 1 && raw.charCodeAt(at) === DOT
}

/** Nothing but digits, a plus in front and the dot of the tail, six digits at least before it. */
const isOneRun = (raw: string, start: number, end: number): boolean => /^\+?\d{6,}\.0+$/.test(raw.slice(start, end))

/** Spaces of other widths that stand in numbers: no-break, figure, thin, narrow no-break. */
const isWideSpace = (code: number): boolean => code === 0xa0 || code === 0x2007 || code === 0x2009 || code === 0x202f

/** Value of a full-width, Arabic-Indic or Persian digit; -1 for everything else. */
function digitValue(code: number): number {
  if (code >= 0xff10 && code <= 0xff19) return code - 0xff10
  if (code >= 0x0660 && code <= 0x0669) return code - 0x0660
  if (code >= 0x06f0 && code <= 0x06f9) return code - 0x06f0
  return -1
}

const isAsciiDigit = (code: number): boolean => code >= 48 && code <= 57

const beginsNumber = (code: number): boolean => isAsciiDigit(code) || code === PLUS || code === OPEN

const isDigit = (code: number): boolean => (code >= 48 && code <= 57) || (code >= 0x80 && digitValue(code) !== -1)

/** Position of the first character that can begin a number; -1 where there is none. */
function findFirst(raw: string, start: number, end: number): number {
  for (let i = start; i < end; i++) {
    const code = raw.charCodeAt(i)
    if (beginsNumber(code) || isDigit(code)) return i
    // A letter O right before digits is one of them.
    if (isLookalike(code) && i === start && i + 1 < end && isDigit(raw.charCodeAt(i + 1))) return i
  }
  return -1
}

function findLast(raw: string, end: number): number {
  let at = end - 1
  while (at >= 0 && !isDigit(raw.charCodeAt(at))) at--
  return at
}

const isClosed = (raw: string, last: number, end: number): boolean =>
  last + 2 === end && raw.charCodeAt(last + 1) === CLOSE

interface Word {
  readonly label: NumberLabel | null
  /** A word that is named as taken off; the scheme of a URI is none. */
  readonly isLabel: boolean
}

const PLAIN_FRONT: Word = { label: null, isLabel: false }
const PLAIN_BACK: Word = { label: null, isLabel: false }
const URI: Word = { label: null, isLabel: false }

/** Words, and signs that mean nothing between a word and a number. */
const AROUND = /^[\p{L}\p{M} .:()[\]=-]*$/u

/** What stands before the digits: a label, the scheme of a URI, or null for what needs a closer look. */
const frontOf = remember((text: string): Word | null => {
  if (text.toLowerCase() === 'tel:') return URI
  return wordAround(text)
}, 1000)

/** What stands behind the digits: a label, or null. */
const backOf = remember((text: string): Word | null => wordAround(text), 1000)

function wordAround(text: string): Word | null {
  if (!AROUND.test(text)) return null
  const label = labelOfWords(text)
  return label === null ? null : { label, isLabel: true }
}

/** The digits of an extension; null where the text is none. */
function extensionOf(text: string): string | null {
  return /^(?:ext|extension|extn|x)\.?:? ?(\d{1,7})$/.exec(text)?.[1] ?? null
}
