import { nameWords } from './compatibleNames'

/** How a contact is written, as far as exact joining goes by it. */
export interface Writing {
  readonly name: string
  /** `1987-05-03` or `1987`; empty where it is not known. */
  readonly birthDate?: string
  /** Of a contact without a name: all that tells it from others. */
  readonly company?: string
}

/** The same, read from its text. */
export interface Written {
  readonly isNamed: boolean
  readonly words: readonly string[]
  readonly birthDate: string
  /** Words of the company, where there is no name. */
  readonly house: readonly string[]
}

/** Lines of a text that tells how a contact is written. */
export const WRITTEN_LINES = 3
/** In place of a company, which does not matter where there is a name: no word is written so. */
const NAMED = '*'

/**
 * A text of three lines, the same for all ways that joining cannot tell apart: the words of the name, the birth date,
 * and of a contact without a name the words of its company.
 */
export function writtenAs({ name, birthDate = '', company = '' }: Writing): string {
  const house = name === '' ? asLine(company) : NAMED
  return `${asLine(name)}\n${birthDate}\n${house}`
}

/** Names are held against each other by their words, in any order. */
const asLine = (text: string): string => nameWords(text).toSorted().join(' ')

/** @param text what `writtenAs` gave */
export function readWritten(text: string): Written {
  const [name = '', birthDate = '', house = ''] = text.split('\n')
  const isNamed = house === NAMED
  return { isNamed, words: wordsIn(name), birthDate, house: isNamed ? [] : wordsIn(house) }
}

const wordsIn = (line: string): readonly string[] => (line === '' ? [] : line.split(' '))

/** True where joining holds both for the same, whoever else there is: then nobody has to be joined anew. */
export function areWrittenAlike(a: Writing, b: Writing): boolean {
  const isLetterForLetter = a.name === b.name && a.birthDate === b.birthDate
  if (isLetterForLetter && (a.name !== '' || a.company === b.company)) return true
  return writtenAs(a) === writtenAs(b)
}
