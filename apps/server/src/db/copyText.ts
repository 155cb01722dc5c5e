export type CopyValue = string | number | boolean | null | readonly string[] | Buffer
export type CopyLine = readonly CopyValue[]

/** In bytes, what lines of a page need; and what is kept of a place that had to be larger. */
const [ROOM, MOST_KEPT] = [1 << 20, 8 << 20]
/** Lines are written one behind the other in the same place: how many bytes they are is known once all stand there. */
let room = Buffer.allocUnsafeSlow(ROOM)
/** A letter of JavaScript's takes three bytes at most. */
const LETTER = 3

/** Values as lines of COPY's text format. Source: PostgreSQL's manual, COPY, "Text Format". */
export function copyText(lines: readonly CopyLine[]): Buffer {
  let end = 0
  for (const line of lines) end = put(copyLine(line), end)
  const bytes = Buffer.allocUnsafeSlow(end)
  room.copy(bytes, 0, 0, end)
  if (room.length > MOST_KEPT) room = Buffer.allocUnsafeSlow(ROOM)
  return bytes
}

/** @returns where it ends */
function put(text: string, at: number): number {
  const needed = at + text.length * LETTER
  if (needed > room.length) {
    const larger = Buffer.allocUnsafeSlow(Math.max(room.length * 2, needed))
    room.copy(larger, 0, 0, at)
    room = larger
  }
  return at + room.write(text, at)
}

function copyLine(values: CopyLine): string {
  let line = ''
  for (let i = 0; i < values.length; i++) {
    if (i > 0) line += '\t'
    line += valueText(values[i] ?? null)
  }
  return `${line}\n`
}

function valueText(value: CopyValue): string {
  if (value === null) return '\\N'
  if (typeof value === 'string') return escapeText(value)
  if (typeof value === 'number') return String(value)
  if (typeof value === 'boolean') return value ? 't' : 'f'
  if (Buffer.isBuffer(value)) return `\\\\x${value.toString('hex')}`
  return escapeText(arrayText(value as readonly string[]))
}

const SPECIAL = /[\\\t\n\r]/
const SPECIALS = /[\\\t\n\r]/g
const ESCAPES: Readonly<Record<string, string>> = { '\\': '\\\\', '\t': '\\t', '\n': '\\n', '\r': '\\r' }
// Few texts hold a sign of COPY's own: to look costs half of what replacing does.
const escapeText = (text: string): string =>
  SPECIAL.test(text) ? text.replace(SPECIALS, (char) => ESCAPES[char] ?? char) : text

const arrayText = (items: readonly string[]): string =>
  `{${items.map((item) => `"${item.replace(/["\\]/g, '\\$&')}"`).join(',')}}`
