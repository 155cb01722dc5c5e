/** Letters without marks, in lower case, as words. `Müller` and `Mueller` meet in `muller`. */
export function nameWords(name: string): readonly string[] {
  return name
    .toLowerCase()
    .replace(/ae/g, 'a')
    .replace(/oe/g, 'o')
    .replace(/ue/g, 'u')
    .replace(/ß/g, 'ss')
    .replace(/ø/g, 'o')
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .split(/[^\p{L}\p{N}]+/u)
    .filter((word) => word !== '')
}

/**
 * True where two written names can be one person's: the same words in any order, an initial for a word, or fewer
 * words. A missing name is compatible with every name. Nicknames and typing slips are not judged here.
 */
export const areNamesCompatible = (a: string, b: string): boolean => areWordsCompatible(nameWords(a), nameWords(b))

/** The same of the words of two names: see `nameWords`. Neither empty, they have a whole word in common. */
export function areWordsCompatible(a: readonly string[], b: readonly string[]): boolean {
  const [few, many] = a.length <= b.length ? [a, b] : [b, a]
  if (few.length === 0) return true
  const left = [...many]
  // Whole words first: an initial must not take the word that another one is.
  const others = few.filter((word) => !takeOut(left, (other) => other === word))
  if (!others.every((word) => takeOut(left, (other) => isInitialOf(other, word) || isInitialOf(word, other))))
    return false
  return hasWholeWordInCommon(few, many)
}

/** Takes the first word that fits out of those that are left. @returns whether there was one */
function takeOut(left: string[], fits: (word: string) => boolean): boolean {
  const at = left.findIndex(fits)
  if (at !== -1) left.splice(at, 1)
  return at !== -1
}

const isInitialOf = (initial: string, word: string): boolean => initial.length === 1 && word.startsWith(initial)

const hasWholeWordInCommon = (few: readonly string[], many: readonly string[]): boolean =>
  few.some((word) => word.length > 1 && many.includes(word))
