/**
 * The digits of the number at hand, as character codes. There is one buffer for all numbers, so that reading makes
 * nothing for a digit; a stretch of it is told by where it starts and where it ends.
 */
export const DIGITS = new Uint8Array(256)
/** Where the digits of a cell start. The place before them holds a zero, for the reading of a zero that was lost. */
export const START = 1
/** Where a number stands whose digits a rule has rewritten. */
export const REWRITTEN = 96
/** Where digits stand that a repair has put together. */
export const COMPOSED = 160
/** Where digits stand as a slip may have left them. */
export const SWAPPED = 208
/** Longest run of digits that is read here; the plan's longest number has 17. */
export const MOST_DIGITS = 60
export const ZERO = 48

DIGITS[0] = ZERO

/** Puts digits at a place; gives back where they end. At most `MOST_DIGITS`. */
export function putDigits(text: string, at: number): number {
  for (let i = 0; i < text.length; i++) DIGITS[at + i] = text.charCodeAt(i)
  return at + text.length
}

/** Puts a stretch without the digit at one place at `COMPOSED`; gives back where it ends there. */
export function composeWithout(from: number, to: number, place: number): number {
  let at = COMPOSED
  for (let i = from; i < to; i++) if (i !== place) DIGITS[at++] = DIGITS[i] as number
  return at
}

export function startsWith(from: number, to: number, digits: string): boolean {
  if (to - from < digits.length) return false
  for (let i = 0; i < digits.length; i++) if (DIGITS[from + i] !== digits.charCodeAt(i)) return false
  return true
}

/** True where one stretch ends with the digits of another. */
export function endsWith(from: number, to: number, otherFrom: number, otherTo: number): boolean {
  if (to - from < otherTo - otherFrom) return false
  for (let i = otherTo - 1, j = to - 1; i >= otherFrom; i--, j--) if (DIGITS[i] !== DIGITS[j]) return false
  return true
}

/** Lists of character codes by length, filled anew for each text. */
const codes: number[][] = Array.from({ length: 40 }, (_, length) => Array.from({ length }, () => ZERO))

/** A stretch as text behind what stands in front of it. */
export function textOf(front: string, from: number, to: number): string {
  const list = codes[front.length + to - from]
  if (!list) return front + [...DIGITS.subarray(from, to)].map((code) => String.fromCharCode(code)).join('')
  let at = 0
  for (; at < front.length; at++) list[at] = front.charCodeAt(at)
  for (let i = from; i < to; i++, at++) list[at] = DIGITS[i] as number
  return String.fromCharCode.apply(null, list)
}
