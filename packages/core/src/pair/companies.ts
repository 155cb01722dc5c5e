import { fold } from './fold'
import { pairMemo } from './pairMemo'
import { numbersOfForm, type Sealable, sealAll, textPool } from './pool'
import { areAlike } from './similarity'

/** The companies of a list, by their names alone. */
export interface Companies extends Sealable {
  /** Number of a company, however it is written. 0 is none. */
  idOf(name: string): number
  hashOf(id: number): number
  /** True for two names of one house, written in two ways, or of a house and its branch. */
  areLike(a: number, b: number): boolean
}

export function pairCompanies(): Companies {
  const names = textPool()
  const words = textPool()
  const forms = numbersOfForm(fold, names)
  const wordsOf: (readonly number[])[] = [[]]
  return {
    idOf: (name) => {
      const id = forms.idOf(name)
      if (id === wordsOf.length) wordsOf.push((names.texts[id] as string).split(' ').map(words.idOf))
      return id
    },
    hashOf: names.hashOf,
    seal: () => sealAll([names, words, forms]),
    areLike: pairMemo(
      (a, b) =>
        isBranch(wordsOf[a] as readonly number[], wordsOf[b] as readonly number[]) ||
        areAlike(names.texts[a] as string, names.texts[b] as string),
    ),
  }
}

/** A branch has the name of its house and a word behind it. */
function isBranch(a: readonly number[], b: readonly number[]): boolean {
  const [few, many] = a.length <= b.length ? [a, b] : [b, a]
  return few.length > 1 && few.every((word) => many.includes(word))
}
