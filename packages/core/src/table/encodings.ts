import chardet from 'chardet'

/** Encodings that can be read; names are the labels of the WHATWG Encoding Standard. */
export const ENCODINGS = [
  'utf-8',
  'utf-16le',
  'utf-16be',
  'windows-1252',
  'windows-1250',
  'windows-1251',
  'windows-1253',
  'windows-1254',
  'windows-1257',
  'iso-8859-2',
  'iso-8859-15',
  'macintosh',
  'koi8-r',
  'ibm866',
  'shift_jis',
  'euc-jp',
  'gb18030',
  'big5',
  'euc-kr',
] as const
export type Encoding = (typeof ENCODINGS)[number]

/** Encodings in which a byte below 128 always means its ASCII character, so that records can be found on bytes. */
const ASCII_IN_PLACE: ReadonlySet<Encoding> = new Set(
  ENCODINGS.filter((name) => /^(?:utf-8|windows|iso|mac|koi|ibm)/.test(name)),
)
export const keepsAsciiInPlace = (encoding: Encoding): boolean => ASCII_IN_PLACE.has(encoding)

export type EncodingEvidence = 'mark' | 'zero-bytes' | 'only-ascii' | 'valid-utf-8' | 'mostly-utf-8' | 'letters' | 'set'

export interface EncodingJudgement {
  readonly encoding: Encoding
  /** Length of the byte order mark, in bytes. */
  readonly bom: number
  readonly evidence: EncodingEvidence
  /** Words with letters beyond ASCII, as this encoding shows them. */
  readonly samples: readonly string[]
}

/** Judges the encoding of a text by its first bytes; `wanted` is what the operator has set. */
export function judgeEncoding(head: Uint8Array, wanted?: Encoding): EncodingJudgement {
  const mark = markOf(head)
  if (wanted) return withSamples(head, wanted, mark?.encoding === wanted ? mark.bom : 0, 'set')
  if (mark) return withSamples(head, mark.encoding, mark.bom, 'mark')
  const wide = utf16WithoutMark(head)
  if (wide) return withSamples(head, wide, 0, 'zero-bytes')
  const { good, bad } = countUtf8(head)
  if (good === 0 && bad === 0) return withSamples(head, 'utf-8', 0, 'only-ascii')
  if (bad === 0) return withSamples(head, 'utf-8', 0, 'valid-utf-8')
  if (good > 4 * bad) return withSamples(head, 'utf-8', 0, 'mostly-utf-8')
  return withSamples(head, byLetters(head), 0, 'letters')
}

const MARKS: readonly (readonly [Encoding, readonly number[]])[] = [
  ['utf-8', [0xef, 0xbb, 0xbf]],
  ['utf-16le', [0xff, 0xfe]],
  ['utf-16be', [0xfe, 0xff]],
]

function markOf(head: Uint8Array): { readonly encoding: Encoding; readonly bom: number } | null {
  const found = MARKS.find(([, bytes]) => bytes.every((byte, i) => head[i] === byte))
  return found ? { encoding: found[0], bom: found[1].length } : null
}

/** Text of mostly Latin letters in UTF-16 has a zero in every other byte. */
function utf16WithoutMark(head: Uint8Array): Encoding | null {
  const length = Math.min(head.length, 4096)
  if (length < 8) return null
  let even = 0
  let odd = 0
  for (let i = 0; i < length; i++) if (head[i] === 0) i % 2 === 0 ? even++ : odd++
  const half = length / 2
  if (odd > half * 0.7 && even < half * 0.1) return 'utf-16le'
  return even > half * 0.7 && odd < half * 0.1 ? 'utf-16be' : null
}

/** How many characters beyond ASCII are well formed in UTF-8 (RFC 3629), and how many bytes are not. */
export function countUtf8(head: Uint8Array): { readonly good: number; readonly bad: number } {
  let good = 0
  let bad = 0
  for (let i = 0; i < head.length; i++) {
    const byte = head[i] ?? 0
    if (byte < 0x80) continue
    const more = byte >= 0xc2 && byte < 0xe0 ? 1 : byte >= 0xe0 && byte < 0xf0 ? 2 : byte >= 0xf0 && byte < 0xf5 ? 3 : 0
    let seen = 0
    while (seen < more && ((head[i + seen + 1] ?? 0) & 0xc0) === 0x80) seen++
    if (more > 0 && seen === more) good++
    // A character cut off by the end of the head is no fault.
    else if (more === 0 || i + more < head.length) bad++
    i += seen
  }
  return { good, bad }
}

const SINGLE: readonly Encoding[] = [
  'windows-1252',
  'windows-1250',
  'windows-1251',
  'windows-1253',
  'windows-1254',
  'windows-1257',
  'iso-8859-2',
  'macintosh',
  'koi8-r',
  'ibm866',
]

/** The encoding under which the letters beyond ASCII make the likeliest words. */
function byLetters(head: Uint8Array): Encoding {
  const multi = asianOf(head)
  if (multi) return multi
  const scores = SINGLE.map((encoding) => ({ encoding, score: scoreOf(decodeText(head, encoding)) }))
  // On equal evidence the commoner comes first; it must be beaten clearly.
  return scores.reduce((best, one) => (one.score > best.score * 1.02 + 1 ? one : best)).encoding
}

