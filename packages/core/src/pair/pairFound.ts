import { PAIR_KEYS, type PairKey } from './blocks'
import { int32List } from './int32List'

/** Two contacts that may be one person. */
export interface PairFound {
  readonly a: number
  readonly b: number
  readonly score: number
  readonly key: PairKey
  /** True where nothing speaks against joining them without a person, but for the score. */
  readonly isSure: boolean
  /** True where they hold what only one person holds: a mobile, a personal address, a profile. */
  readonly isPersonal: boolean
}

/** Pairs one after another, some twenty bytes each: a large list has millions of them. */
export interface PairStore {
  add(pair: PairFound): void
  readonly length: number
  at(i: number): PairFound
  firstAt(i: number): number
  secondAt(i: number): number
  scoreAt(i: number): number
  isSureAt(i: number): boolean
  isPersonalAt(i: number): boolean
}

const SURE = 16
const PERSONAL = 32
/** Bits of a score are kept in parts of so many. */
const PARTS = 2 ** 16

export function pairStore(): PairStore {
  const [first, second, scores, marks] = [int32List(), int32List(), int32List(), int32List()]
  const scoreAt = (i: number): number => scores.at(i) / PARTS
  const isSureAt = (i: number): boolean => (marks.at(i) & SURE) !== 0
  const isPersonalAt = (i: number): boolean => (marks.at(i) & PERSONAL) !== 0
  return {
    firstAt: first.at,
    secondAt: second.at,
    scoreAt,
    isSureAt,
    isPersonalAt,
    add: ({ a, b, score, key, isSure, isPersonal }) => {
      first.push(a)
      second.push(b)
      scores.push(Math.round(score * PARTS))
      marks.push(PAIR_KEYS.indexOf(key) | (isSure ? SURE : 0) | (isPersonal ? PERSONAL : 0))
    },
    get length() {
      return first.length
    },
    at: (i) => ({
      a: first.at(i),
      b: second.at(i),
      score: scoreAt(i),
      key: PAIR_KEYS[marks.at(i) & (SURE - 1)] as PairKey,
      isSure: isSureAt(i),
      isPersonal: isPersonalAt(i),
    }),
  }
}
