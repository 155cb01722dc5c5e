/** The two hashes of the text that was hashed last: a register, so that no pair of numbers is made for each text. */
export const hashed = { first: 0, second: 0 }

/**
 * Hashes a text in two ways that go their own: together 64 bits, the same in every run, whatever stands beside it.
 * They are left in `hashed`. (FNV-1a and multiplication by the golden ratio, stirred.)
 */
export function hashText(text: string): void {
  let first = 0x811c9dc5
  let second = text.length
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i)
    first = Math.imul(first ^ code, 0x01000193)
    second = Math.imul(second, 0x9e3779b1) + code
  }
  hashed.first = stir(first)
  hashed.second = stir(second)
}

/** Goes on with another text: the hashes are those of all of them in this order. */
export function hashMore(text: string): void {
  const { first, second } = hashed
  hashText(text)
  hashed.first = hashOfTwo(first, hashed.first)
  hashed.second = hashOfTwo(second, hashed.second)
}

/** A hash of 32 bits of a text. */
export function hashOfText(text: string): number {
  hashText(text)
  return hashed.first
}

/** A hash of two hashes in this order. */
export const hashOfTwo = (a: number, b: number): number => stir(Math.imul(a, 0x9e3779b1) + b)

/** Spreads the bits of a number over all 32 (the last steps of MurmurHash3). */
function stir(value: number): number {
  let hash = value | 0
  hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b)
  hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35)
  return (hash ^ (hash >>> 16)) >>> 0
}