const ASIAN: Readonly<Record<string, Encoding>> = {
  Shift_JIS: 'shift_jis',
  'EUC-JP': 'euc-jp',
  GB18030: 'gb18030',
  Big5: 'big5',
  'EUC-KR': 'euc-kr',
}

/** East Asian text: half of the bytes are above ASCII and they come in pairs. */
function asianOf(head: Uint8Array): Encoding | null {
  const sample = head.subarray(0, 65_536)
  let high = 0
  let pairs = 0
  for (let i = 0; i < sample.length; i++) {
    if ((sample[i] ?? 0) < 0x80) continue
    high++
    if ((sample[i + 1] ?? 0) >= 0x40) pairs++
    i++
  }
  if (high < 12 || pairs / high < 0.98 || high / sample.length < 0.08) return null
  const [best] = chardet.analyse(sample).filter(({ name, confidence }) => name in ASIAN && confidence >= 60)
  const encoding = best && ASIAN[best.name]
  return encoding && !decodeText(sample.subarray(0, sample.length - 2), encoding).includes('\ufffd') ? encoding : null
}

/** Letters that European and Slavonic words are spelt with, the usual ones first. */
const USUAL = new Set('äöüßéèàçêñáíóúâîôûëïìòùåæøãõœ')
const KNOWN = new Set(
  'ąćęłńśźżčďěňřšťůžőűățşğıİșţħġżёабвгдежзийклмнопрстуфхцчшщъыьэюяієїαβγδεζηθικλμνξοπρστυφχψωςάέήίόύώāēģīķļņšūžėįųõ',
)

const scoreOf = (text: string): number => wordsBeyondAscii(text).reduce((sum, word) => sum + scoreOfWord(word), 0)

const LONGEST_WORD = 60
const MOST_WORDS = 4000

/** Words with a letter beyond ASCII. Split first, then looked at: one pattern for both takes quadratic time. */
function wordsBeyondAscii(text: string): string[] {
  const words: string[] = []
  for (const word of text.split(/[\s,;|"'<>()[\]{}]+/)) {
    if (word.length <= LONGEST_WORD && /\P{ASCII}/u.test(word)) words.push(word)
    if (words.length === MOST_WORDS) break
  }
  return words
}

/** How likely a word is, judged letter by letter with those beside it. */
function scoreOfWord(word: string): number {
  const letters = [...word]
  let score = 0
  let run = 0
  letters.forEach((letter, i) => {
    if (letter <= '\x7f') {
      run = 0
      return
    }
    const before = letters[i - 1] ?? ''
    const after = letters[i + 1] ?? ''
    score += scoreOfLetter(letter)
    // A capital or a letter of another script inside a word, a letter glued to a digit.
    if (/\p{Lu}/u.test(letter) && /\p{Ll}/u.test(before)) score -= 4
    if (/\p{Ll}/u.test(letter) && /\p{Lu}/u.test(after)) score -= 2
    if (/[a-z]/i.test(before) && /\p{Script=Cyrillic}|\p{Script=Greek}/u.test(letter)) score -= 4
    if (/\p{L}/u.test(letter) && /\d/.test(before + after)) score -= 4
    // Words in Latin letters rarely have three accented ones in a row.
    run = /\p{Script=Latin}/u.test(letter) ? run + 1 : 0
    if (run > 2) score -= 5
  })
  return score
}

function scoreOfLetter(letter: string): number {
  const lower = letter.toLowerCase()
  if (USUAL.has(lower)) return 3
  if (KNOWN.has(lower)) return 2
  if (/\p{L}/u.test(letter)) return 0
  return /[–—’‘“”…€•°§·«»®™©]/u.test(letter) ? 2 : -3
}

const withSamples = (
  head: Uint8Array,
  encoding: Encoding,
  bom: number,
  evidence: EncodingEvidence,
): EncodingJudgement => ({ encoding, bom, evidence, samples: oddWords(decodeText(head.subarray(bom), encoding)) })

function oddWords(text: string): string[] {
  const words = wordsBeyondAscii(text.slice(0, 200_000)).map((word) =>
    word.replace(/^[\p{P}\p{S}]+|[\p{P}\p{S}]+$/gu, ''),
  )
  return [...new Set(words.filter((word) => word.length > 2 && /[^\p{ASCII}\p{P}\p{S}]/u.test(word)))].slice(0, 5)
}

/**
 * Decodes whole texts of one encoding. Some releases of Node take Windows-1252 for Latin-1 unless they decode a
 * stream (quotes, dashes and the euro sign are lost), so single-byte encodings are always decoded as one.
 */
export function decoderOf(encoding: Encoding): (bytes: Uint8Array) => string {
  const decoder = new TextDecoder(encoding, { ignoreBOM: true })
  const isSingleByte = keepsAsciiInPlace(encoding) && encoding !== 'utf-8'
  return isSingleByte ? (bytes) => decoder.decode(bytes, { stream: true }) : (bytes) => decoder.decode(bytes)
}

export const decodeText = (bytes: Uint8Array, encoding: Encoding): string => decoderOf(encoding)(bytes)
