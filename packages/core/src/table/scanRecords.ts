/** Longest cell that is taken as a value; a longer one is cut. In characters. */
export const LONGEST_CELL = 65_536
/** A quoted cell that is still open after so many bytes was never closed. */
const LONGEST_QUOTED = 1 << 20
/** A line without an end is cut here, so that memory stays bounded. */
const LONGEST_RECORD = 8 << 20

export type RecordProblem = 'open-quote' | 'row-too-long'

/** One record as a slice of the scanned bytes; its line end is not part of it. */
export interface ScannedRecord {
  readonly start: number
  readonly end: number
  readonly problem: RecordProblem | null
}

export interface Scan {
  readonly records: readonly ScannedRecord[]
  /** Bytes that were used up. The rest belongs to a record whose end has not arrived yet. */
  readonly consumed: number
}

const QUOTE = 0x22
const LF = 0x0a
const CR = 0x0d

/**
 * Finds the records (RFC 4180, leniently) in a piece of a file, on bytes, for encodings that keep ASCII in place.
 * A quote that is never closed costs its own line only: the line is marked and reading goes on behind it.
 * @param bytes a piece that starts at the start of a record
 * @param isLast true where the file ends with this piece
 * @param limit stop after so many records
 */
export function scanRecords(
  bytes: Uint8Array,
  { delimiter, isLast, limit = Number.POSITIVE_INFINITY }: { delimiter: string; isLast: boolean; limit?: number },
): Scan {
  const comma = delimiter.charCodeAt(0)
  const records: ScannedRecord[] = []
  let at = 0
  while (at < bytes.length && records.length < limit) {
    const found = findEnd(bytes, at, comma, isLast)
    if (found === null) break
    records.push({ start: at, end: found.end, problem: found.problem })
    at = found.next
  }
  return { records, consumed: at }
}

interface RecordEnd {
  readonly end: number
  readonly next: number
  readonly problem: RecordProblem | null
}

/** Where the record that starts here ends; null where more bytes are needed to tell. */
function findEnd(bytes: Uint8Array, start: number, comma: number, isLast: boolean): RecordEnd | null {
  let at = start
  let isCellStart = true
  while (at < bytes.length) {
    const byte = bytes[at]
    if (byte === LF || byte === CR) return lineEnd(bytes, at, isLast)
    if (byte === QUOTE && isCellStart) {
      const close = findClosingQuote(bytes, at, comma)
      if (close === 'broken' || (close === 'open' && (isLast || bytes.length - start > LONGEST_QUOTED))) {
        return brokenLine(bytes, start, isLast)
      }
      if (close === 'open') return null
      at = close
      isCellStart = false
      continue
    }
    isCellStart = byte === comma
    at++
    if (at - start >= LONGEST_RECORD) return { end: at, next: at, problem: 'row-too-long' }
  }
  return isLast ? { end: bytes.length, next: bytes.length, problem: null } : null
}

function lineEnd(bytes: Uint8Array, at: number, isLast: boolean): RecordEnd | null {
  if (bytes[at] === LF) return { end: at, next: at + 1, problem: null }
  if (at + 1 >= bytes.length && !isLast) return null
  return { end: at, next: bytes[at + 1] === LF ? at + 2 : at + 1, problem: null }
}

/**
 * The place behind the quote that closes the cell opened at `open`. A cell that runs over lines and is followed by
 * neither a delimiter nor a line end was opened by mistake: 'broken'.
 */
function findClosingQuote(bytes: Uint8Array, open: number, comma: number): number | 'open' | 'broken' {
  let hasLineBreak = false
  for (let at = open + 1; at < bytes.length; at++) {
    const byte = bytes[at]
    if (byte === LF) hasLineBreak = true
    if (at - open > LONGEST_QUOTED) return 'broken'
    if (byte !== QUOTE) continue
    const next = bytes[at + 1]
    if (next === QUOTE) {
      at++
      continue
    }
    const isClosed = next === undefined || next === comma || next === LF || next === CR || next === 0x20
    return isClosed || !hasLineBreak ? at + 1 : 'broken'
  }
  return 'open'
}

/** The first line of a record whose quote is never closed, set apart. */
function brokenLine(bytes: Uint8Array, start: number, isLast: boolean): RecordEnd {
  let at = start
  while (at < bytes.length && bytes[at] !== LF && bytes[at] !== CR && at - start < LONGEST_RECORD) at++
  const end = lineEnd(bytes, at, true) ?? { end: at, next: at, problem: null }
  const isLong = end.end - start > LONGEST_CELL
  return {
    end: end.end,
    next: Math.min(end.next, bytes.length),
    problem: isLong && !isLast ? 'row-too-long' : 'open-quote',
  }
}
