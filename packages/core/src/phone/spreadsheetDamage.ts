import { digitsOf } from './characters'
import type { Repair } from './types'

export type DamageResult =
  | { readonly status: 'mended'; readonly text: string; readonly repairs: readonly Repair[] }
  | { readonly status: 'digits-lost' }

const QUOTES = new Set(["'", '=', '`'])

/** Undoes what a spreadsheet does to a number it took for a quantity. Never makes up a digit. */
export function mendSpreadsheetDamage(text: string): DamageResult {
  const repairs: Repair[] = []
  let mended = text
  const quoted = QUOTES.has(text[0] ?? '') ? /^(?:'+|=\s*"|`)(.*?)"?$/.exec(mended) : null
  if (quoted?.[1] !== undefined && /\d/.test(quoted[1])) {
    mended = quoted[1].trim()
    repairs.push('apostrophe')
  }
  const notation = /^\+?(\d)(?:[.,](\d+))?\s*E\s*\+?\s*(\d{1,2})$/i.exec(mended)
  if (notation) {
    const fraction = notation[2] ?? ''
    if (fraction.length !== Number(notation[3])) return { status: 'digits-lost' }
    return { status: 'mended', text: `${notation[1]}${fraction}`, repairs: [...repairs, 'scientific-notation'] }
  }
  // Digits with gaps are no quantity, yet what stands behind their only point is a tail all the same.
  const tail = mended.endsWith('0')
    ? (/^(\+?\d{6,})[.,]0+$/.exec(mended) ?? /^([^.,]*\d{3})[.,]0{1,2}$/.exec(mended))
    : null
  if (tail?.[1]) return { status: 'mended', text: tail[1], repairs: [...repairs, 'decimal-tail'] }
  return { status: 'mended', text: mended, repairs }
}

const LOOKALIKE: Record<string, string> = { O: '0', o: '0', l: '1', I: '1', '|': '1' }

/** Letters O, l and I between digits as the digits they look like; null where there are none, or other letters too. */
export function readLookalikes(text: string): string | null {
  if (!/[OolI]/.test(text) || /[^\dOolI\s()+./-]/.test(text)) return null
  if (digitsOf(text).length < 5) return null
  return text.replace(/[OolI]/g, (letter) => LOOKALIKE[letter] ?? letter)
}

const KEYPAD = '22233344455566677778889999'

/** Letters of a telephone keypad (ITU-T E.161) as digits; null unless digits come first and a word follows. */
export function readKeypadLetters(text: string): string | null {
  if (!/^[+(]?\d[\d\s().+-]*[A-Za-z]/.test(text) || !/[A-Za-z]{3,}/.test(text) || /[^\dA-Za-z\s().+-]/.test(text))
    return null
  return text.replace(/[A-Za-z]/g, (letter) => KEYPAD[letter.toUpperCase().charCodeAt(0) - 65] ?? '')
}
