/** A stream of numbers that depends on its seed alone. */
export interface Random {
  /** From 0 to less than 1. */
  next(): number
  /** A whole number from 0 to less than `below`. */
  below(below: number): number
  pick<T>(items: readonly T[]): T
  chance(share: number): boolean
}

/** FNV-1a with a final mix: 32 bits of a text. */
export function hashOf(text: string): number {
  let hash = 0x811c9dc5
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193)
  hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b)
  hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35)
  return (hash ^ (hash >>> 16)) >>> 0
}

/** Same seed, same stream (mulberry32, public domain). */
export function createRandom(seed: string): Random {
  let state = hashOf(seed)
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = Math.imul(state ^ (state >>> 15), state | 1)
    t = (t + Math.imul(t ^ (t >>> 7), t | 61)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
  const below = (limit: number) => Math.floor(next() * limit)
  return {
    next,
    below,
    pick: (items) => {
      const item = items[below(items.length)]
      if (item === undefined) throw new Error('nothing to pick from')
      return item
    },
    chance: (share) => next() < share,
  }
}

/** Answers a question about a thing the same way whatever the order of asking. */
export const isLikely = (share: number, ...about: readonly (string | number)[]): boolean =>
  hashOf(about.join('|')) / 4294967296 < share
