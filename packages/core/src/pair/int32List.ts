/** Whole numbers one after another, kept as four bytes each: a million of them are no million objects. */
export interface Int32List {
  push(value: number): void
  at(i: number): number
  readonly length: number
  /** The numbers pushed so far, in an array of their own length: the list keeps none of them. */
  take(): Int32Array
}

const FIRST = 1024

/**
 * @param expected how many are about to come: room that was never needed takes no memory, what is outgrown and copied
 * leaves gaps in it
 */
export function int32List(expected = 0): Int32List {
  let values = new Int32Array(expected)
  let length = 0
  return {
    push: (value) => {
      if (length === values.length) {
        const larger = new Int32Array(Math.max(FIRST, length * 2))
        larger.set(values)
        values = larger
      }
      values[length++] = value
    },
    at: (i) => values[i] as number,
    get length() {
      return length
    },
    take: () => {
      const taken = values.subarray(0, length)
      values = new Int32Array(0)
      length = 0
      return taken
    },
  }
}
