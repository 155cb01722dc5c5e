import { hashed, hashText } from './hash'
import { int32List } from './int32List'

/** Tells texts apart by numbers: the same text has the same number, the empty one has 0. */
export interface Pool {
  idOf(text: string): number
  /** How many different texts there are, the empty one counted in. */
  count(): number
  /** Hash of the text with a number, the same in every pool and every run. */
  hashOf(id: number): number
}

export interface HashPool extends Pool, Sealable {
  /** Number of what was hashed last. */
  idOfHashed(): number
}

export interface Sealable {
  /** No text is asked for from here on: what texts are found by is let go, their hashes are kept. */
  seal(): void
}

/** Of so many places for numbers one is taken at most. */
const ROOM = 2
/** Room for so many is made at least. */
const FEW = 500
const powerOfTwo = (least: number): number => 2 ** Math.ceil(Math.log2(least))

/**
 * Tells texts apart by 64 bits of two hashes and keeps none of them: a large list holds millions. That two of four
 * million texts are taken for one happens in one list of a million.
 * @param expected how many texts are about to come
 */
export function hashPool(expected = 0): HashPool {
  const first = int32List(expected)
  let second = int32List(expected)
  // Of each text its number and one more: 0 is a free place.
  let slots = new Int32Array(powerOfTwo(Math.max(FEW, expected) * ROOM))
  const placeOf = (hash: number, other: number): number => {
    if (slots.length === 0) throw new Error('the pool is sealed: no text is looked for any more')
    const mask = slots.length - 1
    let place = other & mask
    for (;;) {
      const id = (slots[place] as number) - 1
      if (id === -1 || (first.at(id) === hash && second.at(id) === other)) return place
      place = (place + 1) & mask
    }
  }
  const grow = (): void => {
    slots = new Int32Array(slots.length * 2)
    for (let id = 0; id < first.length; id++) slots[placeOf(first.at(id), second.at(id))] = id + 1
  }
  const idOfHashed = (): number => {
    const [hash, other] = [hashed.first | 0, hashed.second | 0]
    const place = placeOf(hash, other)
    const known = (slots[place] as number) - 1
    if (known !== -1) return known
    const id = first.length
    slots[place] = id + 1
    first.push(hash)
    second.push(other)
    if (first.length * ROOM > slots.length) grow()
    return id
  }
  const idOf = (text: string): number => {
    // The empty text was the first one.
    if (text === '' && first.length > 0) return 0
    hashText(text)
    return idOfHashed()
  }
  idOf('')
  const seal = (): void => {
    second = int32List()
    slots = new Int32Array(0)
  }
  return { idOf, idOfHashed, seal, count: () => first.length, hashOf: (id) => first.at(id) >>> 0 }
}

/** A pool that keeps the texts: of those that are few, or looked at again. */
export interface TextPool extends Pool, Sealable {
  /** The texts by their numbers. */
  readonly texts: readonly string[]
}

export function textPool(): TextPool {
  const pool = hashPool()
  const texts = ['']
  return {
    ...pool,
    idOf: (text) => {
      const id = pool.idOf(text)
      if (id === texts.length) texts.push(text)
      return id
    },
    texts,
  }
}

/** Numbers of what is made of texts, made once for each way in which they are written. */
export interface FormNumbers extends Sealable {
  idOf(text: string): number
}

export function numbersOfForm(formOf: (text: string) => string, pool: Pick<Pool, 'idOf'>): FormNumbers {
  const written = hashPool()
  const ids = int32List()
  ids.push(pool.idOf(formOf('')))
  return {
    idOf: (text) => {
      const id = written.idOf(text)
      if (id === ids.length) ids.push(pool.idOf(formOf(text)))
      return ids.at(id)
    },
    seal: () => {
      written.seal()
      ids.take()
    },
  }
}

export const sealAll = (all: readonly Sealable[]): void => {
  for (const one of all) one.seal()
}
