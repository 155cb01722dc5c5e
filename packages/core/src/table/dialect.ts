import type { Encoding } from './encodings'

/** How the bytes of a text become cells. */
export interface Dialect {
  readonly encoding: Encoding
  /** One character. */
  readonly delimiter: string
  /** Length of the byte order mark, in bytes. */
  readonly bom: number
}

export const DELIMITERS = [',', ';', '\t', '|'] as const
/** Tried only where none of the usual ones cuts the lines evenly. */
const RARE = [':', '~', '^', '#', '!', '$', '%', '&', '*', '\u00a7', '\u001f', '\u0001']
const LINES = 60

export interface DelimiterJudgement {
  readonly delimiter: string
  readonly evidence: 'stated' | 'even' | 'mostly-even' | 'one-column'
}

/** The delimiter that cuts the first lines of a text into the same number of cells most often. */
export function judgeDelimiter(text: string): DelimiterJudgement {
  const stated = /^sep=(.)\r?\n/i.exec(text)?.[1]
  if (stated) return { delimiter: stated, evidence: 'stated' }
  const lines = linesOf(text)
  const usual = best(DELIMITERS, lines)
  if (usual.share > 0.5) return { delimiter: usual.delimiter, evidence: usual.share > 0.95 ? 'even' : 'mostly-even' }
  // What stands in addresses and times cuts nothing.
  const bare = lines.map((line) => line.replace(/\b[a-z]{3,6}:\/\/\S+|\b\d{1,2}:\d{2}/gi, ''))
  const rare = best(RARE, bare)
  if (lines.length > 2 && rare.share > 0.9) return { delimiter: rare.delimiter, evidence: 'even' }
  if (usual.share > 0) return { delimiter: usual.delimiter, evidence: 'mostly-even' }
  return { delimiter: ',', evidence: 'one-column' }
}

/** Lines without what stands in quotes; a quoted line break does not end a line. */
function linesOf(text: string): string[] {
  const head = text.slice(0, 200_000)
  const lines = unquoted(head)
  return (lines.length < 3 ? head.split(/\r\n|\n|\r/) : lines).filter((line) => line.trim() !== '').slice(0, LINES)
}

const unquoted = (text: string): string[] => text.replace(/"(?:[^"]|"")*"/g, 'Q').split(/\r\n|\n|\r/)

function best(delimiters: readonly string[], lines: readonly string[]): { delimiter: string; share: number } {
  let found = { delimiter: delimiters[0] ?? ',', share: 0, score: 0 }
  for (const delimiter of delimiters) {
    const counts = lines.map((line) => line.split(delimiter).length - 1)
    const usual = mostFrequent(counts.filter((count) => count > 0))
    if (usual === 0) continue
    const share = counts.filter((count) => count === usual).length / lines.length
    const score = share + Math.min(usual, 20) / 100
    if (score > found.score) found = { delimiter, share, score }
  }
  return found
}

function mostFrequent(counts: readonly number[]): number {
  const tally = new Map<number, number>()
  for (const count of counts) tally.set(count, (tally.get(count) ?? 0) + 1)
  return [...tally].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 0
}
