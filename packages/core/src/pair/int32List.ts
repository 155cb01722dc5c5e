/** Whole numbers one after another, kept as four bytes each: a million of them are no million objects. */
export interface Int32List {
  push(value: number): void
  at(i: number): number
  readonly length: number
  /** The numbers pushed so far, in an array of their own length. */
  toArray(): Int32Array
}

export function int32List(): Int32List {
  let values = new Int32Array(1024)
  let length = 0
  return {
    push: (value) => {
      if (length === values.length) {
        const larger = new Int32Array(length * 2)
        larger.set(values)
        values = larger
      }
      values[length++] = value
    },
    at: (i) => values[i] as number,
    get length() {
      return length
    },
    toArray: () => values.slice(0, length),
  }
}
