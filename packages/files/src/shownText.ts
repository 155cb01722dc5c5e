import { SSF } from '@e965/xlsx'

export interface Shown {
  readonly text: string
  /** True where the format hides digits, so that the stored ones were taken. */
  readonly isStored: boolean
}

const LOCAL_DATE = /^m\/d\/yy(?:yy)?$/i
const LOCAL_DATE_TIME = /^m\/d\/yy(?:yy)? h:mm$/i

/**
 * The text of a number as a spreadsheet shows it. Where the format hides digits, the stored digits count. A date in
 * the format that changes with the reader's country is written by ISO 8601.
 * @param format a number format code (ECMA-376, part 1, 18.8.30)
 */
export function shownText(value: number, format: string, date1904 = false): Shown {
  const stored = plainDigits(value)
  if (format === '' || /^general$/i.test(format)) return { text: stored, isStored: Math.abs(value) >= 1e11 }
  if (SSF.is_date(format)) return { text: dateText(value, format, date1904), isStored: false }
  const text = shown(value, format, date1904)
  if (text === null) return { text: stored, isStored: true }
  if (/[%/]/.test(format) || digitsIn(text).includes(digitsIn(stored))) return { text, isStored: false }
  return { text: stored, isStored: true }
}

function shown(value: number, format: string, date1904: boolean): string | null {
  try {
    return SSF.format(format, value, { date1904 }).trim()
  } catch {
    return null
  }
}

function dateText(value: number, format: string, date1904: boolean): string {
  const code = LOCAL_DATE.test(format) ? 'yyyy-mm-dd' : LOCAL_DATE_TIME.test(format) ? 'yyyy-mm-dd hh:mm' : format
  return shown(value, code, date1904) ?? plainDigits(value)
}

/** All digits of a number, never in scientific notation. */
function plainDigits(value: number): string {
  if (Number.isInteger(value)) return BigInt(value).toString()
  const text = String(value)
  return text.includes('e') ? value.toFixed(12).replace(/0+$/, '') : text
}

const digitsIn = (text: string): string => text.replace(/\D/g, '').replace(/^0+/, '')
