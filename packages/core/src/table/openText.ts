import { splitCells } from './cells'
import { type Dialect, judgeDelimiter } from './dialect'
import { decodeText, type Encoding, type EncodingJudgement, judgeEncoding, keepsAsciiInPlace } from './encodings'
import type { SheetRow } from './grid'
import { judgeRow } from './judgeRow'
import { type Note, notes } from './notes'
import { type OpenedHead, openTable, type TableWishes } from './openTable'
import { scanRecords } from './scanRecords'

export type OpenedText = OpenedHead & { readonly dialect: Dialect; readonly encoding: EncodingJudgement }

const SAMPLE = 400
/** Records are found on bytes: a text in which ASCII does not stand in place is turned into UTF-8 first. */
const ENCODER = new TextEncoder()

/**
 * Opens the head of a text: encoding, delimiter, and the table in it.
 * @param head the first bytes; a cut last line is allowed for
 * @param isWhole true where the head is the whole text
 * @param wanted parts of the dialect that the operator has set
 */
export function openText(
  head: Uint8Array,
  {
    isWhole,
    dialect: wanted = {},
    ...wishes
  }: TableWishes & { readonly isWhole: boolean; readonly dialect?: Partial<Dialect> },
): OpenedText {
  const encoding = judgeEncoding(head, wanted.encoding)
  const body = head.subarray(encoding.bom)
  const bytes = keepsAsciiInPlace(encoding.encoding) ? body : ENCODER.encode(decodeText(body, encoding.encoding))
  const readAs: Encoding = keepsAsciiInPlace(encoding.encoding) ? encoding.encoding : 'utf-8'
  const judged = judgeDelimiter(decodeText(bytes, readAs))
  const delimiter = wanted.delimiter ?? judged.delimiter
  const dialect: Dialect = { encoding: encoding.encoding, delimiter, bom: encoding.bom }
  const all = gridOf(bytes, { encoding: readAs, delimiter, bom: 0 }, isWhole)
  const rows = judged.evidence === 'stated' ? all.filter(({ row }) => row > 1) : all
  const opened = openTable({ rows, isSheet: false }, wishes)
  if (opened.status === 'refused') return { ...opened, dialect, encoding }
  const said: Note[] = [
    notes.encoding(encodingSentence(encoding)),
    ...(encoding.evidence === 'mostly-utf-8' ? [notes.mixedEncodings(brokenRows(bytes, dialect, isWhole))] : []),
    notes.delimiter(delimiterSentence(delimiter, wanted.delimiter ? 'set' : judged.evidence)),
  ]
  return { ...opened, dialect, encoding, notes: [...said, ...opened.notes] }
}

/** The records of a head as rows; those that would be held for their cells are left to the judgement of rows. */
function gridOf(bytes: Uint8Array, dialect: Dialect, isWhole: boolean): SheetRow[] {
  const { records } = scanRecords(bytes, { delimiter: dialect.delimiter, isLast: isWhole, limit: SAMPLE })
  return records.flatMap(({ start, end, problem }, i) =>
    problem
      ? []
      : [
          {
            row: i + 1,
            isHidden: false,
            cells: splitCells(decodeText(bytes.subarray(start, end), dialect.encoding), dialect.delimiter),
          },
        ],
  )
}

function brokenRows(bytes: Uint8Array, dialect: Dialect, isWhole: boolean): number[] {
  const { records } = scanRecords(bytes, { delimiter: dialect.delimiter, isLast: isWhole, limit: SAMPLE })
  const rules = { headings: [], hasHeadings: false, isSheet: true }
  return records.flatMap(({ start, end, problem }, i) => {
    const judged = judgeRow(
      decodeText(bytes.subarray(start, end), 'utf-8'),
      problem,
      { ...dialect, encoding: 'utf-8' },
      rules,
    )
    return judged.status === 'held' && judged.reason === 'wrong-encoding' ? [i + 1] : []
  })
}

export const ENCODING_NAMES: Record<Encoding, string> = {
  'utf-8': 'UTF-8',
  'utf-16le': 'UTF-16 LE',
  'utf-16be': 'UTF-16 BE',
  'windows-1252': 'Windows-1252 (Western Europe)',
  'windows-1250': 'Windows-1250 (Central Europe)',
  'windows-1251': 'Windows-1251 (Cyrillic)',
  'windows-1253': 'Windows-1253 (Greek)',
  'windows-1254': 'Windows-1254 (Turkish)',
  'windows-1257': 'Windows-1257 (Baltic)',
  'iso-8859-2': 'ISO 8859-2 (Central Europe)',
  'iso-8859-15': 'ISO 8859-15 (Western Europe)',
  macintosh: 'Macintosh Roman',
  'koi8-r': 'KOI8-R (Cyrillic)',
  ibm866: 'IBM 866 (Cyrillic)',
  shift_jis: 'Shift JIS (Japanese)',
  'euc-jp': 'EUC-JP (Japanese)',
  gb18030: 'GB 18030 (Chinese)',
  big5: 'Big5 (Chinese)',
  'euc-kr': 'EUC-KR (Korean)',
}

function encodingSentence({ encoding, evidence, samples }: EncodingJudgement): string {
  const name = ENCODING_NAMES[encoding]
  const shown = samples.length > 0 ? `: ${samples.map((word) => `“${word}”`).join(', ')}` : ''
  switch (evidence) {
    case 'mark':
      return `${name}, by the mark at the start of the file.`
    case 'zero-bytes':
      return `${name}: every other byte is zero, as plain letters have it there.`
    case 'only-ascii':
      return 'Only plain ASCII letters so far, which every encoding shows alike; read as UTF-8.'
    case 'valid-utf-8':
      return `UTF-8: every letter beyond ASCII is well formed${shown}.`
    case 'mostly-utf-8':
      return `UTF-8 for the most part${shown}.`
    case 'letters':
      return `${name}: not UTF-8, and under this encoding the letters make the likeliest words${shown}.`
    case 'set':
      return `${name}, as you set it${shown}.`
  }
}

const DELIMITER_NAMES: Record<string, string> = {
  ',': 'Commas',
  ';': 'Semicolons',
  '\t': 'Tabs',
  '|': 'Bars',
  ':': 'Colons',
  '~': 'Tildes',
  '^': 'Carets',
  '#': 'Hashes',
} // prettier-ignore
export const delimiterName = (delimiter: string): string =>
  DELIMITER_NAMES[delimiter] ??
  (delimiter < ' ' ? `Control characters (code ${delimiter.charCodeAt(0)})` : `“${delimiter}”`)

function delimiterSentence(
  delimiter: string,
  evidence: 'set' | 'stated' | 'even' | 'mostly-even' | 'one-column',
): string {
  const name = delimiterName(delimiter)
  switch (evidence) {
    case 'set':
      return `${name} between the cells, as you set it.`
    case 'stated':
      return `${name} between the cells: the first line says so.`
    case 'even':
      return `${name} between the cells: they cut the lines evenly.`
    case 'mostly-even':
      return `${name} between the cells: they cut most lines evenly.`
    case 'one-column':
      return 'One column: nothing cuts the lines evenly.'
  }
}
