/** A key of 32 bits and what it belongs to, as one number of 64 bits: a plain array of them is sorted in no time. */
export interface SortedKeys {
  readonly length: number
  keyAt(i: number): number
  /** What the key at this place belongs to. Under one key, in order. */
  valueAt(i: number): number
}

const FIRST = 1 << 11

/**
 * Collects keys with what they belong to, and sorts them.
 * @param expected how many are about to come
 */
export function keySorter(expected = 0): { add(key: number, value: number): void; sort(): SortedKeys } {
  let words = new Uint32Array(Math.max(FIRST, expected) * 2)
  let length = 0
  return {
    add: (key, value) => {
      if (length * 2 === words.length) {
        const larger = new Uint32Array(words.length * 2)
        larger.set(words)
        words = larger
      }
      // Little-endian: the key is the upper half.
      words[length * 2] = value
      words[length * 2 + 1] = key
      length++
    },
    sort: () => {
      new BigUint64Array(words.buffer, 0, length).sort()
      const sorted = words
      return {
        length,
        keyAt: (i) => sorted[i * 2 + 1] as number,
        valueAt: (i) => sorted[i * 2] as number,
      }
    },
  }
}

/** Tells the runs of keys that several have. */
export const eachShared = (sorted: SortedKeys, tell: (from: number, to: number) => void): void =>
  eachRun(sorted, (from, to) => {
    if (to - from > 1) tell(from, to)
  })

/** Tells each run of one key: where it begins, and where it ends. */
export function eachRun(sorted: SortedKeys, tell: (from: number, to: number) => void): void {
  for (let from = 0; from < sorted.length; ) {
    let to = from + 1
    while (to < sorted.length && sorted.keyAt(to) === sorted.keyAt(from)) to++
    tell(from, to)
    from = to
  }
}
