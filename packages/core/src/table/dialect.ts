export const ENCODINGS = ['utf-8', 'windows-1252'] as const
export type Encoding = (typeof ENCODINGS)[number]
export const DELIMITERS = [',', ';', '\t', '|'] as const

/** How the bytes of a file become cells. */
export interface Dialect {
  readonly encoding: Encoding
  /** One ASCII character. */
  readonly delimiter: string
  /** Length of the byte order mark, in bytes. */
  readonly bom: number
}

export type FileProblem = 'empty-file' | 'binary-file' | 'workbook' | 'utf-16' | 'no-table'

export type HeadJudgement =
  | { readonly status: 'readable'; readonly dialect: Dialect }
  | { readonly status: 'refused'; readonly problem: FileProblem }

/**
 * Judges the first part of a file: is it a table of text, in which encoding, with which delimiter?
 * @param head the first bytes (64 KB or more is plenty; a cut last line is allowed for)
 */
export function judgeHead(head: Uint8Array, wanted: Partial<Dialect> = {}): HeadJudgement {
  if (head.length === 0) return refused('empty-file')
  if (startsWith(head, [0xff, 0xfe]) || startsWith(head, [0xfe, 0xff])) return refused('utf-16')
  if (startsWith(head, [0x50, 0x4b, 3, 4]) || startsWith(head, [0xd0, 0xcf, 0x11, 0xe0])) return refused('workbook')
  if (looksBinary(head)) return refused('binary-file')
  const bom = startsWith(head, [0xef, 0xbb, 0xbf]) ? 3 : 0
  const encoding = wanted.encoding ?? (bom > 0 || isUtf8(head) ? 'utf-8' : 'windows-1252')
  const text = new TextDecoder(encoding).decode(head.subarray(bom))
  if (text.trim() === '') return refused('empty-file')
  return { status: 'readable', dialect: { encoding, delimiter: wanted.delimiter ?? guessDelimiter(text), bom } }
}

const refused = (problem: FileProblem): HeadJudgement => ({ status: 'refused', problem })

const startsWith = (bytes: Uint8Array, start: readonly number[]): boolean => start.every((byte, i) => bytes[i] === byte)

/** A few NUL or control bytes are a damaged row; more than one in fifty, or a known mark, is another kind of file. */
function looksBinary(head: Uint8Array): boolean {
  const marks = [
    [0x25, 0x50, 0x44, 0x46],
    [0x89, 0x50, 0x4e, 0x47],
    [0xff, 0xd8, 0xff],
    [0x1f, 0x8b],
    [0x47, 0x49, 0x46, 0x38],
  ]
  if (marks.some((mark) => startsWith(head, mark))) return true
  let odd = 0
  for (const byte of head) if (byte < 9 || (byte > 13 && byte < 32 && byte !== 27)) odd++
  return odd / head.length > 0.02
}

/** Valid UTF-8, but for a character cut off at the end of the head. */
function isUtf8(head: Uint8Array): boolean {
  for (let cut = 0; cut <= 3; cut++) {
    try {
      new TextDecoder('utf-8', { fatal: true }).decode(head.subarray(0, head.length - cut))
      return true
    } catch {
      // One byte less: the head may end inside a character.
    }
  }
  return false
}

/** The delimiter that cuts the first lines into the same number of cells most often. */
function guessDelimiter(text: string): string {
  const lines = text
    .split(/\r\n|\n|\r/)
    .filter((line) => line.trim() !== '')
    .slice(0, 40)
  let best: { delimiter: string; score: number } = { delimiter: ',', score: 0 }
  for (const delimiter of DELIMITERS) {
    const counts = lines.map((line) => line.replace(/"(?:[^"]|"")*"/g, '').split(delimiter).length - 1)
    const usual = mostFrequent(counts.filter((count) => count > 0))
    const score = usual === 0 ? 0 : counts.filter((count) => count === usual).length + Math.min(usual, 20) / 100
    if (score > best.score) best = { delimiter, score }
  }
  return best.delimiter
}

function mostFrequent(counts: readonly number[]): number {
  const tally = new Map<number, number>()
  for (const count of counts) tally.set(count, (tally.get(count) ?? 0) + 1)
  return [...tally].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 0
}
