import { hashOfTwo } from './hash'

/** Counts by two whole numbers below 2 ** 32, twelve bytes each: a million of them are no million objects. */
export interface Counter {
  /** @param count above 0; nothing was set for the two before */
  set(one: number, other: number, count: number): void
  /** 0 where nothing was set. */
  of(one: number, other: number): number
}

/** Two numbers and their count. */
const WIDTH = 3
/** Of so many places one is taken at most. */
const ROOM = 2

export function createCounter(): Counter {
  let slots = new Uint32Array(WIDTH << 10)
  let taken = 0
  const placeOf = (one: number, other: number): number => {
    const mask = slots.length / WIDTH - 1
    let place = hashOfTwo(one, other) & mask
    for (;;) {
      const at = place * WIDTH
      if (slots[at + 2] === 0 || (slots[at] === one && slots[at + 1] === other)) return at
      place = (place + 1) & mask
    }
  }
  const put = (one: number, other: number, count: number): void => {
    const at = placeOf(one, other)
    slots[at] = one
    slots[at + 1] = other
    slots[at + 2] = count
  }
  const grow = (): void => {
    const before = slots
    slots = new Uint32Array(before.length * 2)
    for (let at = 0; at < before.length; at += WIDTH)
      if (before[at + 2] !== 0) put(before[at] as number, before[at + 1] as number, before[at + 2] as number)
  }
  return {
    set: (one, other, count) => {
      put(one, other, count)
      if (++taken * ROOM * WIDTH > slots.length) grow()
    },
    of: (one, other) => slots[placeOf(one, other) + 2] as number,
  }
}
