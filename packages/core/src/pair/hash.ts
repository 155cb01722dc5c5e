/** A hash of 32 bits of a text (FNV-1a, stirred): the same in every run, whatever stands beside it. */
export function hashOfText(text: string): number {
  let hash = 0x811c9dc5
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193)
  return stir(hash)
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
