const SLOTS = 1 << 16
/** Numbers of things are below this: two of them make one whole number that a double holds exactly. */
const MOST = 2 ** 26

/**
 * Keeps the last answers to a question about two things that are told apart by numbers, whichever comes first: the
 * same two words, or companies, meet again and again. An answer that falls on the place of another takes it.
 */
export function pairMemo(answer: (a: number, b: number) => boolean): (a: number, b: number) => boolean {
  const keys = new Float64Array(SLOTS).fill(-1)
  const answers = new Uint8Array(SLOTS)
  return (a, b) => {
    const key = a < b ? a * MOST + b : b * MOST + a
    const slot = (Math.imul(a ^ b, 0x9e3779b1) ^ Math.imul(a + b, 0x85ebca6b)) >>> 16
    if (keys[slot] !== key) {
      answers[slot] = answer(a, b) ? 1 : 0
      keys[slot] = key
    }
    return answers[slot] === 1
  }
}
