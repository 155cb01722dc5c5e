/**
 * Characters of Windows-1252 in the place of bytes 0x80 to 0x9f. Source: the Encoding Standard of WHATWG, index
 * windows-1252; its five free places are controls of the same number.
 */
const HIGH = '€\u0081‚ƒ„…†‡ˆ‰Š‹Œ\u008dŽ\u008f\u0090‘’“”•–—˜™š›œ\u009džŸ'
/**
 * What begins a sequence of UTF-8 that was read as Windows-1252: letters with marks, Greek, Cyrillic, and signs. What Ü, Ý,
 * Þ and ß would begin are scripts of which a list of prospects has less than of these letters (Syriac, Thaana, N'Ko).
 */
const BROKEN = /[\u00c2-\u00db\u00e0-\u00f4][\u0080-\u00bf€‚ƒ„…†‡ˆ‰Š‹ŒŽ‘’“”•–—˜™š›œžŸ]/
/** A text may have been broken twice on its way. */
const MOST_TIMES = 3
const strict = new TextDecoder('utf-8', { fatal: true })

/**
 * A text whose letters were broken by reading UTF-8 as Windows-1252 (`MÃ¼ller`), as it was. Only what can be turned
 * back without a doubt: the whole text has to be such bytes, and they have to be UTF-8.
 * @returns null where nothing is broken, or it cannot be told
 */
export function mendLetters(text: string): string | null {
  let mended: string | null = null
  for (let times = 0; times < MOST_TIMES; times++) {
    const once: string | null = BROKEN.test(mended ?? text) ? decodedAnew(mended ?? text) : null
    if (once === null) return mended
    mended = once
  }
  return mended
}

function decodedAnew(text: string): string | null {
  const bytes = new Uint8Array(text.length)
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i)
    const high = code > 0xff ? HIGH.indexOf(text.charAt(i)) : -1
    if (code > 0xff && high === -1) return null
    bytes[i] = high === -1 ? code : 0x80 + high
  }
  try {
    return strict.decode(bytes)
  } catch {
    return null
  }
}
