export const DAMAGES = [
  'digits-lost',
  'zeros-lost',
  'apostrophe',
  'decimal-tail',
  'mixed-encodings',
  'replaced-letters',
  'line-breaks',
  'control-characters',
  'direction-marks',
  'spreadsheet-error',
  'markup',
] as const
/** What was done to cells before they came to us. */
export type Damage = (typeof DAMAGES)[number]

/** UTF-8 that was once read as Windows-1252: `MÃ¼ller`, `CafÃ©`, `â€™`. */
const TWICE_DECODED =
  /[ÃÂ][\u0080-\u00bf\u201a-\u2122]|â€[\u0080-\u00bf\u2018-\u2122™œ\u009d]|Å[\u0080-\u00bf\u2018-\u2122]/
// biome-ignore lint/suspicious/noControlCharactersInRegex: control characters are what is looked for
const CONTROL = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f-\u009f]/
const DIRECTION = /[\u061c\u200e\u200f\u202a-\u202e\u2066-\u2069]/
const SPREADSHEET_ERROR = /^#(?:N\/A|NV|REF!|VALUE!|NAME\?|DIV\/0!|NULL!|NUM!|WERT!|BEZUG!|VALEUR!)$/

const LONGEST_LOOK = 4000

/** The damages of one cell. */
export function damagesOf(cell: string): Damage[] {
  const found: Damage[] = []
  const text = cell.slice(0, LONGEST_LOOK).trim()
  if (/^\+?\d(?:[.,]\d+)?E\+?\d{1,2}$/i.test(text)) found.push('digits-lost')
  if (/^\d{7,15}[.,]0$/.test(text)) found.push('decimal-tail')
  if (/^['’‘`]\s*[+\d]/.test(text)) found.push('apostrophe')
  if (TWICE_DECODED.test(text)) found.push('mixed-encodings')
  if (text.includes('\ufffd')) found.push('replaced-letters')
  if (/[\r\n]/.test(text)) found.push('line-breaks')
  if (CONTROL.test(text)) found.push('control-characters')
  if (DIRECTION.test(text)) found.push('direction-marks')
  if (SPREADSHEET_ERROR.test(text)) found.push('spreadsheet-error')
  if (/<\/?(?:b|br|p|a|span|div|i)\b[^>]*>|&(?:amp|nbsp|#\d{2,5});/i.test(text)) found.push('markup')
  return found
}
