import { int32List } from './int32List'

/** Texts that are seldom read again, one behind another, two bytes a letter. */
export interface Letters {
  add(text: string): void
  count(): number
  lengthOf(id: number): number
  textOf(id: number): string
}

/** A text has about so many letters. */
const LETTERS_EACH = 16

/** @param expected how many texts are about to come */
export function lettersOf(expected = 0): Letters {
  const starts = int32List(expected)
  let codes = new Uint16Array(expected * LETTERS_EACH)
  let to = 0
  starts.push(0)
  return {
    add: (text) => {
      while (to + text.length > codes.length) {
        const larger = new Uint16Array(Math.max(1 << 12, codes.length * 2))
        larger.set(codes)
        codes = larger
      }
      for (let i = 0; i < text.length; i++) codes[to++] = text.charCodeAt(i)
      starts.push(to)
    },
    count: () => starts.length - 1,
    lengthOf: (id) => starts.at(id + 1) - starts.at(id),
    textOf: (id) => String.fromCharCode(...codes.subarray(starts.at(id), starts.at(id + 1))),
  }
}
