/** What is dialled of a written number, as the reference takes it out of a text. */
export interface WrittenNumber {
  /** ASCII digits; letters of a keypad are digits too where there are three. */
  readonly digits: string
  readonly hasPlus: boolean
  readonly extension: string | null
}

const LONGEST = 250
const DIGITS = '0-9\uff10-\uff19\u0660-\u0669\u06f0-\u06f9'
const PLUS = '+\uff0b'
const MARKS =
  '-x\u2010-\u2015\u2212\u30fc\uff0d-\uff0f \u00a0\u00ad\u200b\u2060\u3000()\uff08\uff09\uff3b\uff3d.\\[\\]/~\u2053\u223c\uff5e'
const SPACES = ' \u00a0\\t'
const POINT = '[:\\.\uff0e]?'
const GAP = `[${SPACES},-]*`

/** Ways to write an extension behind a number, each with the most digits it may have. */
const EXTENSIONS = [
  `;ext=([${DIGITS}]{1,20})`,
  `[${SPACES},]*(?:e?xt(?:ensi(?:o\u0301?|\u00f3))?n?|\uff45?\uff58\uff54\uff4e?|\u0434\u043e\u0431|anexo)${POINT}${GAP}([${DIGITS}]{1,20})#?`,
  `[${SPACES},]*(?:[x\uff58#\uff03~\uff5e]|int|\uff49\uff4e\uff54)${POINT}${GAP}([${DIGITS}]{1,9})#?`,
  `[- ]+([${DIGITS}]{1,6})#`,
  `[${SPACES}]*(?:,{2}|;)${POINT}${GAP}([${DIGITS}]{1,15})#?`,
  `[${SPACES}]*(?:,)+${POINT}${GAP}([${DIGITS}]{1,9})#?`,
].join('|')

const EXTENSION = new RegExp(`(?:${EXTENSIONS})$`, 'i')
const VIABLE = new RegExp(
  `^(?:[${DIGITS}]{2}|[${PLUS}]*(?:[${MARKS}*]*[${DIGITS}]){3,}[${MARKS}*A-Za-z${DIGITS}]*(?:${EXTENSIONS})?)$`,
  'i',
)
const START = new RegExp(`[${PLUS}${DIGITS}]`)
const UNWANTED_END = new RegExp(`[^${DIGITS}A-Za-z#]+$`)
const SECOND_NUMBER = /[\\/] *x/
const LEADING_PLUS = new RegExp(`^[${PLUS}]+`)
const THREE_LETTERS = /(?:.*?[A-Za-z]){3}/
const KEYPAD = '22233344455566677778889999'

/**
 * Takes a number out of a text the way the reference's parser does, before the plan has its say.
 * @returns null where the reference sees no number in it
 */
export function writtenNumber(text: string): WrittenNumber | null {
  if (text.length > LONGEST) return null
  const possible = possibleNumber(text)
  if (possible.length < 2 || !VIABLE.test(possible)) return null
  const { number, extension } = withoutExtension(possible)
  const bare = number.replace(LEADING_PLUS, '')
  return { digits: digitsIn(bare), hasPlus: bare !== number, extension }
}

/** The text from its first digit or plus on, without what cannot end a number. */
function possibleNumber(text: string): string {
  const start = text.search(START)
  if (start === -1) return ''
  const tail = text.slice(start).replace(UNWANTED_END, '')
  const second = tail.search(SECOND_NUMBER)
  const first = second === -1 ? tail : tail.slice(0, second)
  const subaddress = first.indexOf(';isub=')
  return subaddress > 0 ? first.slice(0, subaddress) : first
}

function withoutExtension(text: string): { readonly number: string; readonly extension: string | null } {
  const match = EXTENSION.exec(text)
  const number = match ? text.slice(0, match.index) : text
  if (!match || number.length < 2 || !VIABLE.test(number)) return { number: text, extension: null }
  const extension = match.slice(1).find((group) => group !== undefined && group !== '')
  return extension === undefined ? { number: text, extension: null } : { number, extension }
}

function digitsIn(text: string): string {
  return asciiDigits(
    THREE_LETTERS.test(text)
      ? text.replace(/[A-Za-z]/g, (letter) => KEYPAD[letter.toUpperCase().charCodeAt(0) - 65] ?? '')
      : text,
  )
}

const EVERY_DIGIT = new RegExp(`[${DIGITS}]`, 'g')

const asciiDigits = (text: string): string =>
  (text.match(EVERY_DIGIT) ?? []).map((digit) => String((digit.codePointAt(0) ?? 0) & 0xf)).join('')
