import anyAscii from 'any-ascii'
import { remember } from '../remember'

const PLAIN = /^[a-z0-9 ]*$/
const ASCII = /^[ -~]*$/

/**
 * Letters of any script as plain small letters, words with one space between: `Müller`, `Mueller` and `MULLER` all
 * become `muller`, `Иванова` becomes `ivanova`. For comparing only, never shown.
 */
export const fold = remember((text: string): string => {
  const lower = text.toLowerCase()
  if (PLAIN.test(lower)) return digraphs(lower).trim()
  const latin = ASCII.test(lower) ? lower : anyAscii(withoutMarks(lower)).toLowerCase()
  return digraphs(latin)
    .replace(/['’]/g, '')
    .replace(/[^a-z0-9]+/g, ' ')
    .trim()
}, 50_000)

/** Umlauts and their like lose their marks; where a language writes them as two letters, those become one as well. */
const withoutMarks = (text: string): string =>
  text.replace(/ß/g, 'ss').replace(/[øœ]/g, 'o').replace(/[æ]/g, 'a').normalize('NFD').replace(/\p{M}/gu, '')

const digraphs = (text: string): string =>
  text.includes('e') ? text.replace(/ae/g, 'a').replace(/oe/g, 'o').replace(/ue/g, 'u') : text

/** A letter that was lost on the way: it may have been any. */
const LOST = /(?<=\p{L})[?\ufffd]|[?\ufffd](?=\p{L})/u

/** The words of a folded name; a letter that was lost stays as `?`. */
export function nameWordsOf(name: string): readonly string[] {
  if ((!name.includes('?') && !name.includes('\ufffd')) || !LOST.test(name)) return wordsOf(name)
  return name.split(/\s+/).flatMap((word) =>
    LOST.test(word)
      ? [
          word
            .split(/[?\ufffd]/)
            .map((part) => fold(part).replace(/ /g, ''))
            .join('?'),
        ]
      : wordsOf(word),
  )
}

/** The words of a folded text. */
export const wordsOf = (text: string): readonly string[] => {
  const folded = fold(text)
  return folded === '' ? [] : folded.split(' ')
}
