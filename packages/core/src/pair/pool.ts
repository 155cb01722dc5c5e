import { hashOfText } from './hash'

/** Texts that are told apart by numbers from then on: each is kept once, however often it stands in a list. */
export interface Pool {
  /** Number of a text. The empty text is 0. */
  idOf(text: string): number
  /** The texts by their numbers. */
  readonly texts: readonly string[]
  /** Hash of the text with a number, the same in every pool and every run. */
  hashOf(id: number): number
}

export function textPool(): Pool {
  const ids = new Map<string, number>([['', 0]])
  const texts = ['']
  const hashes = [hashOfText('')]
  return {
    idOf: (text) => {
      const known = ids.get(text)
      if (known !== undefined) return known
      const id = texts.push(text) - 1
      ids.set(text, id)
      hashes.push(hashOfText(text))
      return id
    },
    texts,
    hashOf: (id) => hashes[id] as number,
  }
}
