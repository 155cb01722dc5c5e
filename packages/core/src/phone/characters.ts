/**
 * Characters that look like something else. Unicode decimal digits (general category Nd) come in runs of ten
 * that start at a multiple the standard fixes, so the value is the distance from the run's zero.
 */
const DIGIT_ZEROS = [
  0x0660, 0x06f0, 0x07c0, 0x0966, 0x09e6, 0x0a66, 0x0ae6, 0x0b66, 0x0be6, 0x0c66, 0x0ce6, 0x0d66, 0x0e50, 0x0ed0,
  0x0f20, 0x1040, 0x17e0, 0x1810, 0xff10,
]
const INVISIBLE = /\u034f|[\u00ad\u061c\u115f\u180e\u200b-\u200f\u202a-\u202e\u2060-\u2064\u2066-\u206f\ufeff]/g
const SPACE = /[\u00a0\u1680\u2000-\u200a\u202f\u205f\u3000]/g
const DASH = /[\u2010-\u2015\u2212\u2043\ufe58\ufe63\uff0d\u30fc]/g
const ODD = /[^\t\n\r -~]/

/** Plain form of a cell: ASCII digits, plain spaces and dashes, nothing invisible. */
export function plainCharacters(text: string): string {
  if (!ODD.test(text)) return text
  return text
    .replace(INVISIBLE, '')
    .replace(SPACE, ' ')
    .replace(DASH, '-')
    .replace(/[\uff0b\ufe62\u207a]/g, '+')
    .replace(/[\uff08\u207d]/g, '(')
    .replace(/[\uff09\u207e]/g, ')')
    .replace(/[\uff0f\u2044\u2215]/g, '/')
    .replace(/[\uff0e\u00b7\u2024]/g, '.')
    .replace(/\p{Nd}/gu, asciiDigit)
}

function asciiDigit(char: string): string {
  const code = char.codePointAt(0) ?? 0
  if (code < 0x80) return char
  const zero = DIGIT_ZEROS.find((start) => code >= start && code < start + 10)
  return zero === undefined ? char : String(code - zero)
}

export const digitsOf = (text: string): string => text.replace(/\D/g, '')
