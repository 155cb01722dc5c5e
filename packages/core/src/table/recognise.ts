import { countUtf8, decodeText, judgeEncoding } from './encodings'

export const FORMATS = ['csv', 'tsv', 'xlsx', 'xls', 'ods', 'vcard', 'json', 'ndjson'] as const
/** What a file is, by its content. */
export type Format = (typeof FORMATS)[number]

export const FILE_PROBLEMS = [
  'empty-file',
  'binary-file',
  'not-a-workbook',
  'locked-workbook',
  'damaged-file',
  'inflates-too-far',
  'too-large-for-format',
  'too-many-columns',
  'compressed-file',
  'web-page',
  'document',
  'no-table',
  'no-sheet',
  'broken-json',
] as const
/** Why a file is refused. */
export type FileProblem = (typeof FILE_PROBLEMS)[number]

/** What the first bytes say a file is. `archive` and `old-office` must be opened to know more. */
export type Recognised =
  | { readonly kind: 'text' | 'vcard' | 'json' | 'ndjson' | 'archive' | 'old-office' }
  | { readonly kind: 'refused'; readonly problem: FileProblem }

const refused = (problem: FileProblem): Recognised => ({ kind: 'refused', problem })

const MARKS: readonly (readonly [readonly number[], Recognised])[] = [
  [[0x50, 0x4b, 3, 4], { kind: 'archive' }],
  [[0x50, 0x4b, 5, 6], refused('not-a-workbook')],
  [[0xd0, 0xcf, 0x11, 0xe0], { kind: 'old-office' }],
  // Worksheets of BIFF2 to BIFF4, without a container around them.
  [[0x09, 0x00, 0x04, 0x00], { kind: 'old-office' }],
  [[0x09, 0x02, 0x06, 0x00], { kind: 'old-office' }],
  [[0x09, 0x04, 0x06, 0x00], { kind: 'old-office' }],
  [[0x25, 0x50, 0x44, 0x46], refused('document')],
  [[0x7b, 0x5c, 0x72, 0x74, 0x66], refused('document')],
  [[0x1f, 0x8b], refused('compressed-file')],
  [[0x42, 0x5a, 0x68], refused('compressed-file')],
  [[0x37, 0x7a, 0xbc, 0xaf], refused('compressed-file')],
  [[0x52, 0x61, 0x72, 0x21], refused('compressed-file')],
  [[0x28, 0xb5, 0x2f, 0xfd], refused('compressed-file')],
  [[0x89, 0x50, 0x4e, 0x47], refused('binary-file')],
  [[0xff, 0xd8, 0xff], refused('binary-file')],
  [[0x47, 0x49, 0x46, 0x38], refused('binary-file')],
]

/** Recognises a file by its first bytes, never by its name. */
export function recognise(head: Uint8Array): Recognised {
  if (head.length === 0) return refused('empty-file')
  for (const [mark, what] of MARKS) if (mark.every((byte, i) => head[i] === byte)) return what
  const { encoding, bom } = judgeEncoding(head.subarray(0, 65_536))
  const isWide = encoding.startsWith('utf-16')
  if (!isWide && looksBinary(head)) return refused('binary-file')
  const text = decodeText(head.subarray(bom, 65_536), encoding).trimStart()
  if (text === '') return refused('empty-file')
  return ofText(text)
}

function ofText(text: string): Recognised {
  if (/^BEGIN:VCARD\b/i.test(text)) return { kind: 'vcard' }
  if (/^<(?:!doctype html|html|table|head|body)\b/i.test(text)) return refused('web-page')
  if (/^\[\s*(?:\{|\[|\]|$)/.test(text)) return { kind: 'json' }
  if (/^\{\s*["}]/.test(text)) return { kind: isOneObjectALine(text) ? 'ndjson' : 'json' }
  return { kind: 'text' }
}

function isOneObjectALine(text: string): boolean {
  const [first = '', ...rest] = text.split(/\r?\n/)
  if (!rest.some((line) => line.trim() !== '') && /:\s*\[\s*\{/.test(first)) return false
  try {
    return typeof JSON.parse(first) === 'object'
  } catch {
    return first.length > 60_000
  }
}

/** A few NUL or control bytes are a damaged row; more than one in fifty is another kind of file. */
function looksBinary(head: Uint8Array): boolean {
  let odd = 0
  for (const byte of head) if (byte < 9 || (byte > 13 && byte < 27) || byte === 28 || byte === 29 || byte === 30) odd++
  if (odd / head.length <= 0.02) return false
  const { good, bad } = countUtf8(head)
  return odd / head.length > 0.1 || bad > good || head.includes(0)
}
